import { useQuery } from "@tanstack/react-query";
import { api } from "@/api/client";
import { switchAB } from "./compare";
import { useCanEdit, useMix, useMixStore } from "@/store/context";

/** Every edit, newest first; a click goes to that state, and nothing is lost by it. */
export function HistoryPanel() {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const project = useMix((s) => s.project.id);
  const revision = useMix((s) => s.revision);
  const { data } = useQuery({
    queryKey: ["history", project, revision],
    queryFn: () => api.history(project),
    placeholderData: (old) => old,
  });
  const against = useMix((s) => s.against?.revision ?? null);
  const hearAsA = ({ number, label }: { number: number; label: string }) => {
    const state = store.getState();
    if (state.hearing) state.hear(null);
    state.set({ against: { revision: number, name: label } });
    void switchAB(store);
  };
  const at = data?.revisions.findIndex((r) => r.number === revision) ?? 0;
  return (
    <ol className="p-2" aria-label="Edits, newest first">
      {data?.revisions.map((r, i) => (
        <li key={r.number} className="flex items-stretch gap-1">
          <button
            type="button"
            className={`min-w-0 flex-1 cursor-pointer rounded-md px-2 py-1.5 text-left hover:bg-sunk ${i < at ? "text-faint" : ""} ${r.number === revision ? "bg-glow" : ""}`}
            aria-current={r.number === revision ? "true" : undefined}
            disabled={!canEdit}
            title="Goes to this state · C pressed here: hear it as A"
            onClick={() => r.number !== revision && void store.getState().goTo(r.number)}
            onKeyDown={(event) => {
              if (event.key.toLowerCase() !== "c" || event.ctrlKey || event.metaKey) return;
              event.stopPropagation();
              hearAsA(r);
            }}
          >
            <span className="block">{r.label}</span>
            <span className="text-[11px] text-faint">
              {i < at ? "undone · " : ""}
              {new Date(r.at).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" })} ·{" "}
              {r.author}
            </span>
          </button>
          <button
            type="button"
            className="figure w-7 shrink-0 cursor-pointer rounded-md text-[12px] font-semibold text-faint hover:bg-sunk aria-pressed:bg-ink aria-pressed:text-paper"
            aria-pressed={against === r.number}
            aria-label={`Take “${r.label}” as A`}
            title="Take this state as A, to compare with"
            onClick={() =>
              store.getState().set({
                against: against === r.number ? null : { revision: r.number, name: r.label },
              })
            }
          >
            A
          </button>
        </li>
      ))}
    </ol>
  );
}
