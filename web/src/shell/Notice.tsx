import { X } from "lucide-react";
import { News } from "@/features/people";
import { useMix, useMixStore } from "@/store/context";
import { switchAB } from "@/commands/compare";

/** What went wrong, or was done; and, while another state is heard, which one. */
export function Notice() {
  const store = useMixStore();
  const notice = useMix((s) => s.notice);
  const hearing = useMix((s) => s.hearing?.name ?? null);
  return (
    <div className="pointer-events-none absolute bottom-[12px] left-1/2 z-40 grid max-w-[640px] -translate-x-1/2 justify-items-center gap-2">
      <News />
      {hearing !== null && (
        <div
          role="status"
          className="pointer-events-auto flex items-center gap-3 rounded-lg border border-copper bg-glow px-4 py-1.5 shadow-xl backdrop-blur"
        >
          <span>
            Seeing and hearing <strong>A: {hearing}</strong>. The present is kept.
          </span>
          <button type="button" className="button px-2 py-0.5" onClick={() => void switchAB(store)}>
            Back to B
          </button>
        </div>
      )}
      {notice && (
        <div
          role={notice.kind === "error" ? "alert" : "status"}
          className={`pointer-events-auto flex items-start gap-3 rounded-lg border px-4 py-2 shadow-xl ${notice.kind === "error" ? "border-trouble bg-trouble-sheet text-trouble" : "border-line bg-sheet"}`}
        >
          <span>{notice.text}</span>
          <button
            type="button"
            className="cursor-pointer"
            aria-label="Dismiss"
            onClick={() => store.getState().set({ notice: null })}
          >
            <X size={15} />
          </button>
        </div>
      )}
    </div>
  );
}
