import type { Stretch } from "@/api/types";
import { gainOf, stretchIndexAt } from "@/lib/schedule";
import { CLIP_MARGIN, type Lane, xOf, yOfDb } from "../geometry";
import { inkOf, type Scene } from "../scene";
import { hatch } from "./hatch";
import { type Palette, SANS } from "./palette";

/** px between the points of a lane's line. */
const STEP = 2;

/** What the lanes of tracks do over time, behind nothing else: ducking as a hatched hollow, the level lane as a broken line. */
export function drawTrackLanes(ctx: CanvasRenderingContext2D, scene: Scene, palette: Palette): void {
  for (const lane of scene.layout.lanes) {
    const ducking = scene.duckTry?.[lane.track.id] ?? lane.track.duckingLevels;
    const ink = palette[inkOf(lane.track)];
    if (ducking?.length) {
      drawHollow(ctx, scene, lane, ducking, ink, extraOf(scene, lane, "ducking"));
      drawHeld(ctx, scene, lane, palette);
      const late = scene.figures?.outOfDate.includes(lane.track.id) && !scene.duckTry;
      caption(
        ctx,
        lane,
        late ? "ducking · out of date (Shift+U)" : "ducking",
        late ? palette.trouble : ink,
        palette,
      );
    }
    if (lane.track.levels?.length) {
      ctx.setLineDash([7, 3]);
      line(ctx, scene, lane, lane.track.levels, extraOf(scene, lane, "level"));
      ctx.strokeStyle = ink;
      ctx.lineWidth = scene.activeLane[lane.track.id] === "level" ? 2.4 : 1.6;
      ctx.stroke();
      ctx.setLineDash([]);
      drawPoints(ctx, scene, lane, ink, palette);
    }
  }
}

type Extra = ((position: number) => number) | null;

/** What a drag adds to a lane while it lasts, dB. */
function extraOf(scene: Scene, lane: Lane, kind: "level" | "ducking"): Extra {
  return scene.activeLane[lane.track.id] === kind ? (scene.laneExtra?.[lane.track.id] ?? null) : null;
}

function line(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  lane: Lane,
  schedule: Stretch[],
  extra: Extra,
): void {
  const { view, width } = scene;
  ctx.beginPath();
  for (let x = 0; x <= width; x += STEP) {
    const position = view.start + x * view.perPx;
    if (position > (schedule.at(-1)?.to ?? 0)) break;
    const stretch = schedule[stretchIndexAt(schedule, position)];
    if (!stretch) break;
    const db = 20 * Math.log10(Math.max(1e-6, gainOf(stretch, Math.max(position, stretch.from))));
    const y = yOfDb(lane, db + (extra?.(position) ?? 0));
    if (x === 0) ctx.moveTo(x, y);
    else ctx.lineTo(x, y);
  }
}

function drawHollow(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  lane: Lane,
  schedule: Stretch[],
  ink: string,
  extra: Extra,
): void {
  const zero = yOfDb(lane, 0);
  const end = Math.min(scene.width, xOf(scene.view, schedule.at(-1)?.to ?? 0));
  if (end <= 0) return;
  ctx.save();
  line(ctx, scene, lane, schedule, extra);
  ctx.strokeStyle = ink;
  ctx.lineWidth = scene.activeLane[lane.track.id] === "ducking" ? 2.4 : 1.4;
  ctx.stroke();
  ctx.lineTo(end, zero);
  ctx.lineTo(0, zero);
  ctx.closePath();
  ctx.clip();
  hatch(ctx, 0, lane.top, end, lane.height, ink, 0.3);
  ctx.restore();
}

/** Moments that were corrected by hand: a bar with a dot, which stay when the rules run again. */
function drawHeld(ctx: CanvasRenderingContext2D, scene: Scene, lane: Lane, palette: Palette): void {
  const y = lane.rises ? lane.top + lane.height - CLIP_MARGIN - 3 : lane.top + CLIP_MARGIN + 3;
  ctx.fillStyle = palette.copper;
  for (const { from, to } of lane.track.ducking?.held ?? []) {
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

function drawPoints(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  lane: Lane,
  ink: string,
  palette: Palette,
): void {
  ctx.fillStyle = palette.sheet;
  ctx.strokeStyle = ink;
  ctx.lineWidth = 1.4;
  for (const { at, level } of lane.track.lanes?.level ?? []) {
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
): void {
  ctx.font = `600 10px ${SANS}`;
  ctx.textAlign = "left";
  ctx.textBaseline = "middle";
  const y = lane.rises ? lane.top + lane.height - CLIP_MARGIN - 8 : lane.top + CLIP_MARGIN + 8;
  ctx.fillStyle = palette.sheet;
  ctx.fillRect(3, y - 7, ctx.measureText(text).width + 6, 14);
  ctx.fillStyle = colour;
  ctx.fillText(text, 6, y);
}
