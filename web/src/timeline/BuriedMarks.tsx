import { memo } from "react";
import { formatDb } from "@/lib/format";
import { formatTimecode } from "@/preview/timecode";
import { useMix, useMixStore } from "@/store/context";
import { type Layout, type View, xOf } from "@/scene/geometry";

interface Props {
  layout: Layout;
  view: View;
  width: number;
}

/** The least width of a button, px. */
const LEAST = 24;

/** A button over each buried stretch of the strip, for pointers and keyboards: takes it in hand. */
export const BuriedMarks = memo(function BuriedMarks({ layout, view, width }: Props) {
  const store = useMixStore();
  const buried = useMix((s) => s.figures?.buried);
  const stretch = useMix((s) => s.stretch);
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  const { top, height } = layout.clearance;
  const trying = useMix((s) => s.duckPlan !== null);
  if (trying) return null;
  let edge = 0;
  return buried?.map(({ from, to, worst, accepted }) => {
    const [begin, end] = [Math.max(0, xOf(view, from)), Math.min(width, xOf(view, to))];
    if (end <= begin) return null;
    // Large enough for any pointer; where several lie within that, the keys still go to each.
    const wide = Math.max(LEAST, end - begin);
    const left = Math.min(Math.max(begin, edge), width - wide);
    if (left < edge || left > end) return null;
    edge = left + wide;
    return (
      <button
        key={from}
        type="button"
        className="absolute cursor-pointer rounded-sm"
        style={{ left, width: wide, top, height }}
        aria-pressed={stretch === from}
        aria-label={`${accepted === null ? "Buried" : "Accepted"} speech, ${formatTimecode(from, rate, frameRate)} to ${formatTimecode(to, rate, frameRate)}, ${formatDb(worst)} LU`}
        onPointerDown={(event) => event.stopPropagation()}
        onClick={() => store.getState().set({ stretch: from })}
      />
    );
  });
});
