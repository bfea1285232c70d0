import type { DuckingPlan, Rule } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { formatTimecode } from "@/preview/timecode";
import { useMix, useMixStore } from "@/store/context";

/** Stretches that are named; there may be hundreds. */
const NAMED = 5;
/** dB; more is no advice. */
const MOST_LIFT = 12;

/** What a rule would do, in words: how many stretches, how deep, what it takes of the music, and what it cannot reach. */
export function Outcome({ plan, rule }: { plan: DuckingPlan | undefined; rule: Rule }) {
  const store = useMixStore();
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  if (!plan) return <>Listening…</>;
  const short = plan.dips.filter((dip) => dip.limited && dip.lift > 0);
  return (
    <>
      {summary(plan, rule)}
      {plan.taken && (
        <span className="mt-1 block">
          {`While somebody speaks it takes ${plan.taken.now.toFixed(1)} LU of the music; a plain dip for the same would take ${plan.taken.plain.toFixed(1)}.`}
        </span>
      )}
      {short.length > 0 && <span className="mt-1 block">Not reached; so much more of speech would do:</span>}
      {short.slice(0, NAMED).map((dip) => (
        <button
          key={dip.from}
          type="button"
          className="flex min-h-6 w-full cursor-pointer items-center gap-2 text-left text-aside hover:underline"
          title="Goes there"
          onClick={() => store.getState().set({ playhead: dip.from })}
        >
          <span className="figure">{formatTimecode(dip.from, rate, frameRate)}</span>
          <span className="min-w-0 flex-1 truncate">{speakerAt(store.getState(), dip.from, dip.to)}</span>
          <span className="figure">{dip.lift >= MOST_LIFT ? "> 12 dB" : `+${dip.lift.toFixed(1)} dB`}</span>
        </button>
      ))}
      {short.length > NAMED && <span className="block">{`and ${short.length - NAMED} more`}</span>}
    </>
  );
}

function speakerAt(
  state: {
    clips: Record<string, { at: number; length: number; name: string; track: string }>;
    tracks: { id: string; stem: string }[];
  },
  from: number,
  to: number,
): string {
  const speech = new Set(state.tracks.filter((t) => t.stem === "speech").map((t) => t.id));
  const clip = Object.values(state.clips).find(
    (c) => speech.has(c.track) && c.at < to && c.at + c.length > from,
  );
  return clip?.name ?? "speech";
}

function summary(plan: DuckingPlan, rule: Rule): string {
  const count = (...kinds: string[]) => plan.moments.filter((m) => kinds.includes(m.heard)).length;
  const found = count("found", "added");
  if (found === 0) return "No speech was found. Lower “Heard as speech from”, or tick who speaks.";
  if (rule.kind === "hush")
    return `${plan.dips.length} ${plan.dips.length === 1 ? "pause goes" : "pauses go"} down by ${formatDb(rule.depth ?? 0).replace("−", "")} dB.`;
  if (rule.kind === "turns")
    return `Whoever speaks is open; the others give way by ${formatDb(rule.depth ?? 0).replace("−", "")} dB. Two at once stay open, and all of them together stay as loud.`;
  const depths = plan.dips.map((dip) => dip.depth + dip.band);
  const range = depths.length
    ? `, ${formatDb(Math.max(...depths))} to ${formatDb(Math.min(...depths))} dB`.replace(
        / (\S+) to \1 dB/,
        " $1 dB",
      )
    : ": nothing needs to give way";
  const limited = plan.dips.filter((dip) => dip.limited).length;
  return [
    `${found} ${found === 1 ? "stretch" : "stretches"} of speech${range}.`,
    limited ? `${limited} would need more than the limit.` : "",
    count("quiet") ? `${count("quiet")} too quiet: click them on the strip to take them in.` : "",
    count("short") ? `${count("short")} too short.` : "",
  ]
    .filter(Boolean)
    .join(" ");
}
