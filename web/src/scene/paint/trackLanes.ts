import { bandsOf, isDense } from "../bandsOf";
import { CLIP_MARGIN, type Lane, xOf, yOfDb } from "../geometry";
import { type DrawnLane, inkOf, type Scene } from "../scene";
import { hatch } from "./hatch";
import { drawPlate } from "./labels";
import { type Palette, SANS } from "./palette";
import { drawPoints, traceWire } from "./wires";

/** What the lanes of tracks do over time: ducking as a hatched hollow, a dotted one where only the band of speech gives way, the level lane as a broken line. */
export function drawTrackLanes(ctx: CanvasRenderingContext2D, scene: Scene, palette: Palette): void {
  for (const drawn of scene.lanes) {
    const { lane, kind, active, wire } = drawn;
    const ink = palette[inkOf(lane.track)];
    if (kind !== "level") {
      const { start, perPx } = scene.view;
      if (isDense(wire.schedule, start, start + scene.width * perPx, scene.width))
        drawBand(ctx, scene, drawn, ink, palette.sheet);
      else drawHollow(ctx, scene, drawn, ink);
      drawHeld(ctx, scene, lane, lane.track[kind]?.held ?? [], palette);
      const late = scene.figures?.outOfDate.includes(lane.track.id) && !scene.duckTry;
      const name = kind === "band" ? "band of speech" : "ducking";
      const text = late ? `${name} · out of date (Shift+U)` : name;
      const second = kind === "band" && scene.lanes.some((d) => d.lane === lane && d.kind === "ducking");
      caption(ctx, lane, text, late ? palette.trouble : ink, palette, second ? 1 : 0);
    } else {
      ctx.setLineDash([7, 3]);
      traceWire(ctx, scene, lane, wire);
      ctx.strokeStyle = ink;
      ctx.lineWidth = active ? 2.4 : 1.6;
      ctx.stroke();
      ctx.setLineDash([]);
      if (!active) drawMarks(ctx, scene, drawn, ink, palette);
    }
    if (active) drawPoints(ctx, scene, lane, [wire], ink, palette);
  }
}

function drawHollow(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  { lane, wire, active, kind }: DrawnLane,
  ink: string,
): void {
  const zero = yOfDb(lane, 0);
  const end = Math.min(scene.width, xOf(scene.view, wire.schedule.at(-1)?.to ?? 0));
  if (end <= 0) return;
  ctx.save();
  traceWire(ctx, scene, lane, wire);
  ctx.strokeStyle = ink;
  ctx.lineWidth = active ? 2.4 : 1.4;
  if (kind === "band") ctx.setLineDash([1.5, 3]);
  ctx.stroke();
  ctx.setLineDash([]);
  ctx.lineTo(end, zero);
  ctx.lineTo(Math.max(0, xOf(scene.view, 0)), zero);
  ctx.closePath();
  ctx.clip();
  if (kind === "band") rows(ctx, lane, end, ink);
  else hatch(ctx, 0, lane.top, end, lane.height, ink, 0.3);
  ctx.restore();
}

/** Level rows, like a spectrum: only a part of the sound gives way. */
function rows(ctx: CanvasRenderingContext2D, lane: Lane, end: number, ink: string): void {
  ctx.globalAlpha = 0.4;
  ctx.fillStyle = ink;
  for (let y = lane.top; y < lane.top + lane.height; y += 5) ctx.fillRect(0, y, end, 1.5);
  ctx.globalAlpha = 1;
}

/** Px on either side that a point of a band takes in. */
const AROUND = 5;

/** Where dips stand too close to be told apart: between how low and how high the lane goes, with its average as the line. */
function drawBand(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  { lane, wire, active }: DrawnLane,
  ink: string,
  sheet: string,
): void {
  const { start, perPx } = scene.view;
  const end = Math.min(scene.width, Math.ceil(xOf(scene.view, wire.schedule.at(-1)?.to ?? 0)));
  if (end <= 0) return;
  const { low, high, middle } = bandsOf(wire.schedule, start, perPx, end, AROUND);
  ctx.fillStyle = ink;
  ctx.beginPath();
  for (let x = 0; x < end; x++) ctx.lineTo(x, yOfDb(lane, high[x] ?? 0));
  for (let x = end - 1; x >= 0; x--) ctx.lineTo(x, yOfDb(lane, low[x] ?? 0));
  ctx.globalAlpha = 0.22;
  ctx.fill();
  ctx.globalAlpha = 1;
  ctx.beginPath();
  for (let x = 0; x < end; x++) ctx.lineTo(x, yOfDb(lane, middle[x] ?? 0));
  // Edged, so that it is seen on the sound that it lowers.
  ctx.strokeStyle = sheet;
  ctx.lineWidth = 4;
  ctx.stroke();
  ctx.strokeStyle = ink;
  ctx.lineWidth = active ? 2.4 : 1.8;
  ctx.stroke();
}

/** Moments that were corrected by hand: a bar with a dot, which stay when the rules run again. */
function drawHeld(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  lane: Lane,
  held: { from: number; to: number }[],
  palette: Palette,
): void {
  const y = lane.top + lane.height - CLIP_MARGIN - 3;
  ctx.fillStyle = palette.copper;
  for (const { from, to } of held) {
    const left = xOf(scene.view, from);
    const right = xOf(scene.view, to);
    if (right < 0 || left > scene.width) continue;
    ctx.fillRect(left, y - 1, Math.max(3, right - left), 2);
    ctx.beginPath();
    ctx.arc((left + right) / 2, y, 4, 0, 2 * Math.PI);
    ctx.fill();
    ctx.font = `600 10px ${SANS}`;
    ctx.textBaseline = "middle";
    ctx.textAlign = "left";
    if (right - left < 44) continue;
    const word = (left + right) / 2 + 7;
    ctx.fillStyle = palette.sheet;
    ctx.fillRect(word - 2, y - 3, ctx.measureText("held").width + 4, 11);
    ctx.fillStyle = palette.copper;
    ctx.fillText("held", word, y + 3);
  }
}

/** Where keyframes are, on a lane that is not edited now. */
function drawMarks(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  { lane, wire }: DrawnLane,
  ink: string,
  palette: Palette,
): void {
  ctx.fillStyle = palette.sheet;
  ctx.strokeStyle = ink;
  ctx.lineWidth = 1.4;
  for (const { at, level } of wire.curve) {
    const x = xOf(scene.view, at);
    if (x < -5 || x > scene.width + 5) continue;
    const y = yOfDb(lane, level === "silence" ? -90 : level);
    ctx.beginPath();
    ctx.rect(x - 2.5, y - 2.5, 5, 5);
    ctx.fill();
    ctx.stroke();
  }
}

function caption(
  ctx: CanvasRenderingContext2D,
  lane: Lane,
  text: string,
  colour: string,
  palette: Palette,
  row: number,
): void {
  const y = lane.top + lane.height - CLIP_MARGIN - 8 - 15 * row;
  drawPlate(ctx, text, [6, y], colour, palette);
}
