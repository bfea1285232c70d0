import type { Clip, FadeShape } from "@/api/schema";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { SHAPES } from "@/parts/fadeShapes";
import { LengthField } from "@/parts/LengthField";

/** Length and shape of both fades; where a clip crosses over with its neighbour, of the crossfade. */
export function FadesSection({ clip }: { clip: Clip }) {
  return (
    <div className="mt-3 grid grid-cols-[1fr_70px_100px] items-center gap-x-1.5 gap-y-1">
      <FadeRow clip={clip} edge="in" />
      <FadeRow clip={clip} edge="out" />
    </div>
  );
}

function FadeRow({ clip, edge }: { clip: Clip; edge: "in" | "out" }) {
  const edit = useMixStore().getState().edit;
  const canEdit = useCanEdit();
  const selected = useMix((s) => s.selected);
  const rate = useMix((s) => s.rate);
  const neighbour = useMix((s) => crossing(Object.values(s.clips), clip, edge));
  const own = (edge === "in" ? clip.fadeIn : clip.fadeOut) ?? { length: 0, shape: "equal-power" as const };
  const heard = (edge === "in" ? clip.fades[0] : clip.fades[1]) ?? own;
  const [earlier, later] = edge === "in" ? [neighbour, clip] : [clip, neighbour];
  const name = neighbour ? `Cross${edge === "in" ? " from" : " to"} ${neighbour.name}` : `Fade ${edge}`;
  const set = (length: string, shape?: FadeShape) => {
    const given = shape ? { shape } : {};
    return earlier && later
      ? edit({ edit: "cross-over", earlier: earlier.id, later: later.id, length, ...given })
      : edit({ edit: "set-fade", clips: selected, edge, length, ...given });
  };
  return (
    <>
      <span className="truncate text-faint" title={name}>
        {name}
      </span>
      <LengthField
        label={neighbour ? name : `Length of fade ${edge}`}
        samples={heard.length}
        disabled={!canEdit}
        onCommit={(length) => set(length)}
      />
      <select
        className="field px-0.5 py-0.5 text-aside"
        aria-label={`Shape of ${name}`}
        disabled={!canEdit}
        value={heard.shape}
        onChange={(event) => void set(`${heard.length / rate} s`, event.target.value as FadeShape)}
      >
        {SHAPES.map((s) => (
          <option key={s.shape} value={s.shape}>
            {s.name}
          </option>
        ))}
      </select>
    </>
  );
}

/** The neighbour that a clip overlaps at an end, and so crosses over with. */
function crossing(clips: Clip[], clip: Clip, edge: "in" | "out"): Clip | undefined {
  const end = clip.at + clip.length;
  return clips.find(
    (c) =>
      c.id !== clip.id &&
      c.track === clip.track &&
      (edge === "in"
        ? c.at < clip.at && c.at + c.length > clip.at && c.at + c.length < end
        : c.at > clip.at && c.at < end && c.at + c.length > end),
  );
}
