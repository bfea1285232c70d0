import { panAt } from "@/preview/lanes";
import { formatPan } from "@/preview/pan";
import { TypedField } from "@/parts/TypedField";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import type { Range } from "@/store/screen";
import { typedPan } from "@/store/typedPan";

/** What is done to the selected range of a pan or a mute lane. */
export function SideRange({ track, part, range }: { track: string; part: "pan" | "mute"; range: Range }) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const ramp = useMix((s) => s.settings.ramp);
  const pan = useMix((s) => {
    const own = s.tracks.find((t) => t.id === track);
    return own ? panAt(own, Math.round((range.from + range.to) / 2)) : 0;
  });
  const edit = store.getState().edit;
  const { from, to } = range;
  if (part === "mute")
    return (
      <div className="mt-2 grid grid-cols-2 gap-1.5">
        {[true, false].map((muted) => (
          <button
            key={String(muted)}
            type="button"
            className="button px-2"
            disabled={!canEdit}
            title={canEdit ? undefined : "Your role here is viewer."}
            onClick={() => void edit({ edit: "set-mute-range", track, from, to, muted })}
          >
            {muted ? "Mute here" : "Heard here"}
          </button>
        ))}
      </div>
    );
  const set = async (text: string) => {
    const next = typedPan(store.getState(), text);
    return next !== null && edit({ edit: "set-pan-range", track, from, to, pan: next, ramp });
  };
  return (
    <div className="mt-2 grid grid-cols-[1fr_112px] items-center gap-2">
      <span className="text-faint">Pan over the range</span>
      <TypedField label="Pan over the range" shown={formatPan(pan)} disabled={!canEdit} onCommit={set} />
    </div>
  );
}
