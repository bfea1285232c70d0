import type { Measuring } from "../measuring";

interface Small {
  /** Source samples across the drawing. */
  from: number;
  to: number;
  /** CSS px. */
  width: number;
  height: number;
  /** Where it stands, px from above. */
  foot: number;
  /** Device px per CSS px: there is a column for each. */
  ratio: number;
  /** Part of the height, 0…1, that an amplitude takes. */
  rise: (amplitude: number) => number;
  inkAt: (sample: number) => string;
}

/** A recording by itself, without a clip's curves: peaks faint, the average full. */
export function drawSmall(ctx: CanvasRenderingContext2D, measure: Measuring, drawing: Small): void {
  const { from, to, width, height, foot, ratio, rise, inkAt } = drawing;
  const columns = Math.round(width * ratio);
  const perColumn = (to - from) / columns;
  for (let column = 0; column < columns; column++) {
    const sample = from + column * perColumn;
    const { peak, power } = measure(sample, sample + perColumn);
    ctx.fillStyle = inkAt(sample);
    for (const [amplitude, opacity] of [
      [peak, 0.42],
      [Math.min(peak, Math.sqrt(power)), 1],
    ] as const) {
      const size = height * rise(amplitude);
      ctx.globalAlpha = opacity;
      ctx.fillRect(column / ratio, foot - size, 1 / ratio, size);
    }
  }
  ctx.globalAlpha = 1;
}
