import { type KeyboardEvent, type PointerEvent, useRef } from "react";

interface Props {
  label: string;
  className: string;
  orientation: "vertical" | "horizontal";
  value: number;
  min: number;
  max: number;
  /** Whether dragging right or down makes it smaller. */
  reversed?: boolean;
  onChange: (value: number) => void;
}

/** An edge that can be dragged, or moved by arrows, to make what it belongs to larger or smaller. */
export function Divider({
  label,
  className,
  orientation,
  value,
  min,
  max,
  reversed = false,
  onChange,
}: Props) {
  const held = useRef<{ at: number; value: number } | null>(null);
  const along = (event: { clientX: number; clientY: number }) =>
    orientation === "vertical" ? event.clientX : event.clientY;
  const to = (next: number) => onChange(Math.round(Math.min(max, Math.max(min, next))));
  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    held.current = { at: along(event), value };
  };
  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    if (held.current) to(held.current.value + (along(event) - held.current.at) * (reversed ? -1 : 1));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const steps: Record<string, number> =
      orientation === "vertical" ? { ArrowLeft: -16, ArrowRight: 16 } : { ArrowUp: -8, ArrowDown: 8 };
    const by = steps[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    to(value + by * (reversed ? -1 : 1));
  };
  return (
    <div
      role="separator"
      tabIndex={0}
      aria-label={label}
      aria-orientation={orientation}
      aria-valuenow={Math.round(value)}
      aria-valuemin={min}
      aria-valuemax={max}
      className={`touch-none ${orientation === "vertical" ? "cursor-col-resize" : "cursor-row-resize"} ${className}`}
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={() => (held.current = null)}
      onKeyDown={onKeyDown}
    />
  );
}
