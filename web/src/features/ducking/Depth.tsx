import type { Rule } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { TypedField } from "@/parts/TypedField";
import { CORE } from "@/preview/constants";
import { notANumber } from "@/preview/check";
import { numberIn } from "@/preview/parse";
import { useMixStore } from "@/store/context";

const [LEAST, MOST] = CORE.duck.depth;

/** How far the music goes down: by a number, or as deep as a clearance needs. */
export function Depth({ draft, set }: { draft: Rule; set: (part: Partial<Rule>) => void }) {
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
          className="size-6"
          checked={fixed}
          onChange={() => set({ depth: -12 })}
        />
        <span className="flex-1">by</span>
        <Typed
          label="Depth, dB"
          unit="dB"
          least={LEAST}
          most={MOST}
          value={draft.depth ?? -12}
          disabled={!fixed}
          onChange={(depth) => set({ depth })}
        />
        dB
      </label>
      <label className="flex min-h-6 items-center gap-2">
        <input type="radio" name="depth" className="size-6" checked={!fixed} onChange={toClearance} />
        <span className="flex-1">as deep as needed for</span>
        <Typed
          label="Wanted clearance, LU"
          unit="LU"
          least={CORE.aim.clearance[0]}
          most={CORE.aim.clearance[1]}
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
            least={LEAST}
            most={MOST}
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
