/** Px between the lines. */
const APART = 9;

/** Slanted lines over a place: locked, or in trouble. */
export function hatch(
  ctx: CanvasRenderingContext2D,
  left: number,
  top: number,
  width: number,
  height: number,
  colour: string,
  alpha: number,
): void {
  ctx.save();
  ctx.beginPath();
  ctx.rect(left, top, width, height);
  ctx.clip();
  ctx.globalAlpha = alpha;
  ctx.strokeStyle = colour;
  ctx.lineWidth = 1;
  ctx.beginPath();
  // Narrow places beside one another go by one grid, or their lines would meet as bars.
  const first = width < APART ? Math.floor((left - height) / APART) * APART : left - height;
  for (let x = first; x < left + width; x += APART) {
    ctx.moveTo(x, top + height);
    ctx.lineTo(x + height, top);
  }
  ctx.stroke();
  ctx.restore();
}
