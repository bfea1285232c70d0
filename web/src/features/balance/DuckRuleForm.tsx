import { useQuery } from "@tanstack/react-query";
import { Plus, X } from "lucide-react";
import { useEffect, useState } from "react";
import { api } from "@/api/client";
import type { DuckingPlan, Rule } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { formatTimecode } from "@/lib/timecode";
import { notANumber } from "@/parts/check";
import { numberIn } from "@/parts/parse";
import { TypedField } from "@/parts/TypedField";
import { useMix, useMixStore } from "@/store/context";
import { mutedSpeakers, withTrack } from "./duckRules";

/** Seconds that can be typed for any time of a rule; its slider ends where most rules do. */
const LONGEST = 10;

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
  const project = useMix((s) => s.project.id);
  const revision = useMix((s) => s.revision);
  const tracks = useMix((s) => s.tracks);
  const usual = useMix((s) => s.aim.sensitivity);
  const heard = useMix((s) => s.duckTry !== null);
  const [listening, setListening] = useState(true);
  const complete = draft.targets.length > 0;
  const { data, error, isPlaceholderData, isFetching } = useQuery({
    queryKey: ["ducking", project, revision, draft],
    queryFn: () => api.ducking(project, { rule: draft }),
    placeholderData: (old) => old,
    enabled: complete,
    retry: false,
  });
  // What is shown and heard is the rule as it stands in the form; where it cannot be worked out, nothing is tried.
  const plan = complete && !error ? data : undefined;
  useEffect(() => {
    if (!plan) {
      store.getState().set({ duckPlan: null, duckTry: null });
      return;
    }
    const lanes = Object.fromEntries(plan.lanes.map(({ track, schedule }) => [track, schedule]));
    store.getState().set({ duckPlan: plan, duckTry: listening ? lanes : null });
  }, [store, plan, listening]);
  const muted = mutedSpeakers(draft, tracks);
  const missing = !complete
    ? "Tick a track that gives way."
    : (error?.message ?? (!plan || isPlaceholderData || isFetching ? "Listening…" : null));
  // Leaving it in any way ends the trial.
  useEffect(() => () => store.getState().set({ duckPlan: null, duckTry: null, duckDraft: null }), [store]);
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
        maxLength={200}
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
      <fieldset className="grid grid-cols-[1fr_auto_auto] items-center gap-x-3 gap-y-0.5 text-[12px]">
        <legend className="sr-only">Tracks</legend>
        <span className="text-[11px] text-faint">Track</span>
        <span className="text-[11px] text-faint" title="None ticked: all speech">
          speaks
        </span>
        <span className="text-[11px] text-faint">gives way</span>
        {tracks.map((track) => [
          <span key={track.id} className="truncate">
            {track.name}
          </span>,
          ...(["triggers", "targets"] as const).map((part) => (
            <input
              key={`${track.id} ${part}`}
              type="checkbox"
              className="size-6 justify-self-center accent-[var(--copper)]"
              aria-label={part === "triggers" ? `${track.name} speaks` : `${track.name} gives way`}
              checked={draft[part].includes(track.id)}
              onChange={(event) => set(withTrack(draft, part, track.id, event.target.checked))}
            />
          )),
        ])}
      </fieldset>
      <ClipTriggers draft={draft} set={set} />
      {draft.triggers.length + draft.clips.length === 0 && (
        <p className="text-[12px] text-faint">
          Nobody is ticked, so all speech above the horizon is listened to.
        </p>
      )}
      <Depth draft={draft} set={set} />
      <Number
        name="Heard as speech from"
        unit="dB"
        hint="Above the background of the recording. Less hears quieter speech"
        value={draft.sensitivity ?? usual}
        least={3}
        most={30}
        step={0.5}
        onChange={(sensitivity) => set({ sensitivity })}
      />
      {TIMES.map(({ key, name, hint, most }) => (
        <Number
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
          className="size-6 accent-[var(--copper)]"
          checked={draft.follows}
          onChange={(event) => set({ follows: event.target.checked })}
        />
        Follows by itself when speech moves
      </label>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="size-6 accent-[var(--copper)]"
          checked={listening}
          onChange={(event) => setListening(event.target.checked)}
        />
        Hear it while trying{heard ? "" : " (off: as it is)"}
      </label>
      <div className="sticky bottom-0 -mx-3 -mb-3 flex gap-2 border-t border-line bg-paper p-3">
        <button
          type="submit"
          className="button button-main flex-1"
          aria-disabled={missing !== null}
          title={missing ?? "Keeps what is shown"}
        >
          Keep
        </button>
        <button type="button" className="button" onClick={() => store.getState().set({ duckDraft: null })}>
          Cancel
        </button>
      </div>
    </form>
  );
}

/** Single clips that speak, beside whole tracks or in place of them: picked by selecting them on the timeline. */
function ClipTriggers({ draft, set }: { draft: Rule; set: (part: Partial<Rule>) => void }) {
  const clips = useMix((s) => s.clips);
  const selected = useMix((s) => s.selected);
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  const fresh = selected.filter((id) => clips[id] && !draft.clips.includes(id));
  const [first] = fresh;
  return (
    <div className="grid gap-1 text-[12px]" role="group" aria-label="Clips that speak">
      {draft.clips.map((id) => {
        const clip = clips[id];
        const name = clip?.name ?? "a clip that is gone";
        return (
          <span key={id} className="flex items-center gap-2">
            <span className="min-w-0 flex-1 truncate">{name}</span>
            {clip && <span className="figure text-faint">{formatTimecode(clip.at, rate, frameRate)}</span>}
            <button
              type="button"
              className="grid size-6 cursor-pointer place-content-center text-faint"
              aria-label={`Leave ${name} out`}
              onClick={() => set({ clips: draft.clips.filter((other) => other !== id) })}
            >
              <X size={13} />
            </button>
          </span>
        );
      })}
      <button
        type="button"
        className="button justify-self-start px-2 py-0.5"
        aria-disabled={first === undefined}
        title={first === undefined ? "Select clips on the timeline first" : "They speak, and others give way"}
        onClick={() => first !== undefined && set({ clips: [...draft.clips, ...fresh] })}
      >
        <Plus size={12} aria-hidden />{" "}
        {fresh.length === 0
          ? "Clips that speak"
          : fresh.length === 1
            ? `“${clips[first ?? ""]?.name}” speaks`
            : `${fresh.length} selected clips speak`}
      </button>
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

function Depth({ draft, set }: { draft: Rule; set: (part: Partial<Rule>) => void }) {
  const store = useMixStore();
  const fixed = draft.depth !== undefined;
  const toClearance = () => {
    const rest = { ...draft };
    delete rest.depth;
    store.getState().set({ duckDraft: rest });
  };
  return (
    <fieldset className="grid gap-1">
      <legend className="caps mb-1">How far</legend>
      <label className="flex min-h-6 items-center gap-2">
        <input
          type="radio"
          name="depth"
          className="size-6 accent-[var(--copper)]"
          checked={fixed}
          onChange={() => set({ depth: -12 })}
        />
        <span className="flex-1">by</span>
        <Typed
          label="Depth, dB"
          unit="dB"
          least={-60}
          most={-0.5}
          value={draft.depth ?? -12}
          disabled={!fixed}
          onChange={(depth) => set({ depth })}
        />
        dB
      </label>
      <label className="flex min-h-6 items-center gap-2">
        <input
          type="radio"
          name="depth"
          className="size-6 accent-[var(--copper)]"
          checked={!fixed}
          onChange={toClearance}
        />
        <span className="flex-1">as deep as needed for</span>
        <Typed
          label="Wanted clearance, LU"
          unit="LU"
          least={3}
          most={40}
          value={draft.clearance}
          disabled={fixed}
          onChange={(clearance) => set({ clearance })}
        />
        LU
      </label>
      {!fixed && (
        <div className="flex items-center gap-2 pl-8 text-faint">
          <span className="flex-1">but no deeper than</span>
          <Typed
            label="Deepest, dB"
            unit="dB"
            least={-60}
            most={-0.5}
            value={draft.deepest}
            onChange={(deepest) => set({ deepest })}
          />
          dB
        </div>
      )}
    </fieldset>
  );
}

function Typed({
  label,
  unit,
  least,
  most,
  value,
  disabled = false,
  onChange,
}: {
  label: string;
  unit: string;
  least: number;
  most: number;
  value: number;
  disabled?: boolean;
  onChange: (value: number) => void;
}) {
  return (
    <TypedField
      className="!w-16"
      label={label}
      shown={formatDb(value).replace("+", "")}
      disabled={disabled}
      check={(text) => notANumber(text, least, most, unit)}
      onCommit={async (text) => {
        onChange(numberIn(text) ?? value);
        return true;
      }}
    />
  );
}

interface NumberProps {
  name: string;
  unit: string;
  hint: string;
  value: number;
  least: number;
  most: number;
  step: number;
  onChange: (value: number) => void;
}

function Number({ name, unit, hint, value, least, most, step, onChange }: NumberProps) {
  return (
    <div className="grid grid-cols-[92px_1fr_54px_14px] items-center gap-1.5" title={hint}>
      <span className="text-[12px] leading-tight text-faint">{name}</span>
      <input
        type="range"
        className="h-6 w-full min-w-0 accent-[var(--copper)]"
        aria-label={name}
        aria-valuetext={`${value} ${unit}`}
        min={least}
        max={most}
        step={step}
        value={value}
        onChange={(event) => onChange(globalThis.Number(event.target.value))}
      />
      <TypedField
        label={`${name}, ${unit}`}
        shown={value.toFixed(2).replace(/0$/, "")}
        check={(text) => notANumber(text, least, unit === "s" ? LONGEST : most, unit)}
        onCommit={async (text) => {
          onChange(numberIn(text) ?? value);
          return true;
        }}
      />
      <span className="text-[11px] text-faint">{unit}</span>
    </div>
  );
}
