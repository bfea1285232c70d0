import { memo } from "react";
import { formatTimecode } from "@/preview/timecode";
import { useMix, useMixStore } from "@/store/context";
import { type Layout, type View, xOf } from "@/scene/geometry";
import { toggled } from "./ducking";

interface Props {
  layout: Layout;
  view: View;
  width: number;
}

const LOOKS = {
  found: "border-solid bg-speech/25 border-speech",
  added: "border-solid bg-copper/25 border-copper",
  quiet: "border-dashed border-ink",
  short: "border-dotted border-ink",
  dropped: "border-dashed border-faint line-through",
};

const WORDS = {
  found: "speech",
  added: "added",
  quiet: "too quiet",
  short: "too short",
  dropped: "left out",
};

const INKS = {
  found: "bg-speech",
  added: "bg-copper",
  quiet: "bg-ink",
  short: "bg-ink",
  dropped: "bg-faint",
};

/** The least width of a button, px: what is narrower is shown, and can be changed from closer by. */
const LEAST = 10;

/** What a rule that is tried has heard: each stretch can be taken in or left out by a click. */
export const DuckMarks = memo(function DuckMarks({ layout, view, width }: Props) {
  const store = useMixStore();
  const plan = useMix((s) => s.duckPlan);
  const draft = useMix((s) => s.duckDraft);
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  if (!plan || !draft) return null;
  const { top, height } = layout.clearance;
  return plan.moments.map((moment) => {
    const left = Math.max(0, xOf(view, moment.from));
    const right = Math.min(width, xOf(view, moment.to));
    if (right <= left) return null;
    const word = WORDS[moment.heard];
    const taken = moment.heard === "found" || moment.heard === "added";
    if (right - left < LEAST)
      return (
        <span
          key={`${moment.from} ${moment.heard}`}
          aria-hidden
          className={`pointer-events-none absolute ${INKS[moment.heard]}`}
          style={{ left, width: Math.max(1, right - left), top: top + 1, height: taken ? height - 2 : 8 }}
        />
      );
    return (
      <button
        key={`${moment.from} ${moment.heard}`}
        type="button"
        className={`absolute flex cursor-pointer items-start overflow-hidden rounded-sm border-2 text-mark leading-tight font-semibold whitespace-nowrap text-ink ${LOOKS[moment.heard]}`}
        style={{ left, width: right - left, top: top + 1, height: height - 2 }}
        aria-label={`${word}, ${formatTimecode(moment.from, rate, frameRate)} to ${formatTimecode(moment.to, rate, frameRate)}`}
        title={`${word}: click to ${taken ? "leave it out" : "take it in"}`}
        onPointerDown={(event) => event.stopPropagation()}
        onClick={() => store.getState().set({ duckDraft: toggled(draft, moment) })}
      >
        {right - left > 34 && <span className="rounded-br-sm bg-paper px-1">{word}</span>}
      </button>
    );
  });
});
