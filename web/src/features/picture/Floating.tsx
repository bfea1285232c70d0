import { MoveDiagonal2, PanelRight } from "lucide-react";
import { type KeyboardEvent, type PointerEvent, type ReactNode, useRef } from "react";
import { createPortal } from "react-dom";

/** CSS px of the window. */
export interface Place {
  x: number;
  y: number;
  width: number;
}

const LEAST = 220;
const HEAD = 26;
const STEP = 24;

interface Props {
  place: Place;
  onPlace: (place: Place) => void;
  onDock: () => void;
  children: ReactNode;
}

/** A picture over the work: its head moves it, its corner makes it larger; with the keys, arrows do both. */
export function Floating({ place, onPlace, onDock, children }: Props) {
  const shown = within(place);
  const put = (next: Place) => onPlace(within(next));
  return createPortal(
    <section
      aria-label="Picture"
      className="fixed z-40 overflow-hidden rounded-lg border border-line bg-paper shadow-2xl"
      style={{ left: shown.x, top: shown.y, width: shown.width }}
    >
      <div className="flex items-center justify-between pl-2" style={{ height: HEAD }}>
        <Grip
          className="caps min-h-6 flex-1 cursor-move touch-none text-left"
          label="Move the picture"
          place={shown}
          onDrag={(from, dx, dy) => put({ ...from, x: from.x + dx, y: from.y + dy })}
        >
          Picture
        </Grip>
        <button
          type="button"
          className="grid size-6 cursor-pointer place-content-center text-faint hover:text-ink"
          aria-label="Put the picture back into the panel"
          title="Back into the panel"
          onClick={onDock}
        >
          <PanelRight size={14} />
        </button>
      </div>
      {children}
      <Grip
        className="absolute right-0 bottom-0 grid size-6 cursor-nwse-resize touch-none place-content-center rounded-tl bg-paper/80 text-faint"
        label="Size of the picture"
        place={shown}
        onDrag={(from, dx, dy) => put({ ...from, width: from.width + larger(dx, (dy * 16) / 9) })}
      >
        <MoveDiagonal2 size={14} />
      </Grip>
    </section>,
    document.body,
  );
}

interface GripProps {
  className: string;
  label: string;
  place: Place;
  /** @param from where it was when the drag began */
  onDrag: (from: Place, dx: number, dy: number) => void;
  children: ReactNode;
}

function Grip({ className, label, place, onDrag, children }: GripProps) {
  const held = useRef<{ x: number; y: number; place: Place } | null>(null);
  const onKeyDown = (event: KeyboardEvent) => {
    const way = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
    if (!way) return;
    event.preventDefault();
    event.stopPropagation();
    onDrag(place, (way[0] ?? 0) * STEP, (way[1] ?? 0) * STEP);
  };
  return (
    <button
      type="button"
      className={className}
      aria-label={label}
      title={`${label}: drag, or arrows`}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        held.current = { x: event.clientX, y: event.clientY, place };
      }}
      onPointerMove={(event: PointerEvent<HTMLElement>) => {
        const from = held.current;
        if (from) onDrag(from.place, event.clientX - from.x, event.clientY - from.y);
      }}
      onPointerUp={() => {
        held.current = null;
      }}
      onKeyDown={onKeyDown}
    >
      {children}
    </button>
  );
}

function larger(a: number, b: number): number {
  return Math.abs(a) > Math.abs(b) ? a : b;
}

/** No larger than the window, and never out of it. */
function within({ x, y, width }: Place): Place {
  const wide = Math.max(LEAST, Math.min(width, window.innerWidth, ((window.innerHeight - HEAD) * 16) / 9));
  const high = (wide * 9) / 16 + HEAD;
  return {
    x: Math.max(0, Math.min(x, window.innerWidth - wide)),
    y: Math.max(0, Math.min(y, window.innerHeight - high)),
    width: wide,
  };
}
