import { memo } from "react";
import { useMix } from "@/store/context";
import { CLIP_MARGIN, type Layout, type View, xOf } from "@/scene/geometry";

interface Props {
  layout: Layout;
  view: View;
  width: number;
}

/** What others have selected or hold: a dashed frame around the clip, with their names. */
export const HeldMarks = memo(function HeldMarks({ layout, view, width }: Props) {
  const people = useMix((s) => s.people);
  const clips = useMix((s) => s.clips);
  const byClip = new Map<string, string[]>();
  for (const { holds, name } of people) {
    const id = holds?.startsWith("clip:") ? holds.slice(5) : null;
    if (id !== null && clips[id]) byClip.set(id, [...(byClip.get(id) ?? []), name]);
  }
  return [...byClip].map(([id, names]) => {
    const clip = clips[id];
    const lane = layout.lanes.find((l) => l.track.id === clip?.track);
    if (!clip || !lane) return null;
    const left = Math.max(0, xOf(view, clip.at));
    const right = Math.min(width, xOf(view, clip.at + clip.length));
    if (right <= left) return null;
    return (
      <div
        key={id}
        className="pointer-events-none absolute z-10 rounded-sm border-2 border-dashed border-ink"
        style={{
          left,
          width: Math.max(6, right - left),
          top: lane.top + CLIP_MARGIN,
          height: lane.height - 2 * CLIP_MARGIN,
        }}
      >
        <span className="absolute top-0 right-0 max-w-40 truncate rounded-bl bg-ink px-1.5 text-mark font-semibold text-paper">
          {[...new Set(names)].join(", ")}
        </span>
      </div>
    );
  });
});
