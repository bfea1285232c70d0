import { useQuery } from "@tanstack/react-query";
import { api } from "@/api/client";
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
  const at = data?.revisions.findIndex((r) => r.number === revision) ?? 0;
  return (
    <ol className="p-2" aria-label="Edits, newest first">
      {data?.revisions.map((r, i) => (
        <li key={r.number}>
          <button
            type="button"
            className={`w-full cursor-pointer rounded-md px-2 py-1.5 text-left hover:bg-sunk ${i < at ? "text-faint" : ""} ${r.number === revision ? "bg-glow" : ""}`}
            aria-current={r.number === revision ? "true" : undefined}
            disabled={!canEdit}
            onClick={() => r.number !== revision && void store.getState().goTo(r.number)}
          >
            <span className="block">{r.label}</span>
            <span className="text-[11px] text-faint">
              {i < at ? "undone · " : ""}
              {new Date(r.at).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" })} ·{" "}
              {r.author}
            </span>
          </button>
        </li>
      ))}
    </ol>
  );
}
