import { Link2, Lock, Spline } from "lucide-react";
import type { Track } from "@/api/schema";
import { useCanEdit, useMix, useMixStore } from "@/store/context";

/** What is out of the ordinary about a track: linked, locked, its wires hidden. A press on one ends it. */
export function Flags({ track }: { track: Track }) {
  const store = useMixStore();
  const edit = store.getState().edit;
  const canEdit = useCanEdit();
  const hidden = useMix((s) => s.hiddenWires.includes(track.id));
  const linked = useMix((s) =>
    s.linked.length > 1 && s.linked.includes(track.id)
      ? s.tracks
          .filter((t) => t.id !== track.id && s.linked.includes(t.id))
          .map((t) => t.name)
          .join(", ")
      : "",
  );
  return (
    <>
      {linked && (
        <button
          type="button"
          className="grid size-6 cursor-pointer place-content-center text-copper-text"
          aria-label={`Unlink the fader of ${track.name} from ${linked}`}
          title={`Its fader moves with ${linked}. Click to unlink`}
          onClick={() => {
            const { linked: all, set } = store.getState();
            set({ linked: all.filter((id) => id !== track.id) });
          }}
        >
          <Link2 size={12} />
        </button>
      )}
      {track.locked && (
        <button
          type="button"
          className="grid size-6 cursor-pointer place-content-center text-copper-text"
          aria-label={`Unlock ${track.name}`}
          title="Locked: its clips stay as they are. Click to unlock"
          disabled={!canEdit}
          onClick={() => void edit({ edit: "set-locked", track: track.id, locked: false })}
        >
          <Lock size={12} />
        </button>
      )}
      {hidden && (
        <button
          type="button"
          className="grid size-6 cursor-pointer place-content-center text-faint"
          aria-label={`Show the wires of ${track.name}`}
          title="Wires hidden. Click to show them"
          onClick={() => {
            const { hiddenWires, set } = store.getState();
            set({ hiddenWires: hiddenWires.filter((id) => id !== track.id) });
          }}
        >
          <Spline size={12} />
        </button>
      )}
    </>
  );
}
