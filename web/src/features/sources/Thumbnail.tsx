import { useEffect, useRef } from "react";
import type { Source } from "@/api/schema";
import { byOutline } from "@/scene/byOutline";
import { crisp } from "@/parts/crisp";
import { drawSmall, paletteOf } from "@/scene/paint";
import { useOutlines } from "@/scene/useOutlines";
import { useMix } from "@/store/context";
import { useTheme } from "@/store/theme";

const WIDTH = 126;
const HEIGHT = 34;

interface Props {
  source: Source;
  /** dB */
  gain: number;
  /** 0…1, where it is heard; null while it is not. */
  position: number | null;
}

/** The whole source small, after its gain. */
export function Thumbnail({ source, gain, position }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const theme = useTheme();
  const rate = useMix((s) => s.rate);
  const { outlines, arrived } = useOutlines();
  useEffect(() => {
    const drawing = crisp(canvas.current, WIDTH, HEIGHT);
    if (!drawing) return;
    const { ctx, ratio } = drawing;
    const to = source.frames ?? 0;
    const measure = byOutline({ outlines }, source.id, to / (WIDTH * ratio), rate);
    if (!measure) return;
    const palette = paletteOf(theme);
    const ink = palette[source.advice?.use ?? "speech"];
    const factor = 10 ** (gain / 20);
    drawSmall(ctx, measure, {
      from: 0,
      to,
      width: WIDTH,
      height: HEIGHT,
      foot: HEIGHT,
      ratio,
      rise: (amplitude) => Math.min(1, amplitude * factor) ** 0.6,
      inkAt: () => ink,
    });
    if (position !== null) {
      ctx.fillStyle = palette.copper;
      ctx.fillRect(position * WIDTH, 0, 1.5, HEIGHT);
    }
  }, [source, gain, position, outlines, arrived, rate, theme]);
  return <canvas ref={canvas} aria-hidden className="shrink-0" style={{ width: WIDTH, height: HEIGHT }} />;
}
