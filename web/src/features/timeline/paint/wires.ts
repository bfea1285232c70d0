import { decibelsOf } from "@/lib/format";
import { stretchIndexAt } from "@/lib/schedule";
import { curveOf, isChosen } from "@/store/chosen";
import { xOf, yOfDb } from "../geometry";
import { easesOf, placeOf } from "../hit";
import { type DrawnClip, type DrawnWire, grippable, type Scene, wireDb } from "../scene";
import type { Palette } from "./palette";

/** The level wires of a clip, with their keyframes and the handles of chosen ones. */
export function drawWires(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  drawn: DrawnClip,
  palette: Palette,
): void {
  drawCommonWire(ctx, scene, drawn, palette);
  for (const wire of grippable(drawn)) {
    drawWire(ctx, scene, drawn, wire, palette);
    drawKeyframes(ctx, scene, drawn, wire, palette);
  }
  drawEases(ctx, scene, drawn, palette);
}

function drawWire(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  drawn: DrawnClip,
  wire: DrawnWire,
  palette: Palette,
): void {
  const { clip, lane } = drawn;
  const { schedule } = wire;
  const shift = clip.at - clip.in;
  const left = Math.max(clip.at, scene.view.start) - shift;
  const right = Math.min(clip.at + clip.length, scene.view.start + scene.width * scene.view.perPx) - shift;
  ctx.beginPath();
  let begun = false;
  for (let i = stretchIndexAt(schedule, left); i < schedule.length; i++) {
    const stretch = schedule[i];
    if (!stretch || stretch.from >= right) break;
    const from = Math.max(stretch.from, left);
    const to = Math.min(stretch.to, right);
    const straight = !drawn.extra && !stretch.gain && (stretch.db?.length ?? 0) < 3;
    const steps = straight ? 1 : Math.min(400, Math.max(1, Math.ceil((to - from) / scene.view.perPx / 3)));
    for (let n = 0; n <= steps; n++) {
      const position = from + ((to - from) * n) / steps;
      const y = yOfDb(lane, wireDb(drawn, wire, stretch, position), wire.channel);
      const x = xOf(scene.view, position + shift);
      if (begun) ctx.lineTo(x, y);
      else ctx.moveTo(x, y);
      begun = true;
    }
  }
  ctx.lineWidth = 1.8;
  ctx.strokeStyle = palette.copper;
  ctx.stroke();
}

/** In an opened clip the level that both channels have in common shows faintly behind each of their own. */
function drawCommonWire(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  drawn: DrawnClip,
  palette: Palette,
): void {
  const [common, ...sides] = drawn.wires;
  if (!common || sides.length === 0) return;
  ctx.globalAlpha *= 0.4;
  ctx.setLineDash([2, 3]);
  for (const { channel } of sides) {
    if (channel) drawWire(ctx, scene, drawn, { ...common, channel }, palette);
  }
  ctx.setLineDash([]);
  ctx.globalAlpha /= 0.4;
}

/** Lozenges: unlike the round grips of the screen, and easy to tell from a bar. */
function drawKeyframes(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  drawn: DrawnClip,
  wire: DrawnWire,
  palette: Palette,
): void {
  const { clip, lane } = drawn;
  ctx.lineWidth = 1.8;
  ctx.strokeStyle = palette.copper;
  for (const keyframe of curveOf(clip, wire.channel)) {
    const x = xOf(scene.view, keyframe.at - clip.in + clip.at);
    if (x < -8 || x > scene.width + 8) continue;
    const extra = wire.channel ? 0 : (drawn.extra?.(keyframe.at) ?? 0);
    const y = yOfDb(lane, decibelsOf(keyframe.level) + wire.gainDb + extra, wire.channel);
    const chosen = isChosen(scene.chosen, clip.id, keyframe.at, wire.channel);
    const r = chosen ? 5.5 : 4.5;
    ctx.beginPath();
    ctx.moveTo(x, y - r);
    ctx.lineTo(x + r, y);
    ctx.lineTo(x, y + r);
    ctx.lineTo(x - r, y);
    ctx.closePath();
    ctx.fillStyle = chosen ? palette.copper : palette.sheet;
    ctx.fill();
    ctx.stroke();
  }
}

function drawEases(ctx: CanvasRenderingContext2D, scene: Scene, drawn: DrawnClip, palette: Palette): void {
  if (scene.chosen.length === 0) return;
  for (const { target, x, y } of easesOf(scene, drawn)) {
    const wire = grippable(drawn).find((w) => w.channel === target.channel);
    const corner = wire && placeOf(scene, drawn, wire, target.end === "out" ? target.keyframe : target.next);
    ctx.lineWidth = 0.9;
    ctx.strokeStyle = palette.copper;
    ctx.setLineDash([3, 2]);
    ctx.beginPath();
    ctx.moveTo(corner?.x ?? x, corner?.y ?? y);
    ctx.lineTo(x, y);
    ctx.stroke();
    ctx.setLineDash([]);
    ctx.beginPath();
    ctx.arc(x, y, 3.4, 0, 2 * Math.PI);
    ctx.fillStyle = palette.paper;
    ctx.fill();
    ctx.stroke();
  }
}
