import type { ReactNode } from "react";
import type { DuckingPlan, Rule } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { CORE } from "@/preview/constants";
import { useMix, useMixStore } from "@/store/context";
import { HearPlan } from "@/parts/HearPlan";
import { Depth } from "./Depth";
import { mutedSpeakers } from "./duckRules";
import { NumberRow } from "./NumberRow";
import { useTrial } from "./useTrial";
import { ClipTriggers, TrackChoice } from "./WhoSpeaks";

const TIMES: {
  key: "lead" | "fall" | "rise" | "hold" | "bridge" | "ignore";
  name: string;
  hint: string;
  most: number;
}[] = [
  { key: "lead", name: "Lead", hint: "Fully down this long before the speech", most: 1 },
  { key: "fall", name: "Fall", hint: "Ramp down", most: 3 },
  { key: "hold", name: "Hold", hint: "Stays down this long after the speech", most: 3 },
  { key: "rise", name: "Rise", hint: "Ramp back up", most: 5 },
  { key: "bridge", name: "Bridge", hint: "A shorter pause does not come back up", most: 5 },
  { key: "ignore", name: "Ignore", hint: "Shorter speech does not count", most: 2 },
];

/** A rule while it is tried: every change is worked out, drawn and heard at once, and nothing is kept before “Keep”. */
export function DuckRuleForm({ draft }: { draft: Rule }) {
  const store = useMixStore();
  const tracks = useMix((s) => s.tracks);
  const usual = useMix((s) => s.aim.sensitivity);
  const length = useMix((s) => s.length);
  const { plan, error, complete, missing, listening, setListening } = useTrial(draft);
  const muted = mutedSpeakers(draft, tracks);
  const set = (part: Partial<Rule>) => store.getState().set({ duckDraft: { ...draft, ...part } });
  const keep = async () => {
    const edit = missing === null ? (plan?.edit ?? null) : null;
    if (edit && (await store.getState().edit(edit))) store.getState().set({ duckDraft: null });
  };
  return (
    <form
      className="grid gap-3"
      aria-label="Rule"
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <input
        className="field py-0.5 font-semibold"
        aria-label="Name of the rule"
        value={draft.name}
        maxLength={CORE.longestName}
        onChange={(event) => set({ name: event.target.value })}
        onKeyDown={(event) => event.stopPropagation()}
      />
      <p className={error ? "text-trouble" : ""} role="status">
        {error?.message ?? (complete ? summary(plan) : "Tick a track that gives way.")}
        {muted.length > 0 && (
          <span className="mt-1 block font-semibold text-trouble">
            {`${muted.join(", ")} ${muted.length === 1 ? "is" : "are"} muted, and not heard by this rule.`}
          </span>
        )}
      </p>
      <TrackChoice draft={draft} set={set} />
      <ClipTriggers draft={draft} set={set} />
      {draft.triggers.length + draft.clips.length === 0 && (
        <p className="text-aside text-faint">
          Nobody is ticked, so all speech above the horizon is listened to.
        </p>
      )}
      <Depth draft={draft} set={set} />
      <NumberRow
        name="Heard as speech from"
        unit="dB"
        hint="Above the background of the recording. Less hears quieter speech"
        value={draft.sensitivity ?? usual}
        least={CORE.aim.sensitivity[0]}
        most={CORE.aim.sensitivity[1]}
        step={0.5}
        onChange={(sensitivity) => set({ sensitivity })}
      />
      {TIMES.map(({ key, name, hint, most }) => (
        <NumberRow
          key={key}
          name={name}
          unit="s"
          hint={hint}
          value={draft[key]}
          least={key === "fall" || key === "rise" ? 0.05 : 0}
          most={most}
          step={0.05}
          onChange={(value) => set({ [key]: value })}
        />
      ))}
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="size-6"
          checked={draft.follows}
          onChange={(event) => set({ follows: event.target.checked })}
        />
        Follows by itself when speech moves
      </label>
      <Foot missing={missing} onCancel={() => store.getState().set({ duckDraft: null })}>
        <HearPlan after={listening} onAfter={setListening} from={0} to={length} />
      </Foot>
    </form>
  );
}

interface FootProps {
  missing: string | null;
  onCancel: () => void;
  children: ReactNode;
}

function Foot({ missing, onCancel, children }: FootProps) {
  return (
    <div className="sticky bottom-0 -mx-3 -mb-3 grid gap-2 border-t border-line bg-paper p-3">
      {children}
      <div className="flex gap-2">
        <button
          type="submit"
          className="button button-main flex-1"
          aria-disabled={missing !== null}
          title={missing ?? "Keeps what is shown"}
        >
          Keep
        </button>
        <button type="button" className="button" onClick={onCancel}>
          Cancel
        </button>
      </div>
    </div>
  );
}

function summary(plan: DuckingPlan | undefined): string {
  if (!plan) return "Listening…";
  const count = (...kinds: string[]) => plan.moments.filter((m) => kinds.includes(m.heard)).length;
  const found = count("found", "added");
  if (found === 0) return "No speech was found. Lower “Heard as speech from”, or tick who speaks.";
  const depths = plan.dips.map((dip) => dip.depth);
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
