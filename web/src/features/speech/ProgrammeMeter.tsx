import { useLevels } from "@/player";
import { formatDb } from "@/lib/format";
import { useMix } from "@/store/context";
import { HeldPeak } from "@/parts/HeldPeak";
import { MeterBar } from "@/parts/MeterBar";
import { offTarget } from "./target";

/** What the programme will measure at, against its target. */
function Loudness() {
  const integrated = useMix((s) => s.figures?.programme.integrated ?? null);
  const verdict = useMix((s) => s.figures?.verdict ?? null);
  const target = useMix((s) => s.aim.loudness);
  if (integrated === null || !verdict) return <span title="Loudness as it will measure">silent</span>;
  const word = offTarget(verdict);
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
  const [left, right] = levels?.programme.peak ?? [-Infinity, -Infinity];
  return (
    <div
      className="w-[176px] max-[1360px]:w-[112px] max-[1150px]:w-[100px]"
      role="group"
      aria-label="Programme"
    >
      <div className="flex items-baseline justify-between gap-1 text-note text-faint">
        <Loudness />
        <HeldPeak of="the programme" peak={Math.max(left, right)} />
      </div>
      <div className="mt-1 grid gap-[2px]">
        <MeterBar db={left} />
        <MeterBar db={right} />
      </div>
    </div>
  );
}
