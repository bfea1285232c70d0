import { useState } from "react";
import { useMix } from "@/store/context";

/** The highest peak since playing began, and whether it was ever over full scale, until that is cleared. */
export function HeldPeak({ of, peak }: { of: string; peak: number }) {
  const playing = useMix((s) => s.playing);
  const [held, setHeld] = useState(-Infinity);
  const [before, setBefore] = useState(playing);
  if (before !== playing) {
    setBefore(playing);
    if (playing && held <= 0) setHeld(-Infinity);
  } else if (peak > held) {
    setHeld(peak);
  }
  const shown = held > -60 ? held.toFixed(1).replace("-", "−") : "—";
  return held > 0 ? (
    <button
      type="button"
      className="figure -my-[5px] inline-grid cursor-pointer place-content-center align-middle"
      aria-label={`over: ${of}`}
      title={`Passed full scale by ${shown} dB. Click to clear`}
      onClick={() => setHeld(-Infinity)}
    >
      {/* What is met is larger than what is seen, so that nothing beside it moves. */}
      <span className="rounded bg-trouble px-1 text-paper">over</span>
    </button>
  ) : (
    <span className="figure text-ink" title={`Highest peak of ${of} since playing began, dBFS`}>
      {shown}
    </span>
  );
}
