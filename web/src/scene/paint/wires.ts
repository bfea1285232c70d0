import type { Keyframe } from "@/api/schema";
import { decibelsOf } from "@/lib/format";
import { stretchIndexAt } from "@/preview/schedule";
import { chosenOn } from "@/store/chosen";
import { sideOf, wireOf } from "@/store/wires";
import { type Lane, xOf, yOfDb } from "../geometry";
import { easesOf, placeOf } from "../hit";
import { type DrawnClip, type DrawnWire, grippable, type Scene, wireDb } from "../scene";
import type { Palette } from "./palette";

/** The level wires of a clip, with their keyframes and the handles of chosen ones; faint where a lane is edited in their place. */
export function drawWires(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  drawn: DrawnClip,
  palette: Palette,
): void {
  const { lane } = drawn;
  ctx.strokeStyle = palette.copper;
  if (scene.activeLane[lane.track.id]) {
    const [own, ...sides] = drawn.wires;
    ctx.globalAlpha *= 0.4;
    for (const wire of sides.length ? sides : own ? [own] : []) drawWire(ctx, scene, lane, wire, 1.2);
    ctx.globalAlpha /= 0.4;
    return;
  }
  drawCommonWire(ctx, scene, drawn);
  const wires = grippable(scene, drawn);
  for (const wire of wires) drawWire(ctx, scene, lane, wire, 1.8);
  drawPoints(ctx, scene, lane, wires, palette.copper, palette);
}

/** Keyframes of some wires, and the grips of ramps that leave chosen ones. */
export function drawPoints(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  lane: Lane,
  wires: DrawnWire[],
  ink: string,
  palette: Palette,
): void {
  for (const wire of wires) drawKeyframes(ctx, scene, lane, wire, ink, palette);
  drawEases(ctx, scene, lane, wires, ink, palette);
}

/** The line of a wire as far as it shows. */
export function traceWire(ctx: CanvasRenderingContext2D, scene: Scene, lane: Lane, wire: DrawnWire): void {
  const { schedule, ahead, extra } = wire;
  const { view } = scene;
  const left = Math.max(wire.from, view.start + ahead);
  const right = Math.min(wire.to, view.start + scene.width * view.perPx + ahead);
  ctx.beginPath();
  let begun = false;
  for (let i = stretchIndexAt(schedule, left); i < schedule.length; i++) {
    const stretch = schedule[i];
    if (!stretch || stretch.from >= right) break;
    const from = Math.max(stretch.from, left);
    const to = Math.min(stretch.to, right);
    const plain = !stretch.gain && !stretch.factors?.length && (stretch.db?.length ?? 0) < 3;
    const steps = !extra && plain ? 1 : Math.min(400, Math.max(1, Math.ceil((to - from) / view.perPx / 3)));
    for (let n = 0; n <= steps; n++) {
      const position = from + ((to - from) * n) / steps;
      const y = yOfDb(lane, wireDb(wire, stretch, position), sideOf(wire.id));
      const x = xOf(view, position - ahead);
      if (begun) ctx.lineTo(x, y);
      else ctx.moveTo(x, y);
      begun = true;
    }
  }
}

function drawWire(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  lane: Lane,
  wire: DrawnWire,
  width: number,
): void {
  traceWire(ctx, scene, lane, wire);
  ctx.lineWidth = width;
  ctx.stroke();
}

/** In an opened clip the level that both channels have in common shows faintly behind each of their own. */
function drawCommonWire(ctx: CanvasRenderingContext2D, scene: Scene, drawn: DrawnClip): void {
  const [common, ...sides] = drawn.wires;
  if (!common || sides.length === 0) return;
  ctx.globalAlpha *= 0.4;
  ctx.setLineDash([2, 3]);
  for (const side of ["left", "right"] as const)
    drawWire(ctx, scene, drawn.lane, { ...common, id: wireOf(drawn.clip, side) }, 1.8);
  ctx.setLineDash([]);
  ctx.globalAlpha /= 0.4;
}

/** Px between keyframes below which they are not drawn one by one. */
const MELTED = 6;

/** Index of the first keyframe at or after a position of its wire. */
function firstAfter(curve: Keyframe[], position: number): number {
  let low = 0;
  let high = curve.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((curve[middle]?.at ?? Infinity) < position) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Lozenges: unlike the round grips of the screen, and easy to tell from a bar. */
function drawKeyframes(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  lane: Lane,
  wire: DrawnWire,
  ink: string,
  palette: Palette,
): void {
  const side = sideOf(wire.id);
  const taken = chosenOn(scene.chosen, wire.id);
  ctx.lineWidth = 1.8;
  ctx.strokeStyle = ink;
  let last = -Infinity;
  for (
    let i = firstAfter(wire.curve, scene.view.start + wire.ahead - 8 * scene.view.perPx);
    i < wire.curve.length;
    i++
  ) {
    const keyframe = wire.curve[i];
    if (!keyframe) break;
    const x = xOf(scene.view, keyframe.at - wire.ahead);
    if (x > scene.width + 8) break;
    // Where they stand close the line alone is left, which turns at each of them.
    if (x - last < MELTED && !taken.has(keyframe.at)) continue;
    last = x;
    const extra = wire.extra?.(keyframe.at) ?? 0;
    const y = yOfDb(lane, decibelsOf(keyframe.level) + wire.gainDb + extra, side);
    const chosen = taken.has(keyframe.at);
    const r = chosen ? 5.5 : 4.5;
    ctx.beginPath();
    ctx.moveTo(x, y - r);
    ctx.lineTo(x + r, y);
    ctx.lineTo(x, y + r);
    ctx.lineTo(x - r, y);
    ctx.closePath();
    ctx.fillStyle = chosen ? ink : palette.sheet;
    ctx.fill();
    ctx.stroke();
  }
}

function drawEases(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  lane: Lane,
  wires: DrawnWire[],
  ink: string,
  palette: Palette,
): void {
  if (scene.chosen.length === 0) return;
  for (const wire of wires)
    for (const { target, x, y } of easesOf(scene, lane, [wire])) {
      const corner = placeOf(scene, lane, wire, target.end === "out" ? target.keyframe : target.next);
      ctx.lineWidth = 0.9;
      ctx.strokeStyle = ink;
      ctx.setLineDash([3, 2]);
      ctx.beginPath();
      ctx.moveTo(corner.x, corner.y);
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
