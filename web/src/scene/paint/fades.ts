import type { Fade } from "@/api/schema";
import { fadeGain } from "@/preview/fade";
import { soundArea, xOf } from "../geometry";
import type { DrawnClip, Scene } from "../scene";
import type { Palette } from "./palette";

type Edge = "in" | "out";

/** The curve of each fade, with what it takes away shaded: the corner that the grip sits on. */
export function drawFades(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  drawn: DrawnClip,
  palette: Palette,
): void {
  for (const edge of ["in", "out"] as const) {
    const fade = fadeOf(drawn, edge);
    if (!fade) continue;
    trace(ctx, scene, drawn, fade, edge);
    ctx.fillStyle = palette.sunk;
    const alpha = ctx.globalAlpha;
    ctx.globalAlpha = alpha * 0.75;
    ctx.fill();
    ctx.globalAlpha = alpha;
    line(ctx, palette);
  }
}

/** The way out of a clip that the next one lies over, drawn on top of both: where they cross is seen as a cross. */
export function drawWayOut(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  drawn: DrawnClip,
  palette: Palette,
): void {
  const fade = fadeOf(drawn, "out");
  if (!fade || fade.length <= (drawn.clip.fadeOut?.length ?? 0)) return;
  trace(ctx, scene, drawn, fade, "out");
  line(ctx, palette);
}

function fadeOf({ clip }: DrawnClip, edge: Edge): Fade | null {
  const fade = clip.fades[edge === "in" ? 0 : 1];
  return fade && fade.length > 0 ? fade : null;
}

/** From the corner of the clip along the fade's gain. */
function trace(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  { clip, lane }: DrawnClip,
  fade: Fade,
  edge: Edge,
): void {
  const area = soundArea(lane);
  const room = area.bottom - area.top;
  const { windowFrom = 0, windowTo = 1 } = fade;
  const start = edge === "in" ? clip.at : clip.at + clip.length - fade.length;
  const width = fade.length / scene.view.perPx;
  const steps = Math.max(2, Math.min(60, Math.round(width / 3)));
  ctx.beginPath();
  ctx.moveTo(xOf(scene.view, edge === "in" ? clip.at : clip.at + clip.length), area.top);
  for (let n = 0; n <= steps; n++) {
    const x = edge === "in" ? n / steps : 1 - n / steps;
    const gain = fadeGain(fade.shape, windowFrom + (windowTo - windowFrom) * (n / steps));
    ctx.lineTo(xOf(scene.view, start + fade.length * x), area.bottom - room * gain);
  }
}

function line(ctx: CanvasRenderingContext2D, palette: Palette): void {
  ctx.lineWidth = 1.2;
  ctx.strokeStyle = palette.copper;
  ctx.stroke();
}
