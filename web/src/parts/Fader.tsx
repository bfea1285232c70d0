import { type PointerEvent, useRef } from "react";
import { formatDb } from "@/lib/format";
import { type OnLevel, useLevelSteps } from "./useLevelSteps";

export const FADER_MIN = -60;
const FADER_MAX = 12;

/** Home and End are left to the timeline: a fader that was dragged must not fall silent for going to the start. */
const KEYS = { ArrowUp: 1, ArrowDown: -1, PageUp: 6, PageDown: -6 };

/** dB by the part of the way, 0 bottom to 1 top: most room where most work is done. */
const SCALE: [number, number][] = [
  [0, -60],
  [0.12, -40],
  [0.3, -24],
  [0.52, -12],
  [0.66, -6],
  [0.8, 0],
  [1, 12],
];

export function dbAt(part: number): number {
  if (part <= 0) return FADER_MIN;
  for (let i = 1; i < SCALE.length; i++) {
    const [low, from] = SCALE[i - 1] as [number, number];
    const [high, to] = SCALE[i] as [number, number];
    if (part <= high) return from + ((to - from) * (part - low)) / (high - low);
  }
  return FADER_MAX;
}

export function partOf(db: number): number {
  if (db <= FADER_MIN) return 0;
  for (let i = 1; i < SCALE.length; i++) {
    const [low, from] = SCALE[i - 1] as [number, number];
    const [high, to] = SCALE[i] as [number, number];
    if (db <= to) return low + ((high - low) * (db - from)) / (to - from);
  }
  return 1;
}

interface Props {
  of: string;
  ink: string;
  value: number;
  disabled: boolean;
  /** Whether what it does is being written. */
  writing?: boolean;
  onMove: OnLevel;
}

/** A tall fader, dB. Its lower end is silence. Arrows move it by 1 dB, with Shift by 0.1; double-click goes to 0 dB. */
export function Fader({ of, ink, value, disabled, writing = false, onMove }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const grip = useRef<{ y: number; part: number; last: number; fine: boolean } | null>(null);
  const shown = Math.max(FADER_MIN, Math.min(FADER_MAX, value));
  const step = (db: number) => Math.max(FADER_MIN, Math.min(FADER_MAX, Math.round(db * 100) / 100));

  const steps = useLevelSteps(box, { disabled, keys: KEYS, stepped: (by) => step(shown + by), onMove });

  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    if (disabled || event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    event.currentTarget.focus();
    grip.current = { y: event.clientY, part: partOf(shown), last: shown, fine: event.ctrlKey };
    onMove(shown, true, event.timeStamp, event.altKey);
  };
  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    const held = grip.current;
    const height = (box.current?.clientHeight ?? 1) - 30;
    if (!held) return;
    // Every move that the browser has gathered counts, each with its own time.
    const gathered = event.nativeEvent.getCoalescedEvents();
    for (const move of gathered.length ? gathered : [event.nativeEvent]) {
      const fine = event.ctrlKey || event.metaKey ? 0.1 : 1;
      held.part = Math.min(1, Math.max(0, held.part - ((move.clientY - held.y) / height) * fine));
      held.y = move.clientY;
      held.last = step(dbAt(held.part));
      onMove(held.last, true, move.timeStamp, event.altKey);
    }
  };
  const onPointerUp = (event: PointerEvent<HTMLDivElement>) => {
    if (!grip.current) return;
    onMove(grip.current.last, false, event.timeStamp, event.altKey);
    grip.current = null;
  };
  return (
    <div
      ref={box}
      role="slider"
      tabIndex={disabled ? -1 : 0}
      aria-label={`Tall fader of ${of}`}
      aria-orientation="vertical"
      aria-valuemin={FADER_MIN}
      aria-valuemax={FADER_MAX}
      aria-valuenow={Math.round(shown * 10) / 10}
      aria-valuetext={shown <= FADER_MIN ? "silence" : `${formatDb(shown)} dB`}
      aria-disabled={disabled}
      className="relative h-full w-[42px] shrink-0 cursor-ns-resize touch-none rounded select-none"
      title="Drag, or arrows: 1 dB, with Shift 0.1 · Ctrl drags finely · double-click: 0 dB · Alt: this one alone"
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      onPointerCancel={onPointerUp}
      {...steps}
    >
      <div className="absolute inset-y-[15px] left-[13px] w-[2px] rounded bg-line" aria-hidden />
      {[12, 6, 0, -6, -12, -24, -40].map((db) => (
        <div
          key={db}
          aria-hidden
          className={`absolute h-px ${db === 0 ? "left-[6px] w-[18px] bg-ink" : "left-[9px] w-[15px] bg-faint"}`}
          style={{ bottom: `calc(15px + (100% - 30px) * ${partOf(db)})` }}
        >
          <span
            className={`figure absolute left-full -translate-y-1/2 pl-[2px] text-mark leading-none ${db === 0 ? "font-semibold text-ink" : "text-faint"}`}
          >
            {db > 0 ? `+${db}` : db === 0 ? "0" : -db}
          </span>
        </div>
      ))}
      <div
        aria-hidden
        className={`absolute left-[2px] grid h-[30px] w-[24px] place-content-center rounded-[5px] border shadow ${writing ? "border-copper bg-glow" : "border-line bg-sheet"}`}
        style={{ bottom: `calc((100% - 30px) * ${partOf(shown)})` }}
      >
        <span
          className="block h-[3px] w-[18px] rounded"
          style={{ background: `var(--${writing ? "copper" : ink})` }}
        />
      </div>
    </div>
  );
}
