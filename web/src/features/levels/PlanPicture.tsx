import { type KeyboardEvent, type PointerEvent, type ReactNode, useEffect, useRef, useState } from "react";
import { crisp } from "@/parts/crisp";
import { useSize } from "@/parts/useSize";
import { type Palette, paletteOf } from "@/scene/paint";
import { useWheel } from "@/parts/useWheel";
import { useMoment, usePlayer } from "@/player";
import { formatDb } from "@/lib/format";
import { formatTimecode } from "@/preview/timecode";
import { useMix } from "@/store/context";
import { useTheme } from "@/store/theme";

/** Lower where the buttons beneath would leave the window. */
const heightIn = (window: number) => (window < 720 ? 96 : 148);
/** Room for the numbers at the left, px. */
const SCALE = 30;
/** Seconds that are seen at the closest. */
const CLOSEST = 5;

/** What a plan is drawn on: CSS px. */
export interface Plot {
  ctx: CanvasRenderingContext2D;
  width: number;
  /** Timeline samples in view. */
  from: number;
  to: number;
  x: (sample: number) => number;
  y: (db: number) => number;
  palette: Palette;
}

interface Props {
  label: string;
  /** Timeline samples. */
  from: number;
  to: number;
  /** dBFS at the lower and the upper edge. */
  levels: [number, number];
  draw: (plot: Plot) => void;
  children: ReactNode;
}

/** Levels along the time that a plan is about: pressing plays from there, the wheel and + and − look closer. */
export function PlanPicture({ label, from, to, levels: [low, high], draw, children }: Props) {
  const player = usePlayer();
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  const moment = useMoment();
  const theme = useTheme();
  const height = heightIn(window.innerHeight);
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const { width } = useSize(box);
  const [zoomed, setZoomed] = useState<{ from: number; to: number } | null>(null);
  const view = zoomed && zoomed.from < to && zoomed.to > from ? zoomed : { from, to };
  const across = Math.max(1, width - SCALE);
  const perPx = (view.to - view.from) / across;
  const zoom = (factor: number, around: number) => {
    const span = Math.max(CLOSEST * rate, (view.to - view.from) * factor);
    if (span >= to - from) return setZoomed(null);
    const share = (around - view.from) / (view.to - view.from);
    const start = Math.max(from, Math.min(to - span, around - share * span));
    setZoomed({ from: start, to: start + span });
  };
  const sampleAt = (clientX: number) => {
    const left = box.current?.getBoundingClientRect().left ?? 0;
    return Math.round(view.from + Math.max(0, Math.min(across, clientX - left - SCALE)) * perPx);
  };
  useWheel(box, (event) => zoom(event.deltaY < 0 ? 0.8 : 1.25, sampleAt(event.clientX)));
  useEffect(() => {
    const ctx = width > SCALE ? crisp(canvas.current, width, height)?.ctx : null;
    if (!ctx) return;
    const palette = paletteOf(theme);
    const y = (db: number) => ((high - db) / (high - low)) * (height - 16) + 8;
    drawScale(ctx, { low, high, width, y, palette });
    ctx.save();
    ctx.beginPath();
    ctx.rect(SCALE, 0, across, height);
    ctx.clip();
    const x = (sample: number) => SCALE + (sample - view.from) / perPx;
    draw({ ctx, width: across, from: view.from, to: view.to, x, y, palette });
    ctx.restore();
  }, [draw, width, across, view.from, view.to, perPx, low, high, height, theme]);
  const step = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowRight: 1, PageDown: -10, PageUp: 10 }[event.key];
    const factor = { "+": 0.5, "=": 0.5, "-": 2 }[event.key];
    if (by === undefined && factor === undefined && event.key !== "Enter" && event.key !== " ") return;
    event.preventDefault();
    if (event.key === " ") player.toggle();
    else if (by !== undefined) player.seek(Math.max(from, Math.min(to - 1, moment + by * rate)));
    else if (factor !== undefined) zoom(factor, Math.max(view.from, Math.min(view.to, moment)));
    else void player.play(moment);
  };
  const shown = moment >= view.from && moment <= view.to;
  return (
    <figure>
      <div
        ref={box}
        role="slider"
        tabIndex={0}
        aria-label={`${label}; where it is heard`}
        aria-valuemin={Math.round(from / rate)}
        aria-valuemax={Math.round(to / rate)}
        aria-valuenow={Math.round(Math.max(from, Math.min(to, moment)) / rate)}
        aria-valuetext={formatTimecode(moment, rate, frameRate)}
        className="relative cursor-pointer overflow-hidden rounded-lg border border-line bg-sheet"
        style={{ height }}
        onKeyDown={step}
        onPointerDown={(event: PointerEvent) =>
          event.button === 0 && void player.play(sampleAt(event.clientX))
        }
      >
        <canvas ref={canvas} aria-hidden className="absolute inset-0" style={{ width, height }} />
        {shown && (
          <div
            aria-hidden
            className="pointer-events-none absolute inset-y-0 w-px bg-ink"
            style={{ left: SCALE + (moment - view.from) / perPx }}
          />
        )}
      </div>
      <figcaption className="mt-1 text-note text-faint">{children}</figcaption>
    </figure>
  );
}

interface Scale {
  low: number;
  high: number;
  width: number;
  y: (db: number) => number;
  palette: Palette;
}

function drawScale(ctx: CanvasRenderingContext2D, { low, high, width, y, palette }: Scale): void {
  ctx.font = "10px sans-serif";
  ctx.textAlign = "right";
  const step = high - low > 30 ? 12 : 6;
  for (let db = Math.ceil(low / step) * step; db <= high; db += step) {
    ctx.fillStyle = palette.line;
    ctx.fillRect(SCALE, Math.round(y(db)), width - SCALE, 1);
    ctx.fillStyle = palette.faint;
    ctx.fillText(formatDb(db, 0), SCALE - 4, y(db) + 3.5);
  }
}
