import { soundArea, xOf } from "../geometry";
import type { DrawnClip, Scene } from "../scene";
import type { Palette } from "./palette";

const STEP = 9;

/** Where a track is too loud or too soft for what it carries: a row of marks that point the way it is off, full or hollow. */
export function drawOutside(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  drawn: DrawnClip,
  palette: Palette,
): void {
  const { clip, lane } = drawn;
  const area = soundArea(lane);
  for (const { track, from, to, by } of scene.figures?.outside ?? []) {
    if (track !== lane.track.id || to <= clip.at || from >= clip.at + clip.length) continue;
    const left = Math.max(0, xOf(scene.view, Math.max(from, clip.at)));
    const right = Math.min(scene.width, xOf(scene.view, Math.min(to, clip.at + clip.length)));
    const loud = by > 0;
    const y = area.top + 7;
    ctx.beginPath();
    for (let x = left + 5; x < right - 2; x += STEP) {
      ctx.moveTo(x - 3.5, y + (loud ? 3 : -3));
      ctx.lineTo(x, y + (loud ? -3 : 3));
      ctx.lineTo(x + 3.5, y + (loud ? 3 : -3));
      ctx.closePath();
    }
    ctx.lineWidth = 1;
    ctx.strokeStyle = palette.trouble;
    ctx.fillStyle = palette.trouble;
    if (loud) ctx.fill();
    ctx.stroke();
  }
}
