import type { ReactNode } from "react";
import type { Rule } from "@/api/schema";
import { CORE } from "@/preview/constants";
import { useMix, useMixStore } from "@/store/context";
import { HearPlan } from "@/parts/HearPlan";
import { ByHowMuch, OwnTracks } from "./OwnTracks";
import { Depth, Tick } from "./Depth";
import { mutedSpeakers, needed } from "./duckRules";
import { NumberRow } from "./NumberRow";
import { Outcome } from "./Outcome";
import { PartChoice } from "./PartChoice";
import { TimeRows } from "./TimeRows";
import { useTrial } from "./useTrial";
import { ClipTriggers, TrackChoice } from "./WhoSpeaks";

/** A rule while it is tried: every change is worked out, drawn and heard at once, and nothing is kept before “Keep”. */
export function DuckRuleForm({ draft }: { draft: Rule }) {
  const store = useMixStore();
  const tracks = useMix((s) => s.tracks);
  const usual = useMix((s) => s.aim.sensitivity);
  const length = useMix((s) => s.length);
  const { plan, error, complete, missing, listening, setListening } = useTrial(draft);
  const kind = draft.kind ?? "under";
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
        {error?.message ?? (complete ? <Outcome plan={plan} rule={draft} /> : needed(draft))}
        {muted.length > 0 && (
          <span className="mt-1 block font-semibold text-trouble">
            {`${muted.join(", ")} ${muted.length === 1 ? "is" : "are"} muted, and not heard by this rule.`}
          </span>
        )}
      </p>
      {kind === "under" ? (
        <>
          <TrackChoice draft={draft} set={set} />
          <ClipTriggers draft={draft} set={set} />
          {draft.triggers.length + draft.clips.length === 0 && (
            <p className="text-aside text-faint">
              Nobody is ticked, so all speech above the horizon is listened to.
            </p>
          )}
          <PartChoice draft={draft} set={set} />
          <Depth draft={draft} set={set} />
        </>
      ) : (
        <>
          <OwnTracks draft={draft} set={set} />
          <ByHowMuch draft={draft} set={set} />
          {kind === "hush" && (
            <Tick
              name="Keep the breath before a word"
              hint="It comes up 0.6 s before a word, when people draw breath"
              on={draft.breaths !== false}
              onChange={(breaths) => set({ breaths })}
            />
          )}
        </>
      )}
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
      <TimeRows draft={draft} set={set} />
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
