import { xOf } from "../geometry";
import type { Scene } from "../scene";
import { type Palette, SANS } from "./palette";

export function drawRange(ctx: CanvasRenderingContext2D, scene: Scene, palette: Palette): void {
  const { range, layout, ramp } = scene;
  if (!range) return;
  const left = xOf(scene.view, range.from);
  const width = Math.max(1, xOf(scene.view, range.to) - left);
  const lanes = layout.lanes.filter((l) => range.tracks === null || range.tracks.includes(l.track.id));
  ctx.fillStyle = palette.glow;
  for (const lane of lanes) ctx.fillRect(left, lane.top, width, lane.height);
  ctx.fillRect(left, layout.horizon.top, width, layout.horizon.height);
  ctx.fillStyle = palette.copper;
  for (const x of [left, left + width - 1]) {
    for (const lane of lanes) ctx.fillRect(x, lane.top, 1, lane.height);
    ctx.fillRect(x, layout.horizon.top, 1, layout.horizon.height);
  }
  if (ramp === null) return;
  // Flags at the outer ends of the ramps just made: they are still loose.
  const out = (scene.inside ? -ramp : ramp) / scene.view.perPx;
  const y = layout.horizon.top + layout.horizon.height - 13;
  for (const [x, to] of [
    [left - out, left],
    [left + width + out, left + width],
  ] as const) {
    ctx.beginPath();
    ctx.moveTo(x, y);
    ctx.lineTo(to, y);
    ctx.lineWidth = 1;
    ctx.strokeStyle = palette.copper;
    ctx.stroke();
    ctx.beginPath();
    ctx.arc(x, y, 4, 0, 2 * Math.PI);
    ctx.fillStyle = palette.copper;
    ctx.fill();
  }
}

export function drawMarkers(ctx: CanvasRenderingContext2D, scene: Scene, palette: Palette): void {
  const { horizon } = scene.layout;
  const bottom = horizon.top + horizon.height;
  ctx.font = `600 10px ${SANS}`;
  ctx.textBaseline = "middle";
  ctx.textAlign = "left";
  scene.markers.forEach((marker, i) => {
    const x = xOf(scene.view, marker.at);
    if (x < -200 || x > scene.width + 10) return;
    const next = scene.markers[i + 1];
    const room = next ? xOf(scene.view, next.at) - x - 12 : 400;
    ctx.fillStyle = palette.ink;
    ctx.fillRect(x - 0.5, bottom - 16, 1, 14);
    ctx.beginPath();
    ctx.moveTo(x - 5, bottom - 9);
    ctx.lineTo(x + 5, bottom - 9);
    ctx.lineTo(x, bottom - 2);
    ctx.closePath();
    ctx.fill();
    const width = Math.min(ctx.measureText(marker.name).width + 8, Math.max(0, room));
    if (width < 16) return;
    ctx.fillStyle = palette.paper;
    ctx.fillRect(x + 6, bottom - 15, width, 13);
    ctx.save();
    ctx.beginPath();
    ctx.rect(x + 6, bottom - 15, width, 13);
    ctx.clip();
    ctx.fillStyle = palette.ink;
    ctx.fillText(marker.name, x + 10, bottom - 8);
    ctx.restore();
  });
}

export function drawLasso(ctx: CanvasRenderingContext2D, scene: Scene, palette: Palette): void {
  const { lasso } = scene;
  if (!lasso) return;
  ctx.fillStyle = palette.glow;
  ctx.fillRect(lasso.left, lasso.top, lasso.right - lasso.left, lasso.bottom - lasso.top);
  ctx.setLineDash([4, 3]);
  ctx.lineWidth = 1;
  ctx.strokeStyle = palette.copper;
  ctx.strokeRect(lasso.left + 0.5, lasso.top + 0.5, lasso.right - lasso.left, lasso.bottom - lasso.top);
  ctx.setLineDash([]);
}
