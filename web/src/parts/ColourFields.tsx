import type { Colour } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { CORE } from "@/preview/constants";
import { notANumber } from "@/preview/check";
import { numberIn } from "@/preview/parse";
import { TypedField } from "./TypedField";

const { lowCut: CUT, tone: TONE } = CORE.filters;
/** What the four parts of a tone are called, low to high. */
const PARTS = ["Bass", "Warmth", "Presence", "Air"];

interface Props {
  /** Whose colour it is, for names of fields. */
  of: string;
  colour: Colour | undefined;
  disabled: boolean;
  onChange: (colour: Colour) => Promise<boolean>;
}

/** Low cut and tone in numbers: up is louder. */
export function ColourFields({ of, colour = {}, disabled, onChange }: Props) {
  const tone = colour.tone ?? TONE.usual.map((hertz) => ({ hertz, db: 0 }));
  const change = (place: number, part: { hertz?: number; db?: number }) =>
    onChange({ ...colour, tone: tone.map((one, i) => (i === place ? { ...one, ...part } : one)) });
  return (
    <div className="grid gap-1 text-aside">
      <LowCut of={of} colour={colour} disabled={disabled} onChange={onChange} />
      {tone.map(({ hertz, db }, i) => (
        <div key={PARTS[i]} className="grid grid-cols-[1fr_64px_20px_56px_20px] items-center gap-1">
          <span className="text-faint">{PARTS[i]}</span>
          <Field
            label={`${PARTS[i]} of ${of}, Hz`}
            shown={String(Math.round(hertz))}
            bounds={TONE.hertz}
            unit="Hz"
            disabled={disabled}
            onCommit={(value) => change(i, { hertz: value })}
          />
          <span className="text-note text-faint">Hz</span>
          <Field
            label={`${PARTS[i]} of ${of}, dB`}
            shown={formatDb(db)}
            bounds={[-TONE.most, TONE.most]}
            unit="dB"
            disabled={disabled}
            onCommit={(value) => change(i, { db: value })}
          />
          <span className="text-note text-faint">dB</span>
        </div>
      ))}
    </div>
  );
}

function LowCut({ of, colour = {}, disabled, onChange }: Props) {
  const { lowCut, ...rest } = colour;
  const slope = lowCut ? (lowCut.slope ?? 12) : 0;
  const set = (next: number) =>
    void onChange(
      next === 0 ? rest : { ...rest, lowCut: { hertz: lowCut?.hertz ?? 80, slope: next === 24 ? 24 : 12 } },
    );
  return (
    <div className="grid grid-cols-[1fr_112px_56px_20px] items-center gap-1">
      <span className="text-faint">Low cut</span>
      <select
        className="field px-0.5 py-0.5"
        aria-label={`Low cut of ${of}`}
        disabled={disabled}
        value={slope}
        onChange={(event) => set(Number(event.target.value))}
      >
        <option value={0}>none</option>
        <option value={12}>12 dB / octave</option>
        <option value={24}>24 dB / octave</option>
      </select>
      {lowCut ? (
        <Field
          label={`Low cut of ${of}, Hz`}
          shown={String(Math.round(lowCut.hertz))}
          bounds={CUT}
          unit="Hz"
          disabled={disabled}
          onCommit={(hertz) => onChange({ ...colour, lowCut: { ...lowCut, hertz } })}
        />
      ) : (
        <span />
      )}
      <span className="text-note text-faint">{lowCut ? "Hz" : ""}</span>
    </div>
  );
}

interface FieldProps {
  label: string;
  shown: string;
  bounds: readonly [number, number];
  unit: string;
  disabled: boolean;
  onCommit: (value: number) => Promise<boolean>;
}

function Field({ label, shown, bounds, unit, disabled, onCommit }: FieldProps) {
  return (
    <TypedField
      label={label}
      shown={shown}
      disabled={disabled}
      check={(text) => notANumber(text, bounds[0], bounds[1], unit)}
      onCommit={async (text) => {
        const value = numberIn(text);
        return value !== null && onCommit(value);
      }}
    />
  );
}
