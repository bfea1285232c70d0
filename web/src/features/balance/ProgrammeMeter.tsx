import { useState } from "react";
import { useLevels } from "@/features/player";
import { formatDb } from "@/lib/format";
import { useMix } from "@/store/context";
import { MeterBar } from "./MeterBar";
import { offTarget } from "./target";

/** What the programme will measure at, against its target. */
function Loudness() {
  const integrated = useMix((s) => s.figures?.programme.integrated ?? null);
  const target = useMix((s) => s.aim.loudness);
  if (integrated === null) return <span title="Loudness as it will measure">silent</span>;
  const word = offTarget(integrated, target);
  const arrow = word.endsWith("over") ? " ▲" : word.endsWith("under") ? " ▼" : "";
  return (
    <span
      className="whitespace-nowrap"
      title={`${formatDb(integrated)} LUFS integrated, as it will measure; target ${formatDb(target)}`}
    >
      <span className="figure font-semibold text-ink">{formatDb(integrated)}</span>
      <span className="max-[1360px]:hidden"> LUFS, {word}</span>
      <span className="min-[1360px]:hidden">{arrow} LUFS</span>
    </span>
  );
}

/** Peak of the programme: now, the highest since playing began, and whether it was ever over, until that is cleared. */
export function ProgrammeMeter() {
  const levels = useLevels();
  const playing = useMix((s) => s.playing);
  const [left, right] = levels?.programme ?? [-Infinity, -Infinity];
  const [held, setHeld] = useState(-Infinity);
  const [before, setBefore] = useState(playing);
  const peak = Math.max(left, right);
  if (before !== playing) {
    setBefore(playing);
    if (playing && held <= 0) setHeld(-Infinity);
  } else if (peak > held) {
    setHeld(peak);
  }
  const over = held > 0;
  const shown = held > -60 ? held.toFixed(1).replace("-", "−") : "—";
  return (
    <div
      className="w-[176px] max-[1360px]:w-[112px] max-[1150px]:w-[100px]"
      role="group"
      aria-label="Programme"
    >
      <div className="flex items-baseline justify-between gap-1 text-[11px] text-faint">
        <Loudness />
        {over ? (
          <button
            type="button"
            className="figure cursor-pointer rounded bg-trouble px-1 text-paper"
            title={`Passed full scale by ${shown} dB. Click to clear`}
            onClick={() => setHeld(-Infinity)}
          >
            over
          </button>
        ) : (
          <span className="figure text-ink" title="Highest peak since playing began, dBFS">
            {shown}
          </span>
        )}
      </div>
      <div className="mt-1 grid gap-[2px]">
        <MeterBar db={left} />
        <MeterBar db={right} />
      </div>
    </div>
  );
}
