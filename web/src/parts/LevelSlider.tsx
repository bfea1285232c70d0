import { type PointerEvent, useRef } from "react";
import { formatDb } from "@/lib/format";
import { type OnLevel, useLevelSteps } from "./useLevelSteps";

/** dB that one pixel of a drag is worth: fine enough to set half a dB, whatever room the slider has. */
const DB_PER_PX = 0.25;

const KEYS = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 6, PageDown: -6 };

interface Props {
  label: string;
  ink: string;
  value: number;
  /** At the lower end it is silent. */
  min: number;
  max: number;
  disabled: boolean;
  className?: string;
  /** Whether it stands upright: up is louder. */
  upright?: boolean;
  onMove: OnLevel;
}

/**
 * A small level slider, lying or upright. It goes by how far the hand goes, up or to the right for louder, and never jumps to where it is pressed. Arrows step 1 dB, with Shift 0.1,
 * Page keys 6; the wheel half a dB; a double click goes to 0 dB.
 */
export function LevelSlider(props: Props) {
  const { label, ink, value, min, max, disabled, className = "", upright = false, onMove } = props;
  const box = useRef<HTMLDivElement>(null);
  const grip = useRef<{ x: number; y: number; db: number } | null>(null);
  const shown = Math.max(min, Math.min(max, value));
  const within = (db: number) => Math.max(min, Math.min(max, Math.round(db * 100) / 100));
  const part = (db: number) => (100 * (db - min)) / (max - min);
  const steps = useLevelSteps(box, { disabled, keys: KEYS, stepped: (by) => within(shown + by), onMove });

  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    if (disabled || event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    event.currentTarget.focus();
    grip.current = { x: event.clientX, y: event.clientY, db: shown };
    onMove(shown, true, event.timeStamp, event.altKey);
  };
  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    const held = grip.current;
    if (!held) return;
    const way = upright ? held.y - event.clientY : event.clientX - held.x;
    const by = way * DB_PER_PX * (event.ctrlKey || event.metaKey ? 0.1 : 1);
    [held.x, held.y] = [event.clientX, event.clientY];
    held.db = Math.max(min, Math.min(max, held.db + by));
    onMove(within(held.db), true, event.timeStamp, event.altKey);
  };
  const onPointerUp = (event: PointerEvent<HTMLDivElement>) => {
    const held = grip.current;
    grip.current = null;
    if (held) onMove(within(held.db), false, event.timeStamp, event.altKey);
  };
  return (
    <div
      ref={box}
      role="slider"
      tabIndex={disabled ? -1 : 0}
      aria-label={label}
      aria-valuemin={min}
      aria-valuemax={max}
      aria-valuenow={Math.round(shown * 10) / 10}
      aria-valuetext={shown <= min ? "silence" : `${formatDb(shown)} dB`}
      aria-disabled={disabled}
      aria-orientation={upright ? "vertical" : "horizontal"}
      className={`relative touch-none rounded select-none ${upright ? "w-6 cursor-ns-resize" : "h-6 min-w-0 cursor-ew-resize"} ${className}`}
      title="Drag · Ctrl finely · arrows 1 dB, with Shift 0.1 · wheel · double-click: 0 dB"
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      onPointerCancel={onPointerUp}
      {...steps}
    >
      {upright ? (
        <span aria-hidden className="absolute inset-y-[6px] left-[11px] w-[2px] rounded bg-line">
          <span className="absolute -left-[3px] h-px w-[8px] bg-faint" style={{ bottom: `${part(0)}%` }} />
          <span
            className="absolute -left-[7px] h-[8px] w-[16px] translate-y-1/2 rounded-[3px] shadow"
            style={{ bottom: `${part(shown)}%`, background: `var(--${ink})` }}
          />
        </span>
      ) : (
        <span aria-hidden className="absolute inset-x-[5px] top-[11px] h-[2px] rounded bg-line">
          <span className="absolute -top-[3px] h-[8px] w-px bg-faint" style={{ left: `${part(0)}%` }} />
          <span
            className="absolute -top-[6px] h-[14px] w-[10px] -translate-x-1/2 rounded-[3px] shadow"
            style={{ left: `${part(shown)}%`, background: `var(--${ink})` }}
          />
        </span>
      )}
    </div>
  );
}
