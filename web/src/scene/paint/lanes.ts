import { formatTimecode, rulerMark, rulerStep } from "@/preview/timecode";
import { xOf } from "../geometry";
import type { Scene } from "../scene";
import { hatch } from "./hatch";
import { MONO, type Palette } from "./palette";

/** Room for a written timecode. */
const LABEL_PX = 96;

export function drawLanes(ctx: CanvasRenderingContext2D, scene: Scene, palette: Palette): void {
  const { layout, width } = scene;
  ctx.fillStyle = palette.sunk;
  ctx.globalAlpha = 0.55;
  ctx.fillRect(0, layout.caption.top, width, layout.caption.height);
  ctx.fillRect(0, layout.horizon.top + layout.horizon.height, width, layout.beneath);
  ctx.globalAlpha = 1;
  for (const lane of layout.lanes) {
    ctx.fillStyle = palette.line;
    ctx.fillRect(0, lane.top + lane.height - 1, width, 1);
    if (lane.track.locked) hatch(ctx, 0, lane.top, width, lane.height - 1, palette.faint, 0.13);
  }
  const end = xOf(scene.view, scene.length);
  if (end < width) {
    ctx.globalAlpha = 0.35;
    ctx.fillStyle = palette.sunk;
    ctx.fillRect(Math.max(0, end), 0, width, layout.height);
    ctx.globalAlpha = 1;
  }
}

/** Time is written on the horizon: between the speech and everything else, where the eye already is. */
export function drawHorizon(ctx: CanvasRenderingContext2D, scene: Scene, palette: Palette): void {
  const { top, height } = scene.layout.horizon;
  ctx.fillStyle = palette.sunk;
  ctx.fillRect(0, top, scene.width, height);
  ctx.fillStyle = palette.ink;
  ctx.fillRect(0, top, scene.width, 1.5);
  ctx.fillStyle = palette.line;
  ctx.fillRect(0, top + height - 1, scene.width, 1);
  const { view, rate, frameRate } = scene;
  const step = rulerStep(view.perPx, rate, frameRate, LABEL_PX);
  const length = rulerMark(step, 1, rate, frameRate);
  const end = view.start + scene.width * view.perPx;
  ctx.font = `11px ${MONO}`;
  ctx.textBaseline = "middle";
  ctx.textAlign = "left";
  for (let n = Math.max(0, Math.floor(view.start / length) - 1); ; n++) {
    const sample = rulerMark(step, n, rate, frameRate);
    if (sample > end) break;
    const x = Math.round(xOf(view, sample));
    ctx.fillStyle = palette.ink;
    ctx.fillRect(x, top + 1, 1, 10);
    ctx.fillRect(x, top + height - 6, 1, 6);
    ctx.fillText(formatTimecode(sample, rate, frameRate), x + 5, top + height / 2 - 2);
    if ((step.frames ?? 5) % 5 !== 0) continue;
    ctx.fillStyle = palette.faint;
    for (let part = 1; part < 5; part++) {
      const minor = Math.round(xOf(view, sample + (length * part) / 5));
      ctx.fillRect(minor, top + 1, 1, 5);
      ctx.fillRect(minor, top + height - 3, 1, 3);
    }
  }
}
