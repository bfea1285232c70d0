import type { Rule } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { TypedField } from "@/parts/TypedField";
import { CORE } from "@/preview/constants";
import { notANumber } from "@/preview/check";
import { numberIn } from "@/preview/parse";
import { useMix, useMixStore } from "@/store/context";
import { type Wish, wishOf, withWish } from "./duckRules";

const [LEAST, MOST] = CORE.duck.depth;

interface Props {
  draft: Rule;
  set: (part: Partial<Rule>) => void;
}

/** How far the music goes down: by a number, or as deep as a clearance or a clarity needs. */
export function Depth({ draft, set }: Props) {
  const store = useMixStore();
  const clarity = useMix((s) => s.aim.clarity);
  const wish = wishOf(draft);
  const choose = (next: Wish) => store.getState().set({ duckDraft: withWish(draft, next, clarity) });
  return (
    <fieldset className="grid gap-1">
      <legend className="caps mb-1">How far</legend>
      <Choice
        name="by"
        label="by a number of decibels"
        unit="dB"
        on={wish === "depth"}
        onChoose={() => choose("depth")}
      >
        <Typed
          label="Depth, dB"
          unit="dB"
          least={LEAST}
          most={MOST}
          value={draft.depth ?? -12}
          disabled={wish !== "depth"}
          onChange={(depth) => set({ depth })}
        />
      </Choice>
      <Choice
        name="as deep as needed for"
        label="as deep as needed for a clearance"
        unit="LU"
        on={wish === "clearance"}
        onChoose={() => choose("clearance")}
      >
        <Typed
          label="Wanted clearance, LU"
          unit="LU"
          least={CORE.aim.clearance[0]}
          most={CORE.aim.clearance[1]}
          value={draft.clearance}
          disabled={wish !== "clearance"}
          onChange={(clearance) => set({ clearance })}
        />
      </Choice>
      <Choice
        name="as deep as needed for a clarity of"
        label="as deep as needed for a clarity"
        unit=""
        on={wish === "clarity"}
        onChoose={() => choose("clarity")}
      >
        <Typed
          label="Wanted clarity, 0 to 100"
          unit=""
          least={0}
          most={100}
          value={draft.clarity ?? clarity}
          disabled={wish !== "clarity"}
          onChange={(wanted) => set({ clarity: wanted })}
        />
      </Choice>
      {wish === "depth" ? <AddsUp draft={draft} set={set} /> : <Limits draft={draft} set={set} />}
    </fieldset>
  );
}

interface ChoiceProps {
  name: string;
  /** What the choice itself is called; the number in it has a name of its own. */
  label: string;
  unit: string;
  on: boolean;
  onChoose: () => void;
  children: React.ReactNode;
}

function Choice({ name, label, unit, on, onChoose, children }: ChoiceProps) {
  return (
    <label className="flex min-h-6 items-center gap-2">
      <input
        type="radio"
        name="depth"
        className="size-6 shrink-0"
        aria-label={label}
        checked={on}
        onChange={onChoose}
      />
      <span className="flex-1 leading-tight">{name}</span>
      {children}
      <span className="w-5">{unit}</span>
    </label>
  );
}

function Limits({ draft, set }: Props) {
  return (
    <>
      <div className="flex items-center gap-2 pl-8 text-faint">
        <span className="flex-1">but no deeper than</span>
        <Typed
          label="Deepest, dB"
          unit="dB"
          least={LEAST}
          most={MOST}
          value={draft.deepest}
          onChange={(deepest) => set({ deepest })}
        />
        <span className="w-5">dB</span>
      </div>
      <Tick
        name="Follow from moment to moment"
        hint="Down no further than each moment needs, at most 30 dB a second down and 12 up; else as deep as its worst moment"
        on={draft.moving ?? false}
        onChange={(moving) => set({ moving })}
      />
    </>
  );
}

function AddsUp({ draft, set }: Props) {
  return (
    <Tick
      name="Count what was lowered by hand"
      hint="Dips in clips and in the level lane add up with this one to the depth, and no further"
      on={draft.addsUp ?? false}
      onChange={(addsUp) => set({ addsUp })}
    />
  );
}

interface TickProps {
  name: string;
  hint: string;
  on: boolean;
  onChange: (on: boolean) => void;
}

export function Tick({ name, hint, on, onChange }: TickProps) {
  return (
    <label className="flex min-h-6 items-center gap-2" title={hint}>
      <input
        type="checkbox"
        className="size-6 shrink-0"
        checked={on}
        onChange={(event) => onChange(event.target.checked)}
      />
      <span className="leading-tight">{name}</span>
    </label>
  );
}

interface TypedProps {
  label: string;
  unit: string;
  least: number;
  most: number;
  value: number;
  disabled?: boolean;
  onChange: (value: number) => void;
}

function Typed({ label, unit, least, most, value, disabled = false, onChange }: TypedProps) {
  return (
    <TypedField
      className="!w-16 shrink-0"
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
