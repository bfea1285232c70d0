import { RefreshCw } from "lucide-react";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { runRules } from "./runRules";

/** Says whose ducking does not fit the speech any more, of all tracks or of one, and brings it up to date. */
export function Late({ track }: { track?: string }) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const tracks = useMix((s) => s.tracks);
  const outOfDate = useMix((s) => s.figures?.outOfDate) ?? [];
  const late = track === undefined ? outOfDate : outOfDate.filter((id) => id === track);
  if (late.length === 0) return null;
  const name = (id: string) => tracks.find((t) => t.id === id)?.name ?? "a track that is gone";
  return (
    <div className="grid gap-1.5 rounded-lg border border-trouble/40 bg-trouble-sheet p-2" role="status">
      <p>
        The ducking of {late.map(name).join(", ")} is <strong>out of date</strong>: the speech, or a rule, has
        changed since.
      </p>
      {canEdit && (
        <button
          type="button"
          className="button justify-self-start px-2 py-0.5"
          title="Corrections by hand stay (Shift+U)"
          onClick={() => void runRules(store)}
        >
          <RefreshCw size={13} aria-hidden /> Bring up to date
        </button>
      )}
    </div>
  );
}
