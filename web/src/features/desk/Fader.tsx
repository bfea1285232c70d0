import { Slider } from "radix-ui";
import { formatDb } from "@/lib/format";

export const FADER_MIN = -60;
const FADER_MAX = 12;

interface Props {
  of: string;
  ink: string;
  value: number;
  disabled: boolean;
  onDrag: (value: number | null) => void;
  onCommit: (value: number) => void;
}

/** A tall fader. Its lower end is silence. Double-click goes to 0 dB. */
export function Fader({ of, ink, value, disabled, onDrag, onCommit }: Props) {
  const shown = Math.max(FADER_MIN, value);
  return (
    <Slider.Root
      orientation="vertical"
      className="relative flex h-full w-[26px] shrink-0 touch-none flex-col items-center select-none"
      min={FADER_MIN}
      max={FADER_MAX}
      step={0.1}
      disabled={disabled}
      value={[shown]}
      onValueChange={([v]) => onDrag(v ?? null)}
      onValueCommit={([v = shown]) => onCommit(v)}
      onDoubleClick={() => onCommit(0)}
    >
      <Slider.Track className="relative w-[2px] flex-1 rounded bg-line">
        <span
          aria-hidden
          className="absolute -left-[6px] h-px w-[14px] bg-faint"
          style={{ bottom: `${(-FADER_MIN / (FADER_MAX - FADER_MIN)) * 100}%` }}
        />
      </Slider.Track>
      <Slider.Thumb
        className="grid h-[30px] w-[24px] cursor-ns-resize place-content-center rounded-[5px] border border-line bg-sheet shadow"
        aria-label={`Tall fader of ${of}`}
        aria-valuetext={shown <= FADER_MIN ? "silence" : `${formatDb(shown)} dB`}
      >
        <span
          aria-hidden
          className="block h-[3px] w-[18px] rounded"
          style={{ background: `var(--${ink})` }}
        />
      </Slider.Thumb>
    </Slider.Root>
  );
}
