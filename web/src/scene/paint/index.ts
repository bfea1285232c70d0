import type { Outlines } from "../outlines";
import type { Scene } from "../scene";
import { drawClearance } from "./clearance";
import { drawClip } from "./clip";
import { drawWayOut } from "./fades";
import { drawHorizon, drawLanes } from "./lanes";
import { drawLasso, drawMarkers, drawRange } from "./marks";
import type { Palette } from "./palette";
import { drawSideLanes } from "./sideLanes";
import { drawTrackLanes } from "./trackLanes";

export { type Palette, readPalette } from "./palette";

/** Paints a scene. CSS px throughout; `ratio` is device px per CSS px. */
export function drawTimeline(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  palette: Palette,
  outlines: Outlines,
  scrollTop: number,
  viewHeight: number,
  ratio: number,
): void {
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
  ctx.fillStyle = palette.paper;
  ctx.fillRect(0, 0, scene.width, viewHeight);
  ctx.translate(0, -scrollTop);
  drawLanes(ctx, scene, palette);
  drawClearance(ctx, scene, palette);
  drawHorizon(ctx, scene, palette);
  for (const drawn of scene.clips) {
    if (drawn.lane.top + drawn.lane.height > scrollTop && drawn.lane.top < scrollTop + viewHeight) {
      drawClip(ctx, scene, drawn, palette, outlines);
    }
  }
  for (const drawn of scene.clips) drawWayOut(ctx, scene, drawn, palette);
  drawSideLanes(ctx, scene, palette);
  drawTrackLanes(ctx, scene, palette);
  drawRange(ctx, scene, palette);
  drawMarkers(ctx, scene, palette);
  drawLasso(ctx, scene, palette);
}
