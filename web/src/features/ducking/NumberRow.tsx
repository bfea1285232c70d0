import { TypedField } from "@/parts/TypedField";
import { CORE } from "@/preview/constants";
import { notANumber } from "@/preview/check";
import { numberIn } from "@/preview/parse";

/** Seconds that can be typed for any time of a rule; its slider ends where most rules do. */
const LONGEST = CORE.duck.longest;

interface Props {
  name: string;
  unit: string;
  hint: string;
  value: number;
  least: number;
  most: number;
  step: number;
  onChange: (value: number) => void;
}

/** A number by slider or by typing. */
export function NumberRow({ name, unit, hint, value, least, most, step, onChange }: Props) {
  return (
    <div className="grid grid-cols-[92px_1fr_54px_14px] items-center gap-1.5" title={hint}>
      <span className="text-aside leading-tight text-faint">{name}</span>
      <input
        type="range"
        className="h-6 w-full min-w-0"
        aria-label={name}
        aria-valuetext={`${value} ${unit}`}
        min={least}
        max={most}
        step={step}
        value={value}
        onChange={(event) => onChange(Number(event.target.value))}
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
      <span className="text-note text-faint">{unit}</span>
    </div>
  );
}
