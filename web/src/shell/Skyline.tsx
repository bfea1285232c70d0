import { type PointerEvent, useEffect, useRef } from "react";
import { useWidth } from "@/parts/useSize";
import { crisp } from "@/parts/crisp";
import { usePlayer } from "@/player";
import { clampView } from "@/scene/viewport";
import { useOutlines } from "@/scene/useOutlines";
import { type View } from "@/scene/geometry";
import { formatDb } from "@/lib/format";
import { HEIGHT, paintSkyline } from "./paintSkyline";
import { formatTimecode } from "@/preview/timecode";
import { useMix, useMixStore } from "@/store/context";
import { useTheme } from "@/store/theme";

interface Props {
  view: View;
  setView: (change: (view: View) => View) => void;
  width: number;
  headsWidth: number;
  hint: string;
  panelWidth: number;
}

/** The whole programme as a double skyline: speech above, the rest beneath. The window in it is what the lanes show. */
export function Skyline({ view, setView, width, headsWidth, hint, panelWidth }: Props) {
  const store = useMixStore();
  const player = usePlayer();
  const theme = useTheme();
  const canvas = useRef<HTMLCanvasElement>(null);
  const { outlines, arrived: drawn } = useOutlines();
  const clips = useMix((s) => s.clips);
  const tracks = useMix((s) => s.tracks);
  const sources = useMix((s) => s.sources);
  const length = useMix((s) => s.length);
  const rate = useMix((s) => s.rate);
  const buried = useMix((s) => s.figures?.buried);
  const moreBuried = useMix((s) => s.figures?.moreBuried);
  const whole = Math.max(length, 30 * rate) * 1.02;
  const box = useRef<HTMLDivElement>(null);
  const across = useWidth(box);
  const perPx = whole / Math.max(1, across);

  useEffect(() => {
    const drawing = across > 0 ? crisp(canvas.current, across, HEIGHT) : null;
    if (!drawing) return;
    const { ctx, ratio } = drawing;
    paintSkyline(ctx, { clips, tracks, sources, buried, moreBuried, rate }, outlines, across, perPx, ratio);
  }, [buried, moreBuried, clips, sources, tracks, across, perPx, rate, outlines, drawn, theme]);

  const drag = useRef<{ x: number; start: number } | null>(null);
  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    const x = event.clientX - event.currentTarget.getBoundingClientRect().left;
    const inside = x * perPx >= view.start && x * perPx <= view.start + width * view.perPx;
    const start = inside ? view.start : x * perPx - (width * view.perPx) / 2;
    if (!inside) setView((v) => clampView({ ...v, start }, width, store.getState()));
    drag.current = { x, start };
    event.currentTarget.setPointerCapture(event.pointerId);
  };
  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    const held = drag.current;
    if (!held) return;
    const x = event.clientX - event.currentTarget.getBoundingClientRect().left;
    setView((v) => clampView({ ...v, start: held.start + (x - held.x) * perPx }, width, store.getState()));
  };
  return (
    <footer
      data-area="skyline"
      className="grid border-t border-line"
      style={{ gridTemplateColumns: `minmax(0,1fr) ${panelWidth}px` }}
    >
      <div className="flex min-w-0">
        <Length width={headsWidth} />
        <div className="min-w-0 flex-1">
          <div
            ref={box}
            className="relative cursor-grab touch-none overflow-hidden bg-sunk/50"
            style={{ height: HEIGHT }}
            onPointerDown={onPointerDown}
            onPointerMove={onPointerMove}
            onPointerUp={() => (drag.current = null)}
            onDoubleClick={(event) =>
              player.seek((event.clientX - event.currentTarget.getBoundingClientRect().left) * perPx)
            }
            role="scrollbar"
            tabIndex={0}
            aria-label="Part of the programme in view"
            aria-controls="lanes"
            aria-orientation="horizontal"
            aria-valuenow={Math.round((100 * view.start) / whole)}
            onKeyDown={(event) => {
              const by = { ArrowLeft: -0.2, ArrowRight: 0.2, PageUp: -0.9, PageDown: 0.9 }[event.key];
              if (by === undefined) return;
              event.preventDefault();
              event.stopPropagation();
              setView((v) =>
                clampView({ ...v, start: v.start + by * width * v.perPx }, width, store.getState()),
              );
            }}
          >
            <canvas
              ref={canvas}
              aria-hidden
              className="absolute inset-0"
              style={{ width: across, height: HEIGHT }}
            />
            <div
              className="pointer-events-none absolute inset-y-0 rounded-sm border-[1.5px] border-ink"
              style={{ left: view.start / perPx, width: Math.min(across, (width * view.perPx) / perPx) }}
            />
          </div>
          <div className="truncate px-2 pt-0.5 text-note text-faint" role="status">
            {hint || "Space plays · arrows step a frame · ? shows all keys"}
          </div>
        </div>
      </div>
      <LastEdit />
    </footer>
  );
}

function Length({ width }: { width: number }) {
  const length = useMix((s) => s.length);
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  return (
    <div className="shrink-0 border-r border-line px-3 pt-2 leading-tight" style={{ width }}>
      <div className="text-note text-faint">Whole programme</div>
      <div className="figure font-semibold">{formatTimecode(length, rate, frameRate)}</div>
    </div>
  );
}

/** What was done last and by whom, and the range that is selected. */
function LastEdit() {
  const label = useMix((s) => s.label);
  const by = useMix((s) => (s.author.id === s.me.id ? null : s.author.name));
  const range = useMix((s) => s.range);
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  return (
    <div className="min-w-0 border-l border-line px-3 pt-2 text-aside leading-snug">
      <div className="truncate" title={label}>
        <span className="text-faint">{by === null ? "Last edit" : by}: </span>
        {label}
      </div>
      <div className="figure truncate text-note text-faint">
        {range
          ? `${formatTimecode(range.from, rate, frameRate)}–${formatTimecode(range.to, rate, frameRate)} · ${formatDb((range.to - range.from) / rate, 2).replace("+", "")} s`
          : "no range"}
      </div>
    </div>
  );
}
