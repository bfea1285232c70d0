import { formatDb } from "@/lib/format";
import { CLIP_MARGIN, NAME_STRIP, soundArea, xOf } from "../geometry";
import { gripOf } from "../hit";
import { type DrawnClip, inkOf, type Scene } from "../scene";
import { drawFades } from "./fades";
import { drawOutside } from "./outside";
import { drawPlate, GAIN_FONT, labelsIn, LABELS_APART, NAME_FONT, widthOf } from "./labels";
import type { Palette } from "./palette";
import { type Brush, drawSound } from "./sound";
import { drawWires } from "./wires";

export function drawClip(brush: Brush, scene: Scene, drawn: DrawnClip): void {
  const { ctx, palette } = brush;
  const { clip, lane, selected } = drawn;
  const left = xOf(scene.view, clip.at);
  const right = xOf(scene.view, clip.at + clip.length);
  const top = lane.top + CLIP_MARGIN;
  const height = lane.height - 2 * CLIP_MARGIN;
  const ink = palette[inkOf(lane.track)];
  ctx.save();
  ctx.beginPath();
  ctx.roundRect(left + 0.5, top + 0.5, Math.max(2, right - left - 1), height - 1, 4);
  ctx.fillStyle = palette.sheet;
  ctx.globalAlpha = isCrossing(drawn) ? 0.82 : 1;
  ctx.fill();
  ctx.clip();
  const silent =
    clip.muted === true || lane.track.muted || (scene.solo.length > 0 && !scene.solo.includes(lane.track.id));
  ctx.globalAlpha = silent ? 0.35 : 1;
  if (drawn.wires.length > 1) {
    drawSound(brush, scene, drawn, ink, "left");
    drawSound(brush, scene, drawn, ink, "right");
    const { top: above, bottom: beneath } = soundArea(lane);
    ctx.fillStyle = palette.faint;
    ctx.fillRect(left, (above + beneath) / 2, right - left, 0.6);
  } else {
    drawSound(brush, scene, drawn, ink);
  }
  drawOutside(ctx, scene, drawn, palette);
  drawFades(ctx, scene, drawn, palette);
  drawName(ctx, drawn, [left, right, xOf(scene.view, drawn.coveredFrom)], ink, palette);
  if (!drawn.wiresHidden) drawWires(ctx, scene, drawn, palette);
  if (drawn.wires.length > 1) drawSides(ctx, scene, drawn, palette);
  drawGrips(ctx, scene, drawn, palette);
  ctx.restore();
  ctx.beginPath();
  ctx.roundRect(left + 0.5, top + 0.5, Math.max(2, right - left - 1), height - 1, 4);
  ctx.lineWidth = selected ? 2 : 1;
  ctx.strokeStyle = selected ? palette.ink : palette.line;
  ctx.stroke();
}

/** Whether one of the fades heard is not its own, but comes of lying over a neighbour. */
function isCrossing({ clip }: DrawnClip): boolean {
  const [fadeIn, fadeOut] = clip.fades;
  return (
    (fadeIn?.length ?? 0) > (clip.fadeIn?.length ?? 0) || (fadeOut?.length ?? 0) > (clip.fadeOut?.length ?? 0)
  );
}

/** Px at the left edge in which a lane's own name may stand. */
const LANE_NAME = 96;

/** What the channels of an opened clip have, on the floor of each, where the wire seldom is. */
function drawSides(ctx: CanvasRenderingContext2D, scene: Scene, drawn: DrawnClip, palette: Palette): void {
  const { clip, lane } = drawn;
  const left = Math.max(xOf(scene.view, clip.at), 0);
  const isNamed = scene.lanes.some((other) => other.lane === lane && other.kind !== "level");
  const x = isNamed ? Math.max(left + 6, LANE_NAME) : left + 6;
  for (const side of ["left", "right"] as const) {
    const level = clip.channels?.[side];
    const text = `${side} ${formatDb(level?.gain ?? 0)}${level?.muted ? " · muted" : ""}`;
    drawPlate(ctx, text, [x, soundArea(lane, side).bottom - 8], palette.faint, palette);
  }
}

/** Half-round tabs where fades are taken hold of. */
function drawGrips(ctx: CanvasRenderingContext2D, scene: Scene, drawn: DrawnClip, palette: Palette): void {
  if (drawn.clip.length / scene.view.perPx < 28) return;
  for (const edge of ["in", "out"] as const) {
    const { x, y } = gripOf(scene, drawn, edge);
    ctx.beginPath();
    ctx.arc(x, y - 4, 5, 0, Math.PI);
    ctx.closePath();
    ctx.fillStyle = drawn.selected ? palette.copper : palette.line;
    ctx.fill();
  }
}

function drawName(
  ctx: CanvasRenderingContext2D,
  drawn: DrawnClip,
  [left, right, covered]: [number, number, number],
  ink: string,
  palette: Palette,
): void {
  const { clip, lane } = drawn;
  const y = lane.top + CLIP_MARGIN;
  ctx.fillStyle = ink;
  const before = ctx.globalAlpha;
  ctx.globalAlpha = before * (drawn.selected ? 0.24 : 0.11);
  ctx.fillRect(left, y, right - left, NAME_STRIP);
  ctx.globalAlpha = before;
  const visible = Math.max(left, 0);
  ctx.textBaseline = "middle";
  ctx.textAlign = "left";
  const { name, gain } = labelsIn(ctx, clip, Math.min(right, covered) - visible - 10);
  const middle = y + NAME_STRIP / 2 + 0.5;
  ctx.font = NAME_FONT;
  ctx.fillStyle = ink;
  const nameWidth = name ? widthOf(ctx, NAME_FONT, name) + LABELS_APART : 0;
  ctx.fillText(name, visible + 6, middle);
  ctx.font = GAIN_FONT;
  ctx.fillStyle = palette.copper;
  ctx.fillText(gain, visible + 6 + nameWidth, middle);
}
