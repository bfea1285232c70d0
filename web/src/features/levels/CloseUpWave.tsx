import { type PointerEvent, useEffect, useRef } from "react";
import { byOutline } from "@/scene/byOutline";
import { bySamples } from "@/scene/bySamples";
import { crisp } from "@/parts/crisp";
import { drawSmall, paletteOf } from "@/scene/paint";
import { useSounds } from "@/scene/sounds";
import { useMix } from "@/store/context";
import { useTheme } from "@/store/theme";

const WIDTH = 900;
const HEIGHT = 190;
/** Samples per device px below which samples are measured and not the outline, whose points last 5 ms. */
const NEAR = 240;

interface Span {
  from: number;
  to: number;
}

interface Props {
  source: string;
  /** Source samples, as all that follows. */
  shown: Span;
  marks: Span;
  heard: Span | null;
  move: (edge: "from" | "to", to: number) => void;
}

/** A stretch of a recording as it is, with two marks to be dragged. */
export function CloseUpWave({ source, shown, marks, heard, move }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const theme = useTheme();
  const rate = useMix((s) => s.rate);
  const { sounds, arrived } = useSounds(rate);
  const held = useRef<"from" | "to" | null>(null);
  const { from, to } = shown;
  const perPx = (to - from) / WIDTH;
  useEffect(() => {
    const drawing = crisp(canvas.current, WIDTH, HEIGHT);
    if (!drawing) return;
    const { ctx, ratio } = drawing;
    const { glow, speech, line, copper } = paletteOf(theme);
    const at = (sample: number) => (sample - from) / perPx;
    if (heard) {
      ctx.fillStyle = glow;
      ctx.fillRect(at(heard.from), 0, at(heard.to) - at(heard.from), HEIGHT);
    }
    const perColumn = perPx / ratio;
    const near = perColumn < NEAR ? bySamples(sounds, source, from, to) : null;
    const measure = near ?? byOutline(sounds, source, perColumn, rate);
    if (measure)
      drawSmall(ctx, measure, {
        from,
        to,
        width: WIDTH,
        height: HEIGHT - 12,
        foot: HEIGHT,
        ratio,
        // Taller than in the lanes: here it is the quiet that matters.
        rise: (amplitude) => Math.min(1, amplitude) ** 0.42,
        inkAt: (sample) => (sample >= marks.from && sample < marks.to ? speech : line),
      });
    ctx.fillStyle = copper;
    for (const edge of [marks.from, marks.to]) ctx.fillRect(at(edge) - 1, 0, 2, HEIGHT);
  }, [source, from, to, perPx, marks, heard, sounds, arrived, rate, theme]);
  const sampleAt = (event: PointerEvent<HTMLCanvasElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    return Math.round(from + ((event.clientX - box.left) / box.width) * (to - from));
  };
  return (
    <canvas
      ref={canvas}
      data-testid="close-up"
      className="w-full cursor-ew-resize touch-none rounded-md border border-line bg-sheet"
      style={{ aspectRatio: `${WIDTH} / ${HEIGHT}` }}
      aria-hidden
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        const sample = sampleAt(event);
        held.current = Math.abs(sample - marks.from) < Math.abs(sample - marks.to) ? "from" : "to";
        move(held.current, sample);
      }}
      onPointerMove={(event) => held.current && move(held.current, sampleAt(event))}
      onPointerUp={() => (held.current = null)}
    />
  );
}
