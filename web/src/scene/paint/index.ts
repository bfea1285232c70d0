import type { Scene } from "../scene";
import { drawClearance } from "./clearance";
import { drawClip } from "./clip";
import { drawWayOut } from "./fades";
import { drawHorizon, drawLanes } from "./lanes";
import { drawLasso, drawMarkers, drawRange } from "./marks";
import { drawFilm } from "./film";
import type { Brush } from "./sound";
import { drawSideLanes } from "./sideLanes";
import { drawTrackLanes } from "./trackLanes";

export { type Palette, paletteOf } from "./palette";
export { drawSmall } from "./small";
export { SoundTiles } from "./soundTiles";

/**
 * Paints a scene. CSS px throughout.
 *
 * @returns whether some of it was left for the next frame
 */
export function drawTimeline(brush: Brush, scene: Scene, scrollTop: number, viewHeight: number): boolean {
  const { ctx, palette, ratio, tiles } = brush;
  tiles.begin();
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
  ctx.fillStyle = palette.paper;
  ctx.fillRect(0, 0, scene.width, viewHeight);
  ctx.translate(0, -scrollTop);
  drawLanes(ctx, scene, palette);
  drawFilm(ctx, scene, palette, brush.sounds.frames);
  drawClearance(ctx, scene, palette);
  drawHorizon(ctx, scene, palette);
  for (const drawn of scene.clips) {
    if (drawn.lane.top + drawn.lane.height > scrollTop && drawn.lane.top < scrollTop + viewHeight) {
      drawClip(brush, scene, drawn);
    }
  }
  for (const drawn of scene.clips) drawWayOut(ctx, scene, drawn, palette);
  drawSideLanes(ctx, scene, palette);
  drawTrackLanes(ctx, scene, palette);
  drawRange(ctx, scene, palette);
  drawMarkers(ctx, scene, palette);
  drawLasso(ctx, scene, palette);
  return tiles.end();
}
