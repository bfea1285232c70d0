import { type Frames, FRAME } from "../frames";
import { xOf } from "../geometry";
import type { Scene } from "../scene";
import { type Palette, SANS } from "./palette";

/** The film along the upper edge, shot by shot: a frame for each place, and a notch wherever it cuts. */
export function drawFilm(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  palette: Palette,
  frames: Frames,
): void {
  const { view, width, rate, layout } = scene;
  const { top, height } = layout.film;
  if (height === 0) return;
  ctx.fillStyle = palette.sunk;
  ctx.fillRect(0, top, width, height);
  const cell = Math.round((height * FRAME.width) / FRAME.height);
  const samples = cell * view.perPx;
  for (const { at, in: from, length, source } of scene.strip) {
    const left = xOf(view, at);
    const right = Math.min(width, xOf(view, at + length));
    if (right <= 0 || left >= width) continue;
    ctx.save();
    ctx.beginPath();
    ctx.rect(left, top, right - left, height - 1);
    ctx.clip();
    ctx.fillStyle = palette.line;
    ctx.fillRect(left, top, right - left, height);
    const cuts = frames.cuts(source).filter((cut) => cut > from && cut < from + length);
    for (const [i, begin] of [from, ...cuts].entries()) {
      const end = cuts[i] ?? from + length;
      const [first, last] = [xOf(view, at - from + begin), Math.min(right, xOf(view, at - from + end))];
      for (let n = Math.max(0, Math.floor(-first / cell)); first + n * cell < last; n++) {
        const moment = Math.min(end, begin + (n + 0.5) * samples) / rate;
        const frame = frames.at(source, moment, [begin / rate, end / rate]);
        const x = first + n * cell;
        const wide = Math.min(cell - 1, last - x);
        const part = (wide / cell) * FRAME.width;
        if (frame) ctx.drawImage(frame.image, frame.x, frame.y, part, FRAME.height, x, top, wide, height - 1);
      }
      if (i > 0) drawCut(ctx, first, top, height, palette);
    }
    ctx.restore();
  }
  ctx.fillStyle = palette.line;
  ctx.fillRect(0, top + height - 1, width, 1);
  if (scene.strip.length > 0) return;
  ctx.font = `10px ${SANS}`;
  ctx.textBaseline = "middle";
  ctx.textAlign = "left";
  ctx.fillStyle = palette.faint;
  ctx.fillText("no picture here", 8, top + height / 2);
}

function drawCut(
  ctx: CanvasRenderingContext2D,
  x: number,
  top: number,
  height: number,
  palette: Palette,
): void {
  ctx.fillStyle = palette.paper;
  ctx.fillRect(x - 1, top, 2, height);
  ctx.fillStyle = palette.copper;
  ctx.beginPath();
  ctx.moveTo(x - 4, top + height - 1);
  ctx.lineTo(x + 4, top + height - 1);
  ctx.lineTo(x, top + height - 8);
  ctx.closePath();
  ctx.fill();
}
