import { mutedSpans, spansOf } from "@/preview/lanes";
import { formatPan } from "@/preview/pan";
import { type Lane, soundArea, xOf } from "../geometry";
import { inkOf, type Scene } from "../scene";
import { pointsOf, yOfPan } from "../sideLanes";
import { hatch } from "./hatch";
import { drawPlate } from "./labels";
import { type Palette, SANS } from "./palette";

/** Where tracks are muted by their lanes, always; and the pan lane of those on which it is edited. */
export function drawSideLanes(ctx: CanvasRenderingContext2D, scene: Scene, palette: Palette): void {
  for (const lane of scene.layout.lanes) {
    drawMutes(ctx, scene, lane, palette);
    if (scene.activeLane[lane.track.id] === "pan") drawPan(ctx, scene, lane, palette);
  }
}

function drawMutes(ctx: CanvasRenderingContext2D, scene: Scene, lane: Lane, palette: Palette): void {
  const area = soundArea(lane);
  const active = scene.activeLane[lane.track.id] === "mute";
  const spans = active ? spansOf(lane.track.lanes?.mute ?? []) : mutedSpans(lane.track);
  for (const { from, to } of spans) {
    const left = Math.max(-2, xOf(scene.view, from));
    const right = Math.min(scene.width + 2, xOf(scene.view, Math.min(to, scene.length)));
    if (right <= left) continue;
    ctx.globalAlpha = 0.72;
    ctx.fillStyle = palette.paper;
    ctx.fillRect(left, area.top, right - left, area.bottom - area.top);
    ctx.globalAlpha = 1;
    hatch(ctx, left, area.top, right - left, area.bottom - area.top, palette.faint, 0.35);
    ctx.fillStyle = active ? palette.copper : palette.faint;
    for (const x of [left, right - (active ? 2 : 1)])
      ctx.fillRect(x, area.top, active ? 2 : 1, area.bottom - area.top);
    ctx.font = `600 10px ${SANS}`;
    ctx.textAlign = "left";
    ctx.textBaseline = "middle";
    if (right - left < 46) continue;
    ctx.fillStyle = palette.ink;
    ctx.fillText("muted", Math.max(0, left) + 5, (area.top + area.bottom) / 2);
  }
}

function drawPan(ctx: CanvasRenderingContext2D, scene: Scene, lane: Lane, palette: Palette): void {
  const { view, width } = scene;
  const ink = palette[inkOf(lane.track)];
  for (const pan of [-1, 0, 1]) {
    const y = yOfPan(lane, pan);
    ctx.fillStyle = palette.line;
    ctx.fillRect(0, y, width, 1);
    drawPlate(ctx, pan === 0 ? "centre" : pan < 0 ? "left" : "right", [6, y], palette.faint, palette);
  }
  const points = pointsOf(lane.track);
  ctx.beginPath();
  const first = points[0] ?? { at: 0, pan: lane.track.pan };
  ctx.moveTo(Math.min(0, xOf(view, first.at)), yOfPan(lane, first.pan));
  for (const point of points) ctx.lineTo(xOf(view, point.at), yOfPan(lane, point.pan));
  ctx.lineTo(width, yOfPan(lane, points.at(-1)?.pan ?? lane.track.pan));
  ctx.setLineDash([2, 3]);
  ctx.lineWidth = 2;
  ctx.strokeStyle = ink;
  ctx.stroke();
  ctx.setLineDash([]);
  for (const { at, pan } of points) {
    const x = xOf(view, at);
    if (x < -8 || x > width + 8) continue;
    const y = yOfPan(lane, pan);
    ctx.beginPath();
    ctx.moveTo(x - 5, y);
    ctx.lineTo(x, y - 5);
    ctx.lineTo(x + 5, y);
    ctx.lineTo(x, y + 5);
    ctx.closePath();
    ctx.fillStyle = palette.sheet;
    ctx.fill();
    ctx.lineWidth = 1.6;
    ctx.stroke();
    if (pan === 0) continue;
    const text = formatPan(pan);
    const below = pan < 0 ? y + 12 : y - 12;
    drawPlate(ctx, text, [x + 7, below], palette.ink, palette);
  }
}
