import type { Buried } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { xOf } from "../geometry";
import type { Scene } from "../scene";
import { hatch } from "./hatch";
import { MONO, type Palette, SANS } from "./palette";

const BAR = 3;
/** Px below which a buried stretch has no mark of its own. */
const NARROW = 4;
/** LU at the upper edge of the strip. */
const TOP_LU = 30;
/** Of its height that a bar has at least. */
const LEAST_PART = 0.027;

/** How far the speech stands above the rest, moment by moment, against the wanted clearance. What is buried is hatched and says so. */
export function drawClearance(ctx: CanvasRenderingContext2D, scene: Scene, palette: Palette): void {
  const { top, height } = scene.layout.clearance;
  ctx.fillStyle = palette.sunk;
  ctx.globalAlpha = 0.6;
  ctx.fillRect(0, top, scene.width, height);
  ctx.globalAlpha = 1;
  drawSpoken(ctx, scene, palette);
  const measure = measureOf(scene);
  if (!scene.figures || !measure) return;
  const base = top + height - 2;
  const yOf = (value: number) =>
    base - Math.min(1, Math.max(LEAST_PART, value / measure.most)) * (height - 16);
  drawBars(ctx, scene, palette, measure, base, yOf);
  const wanted = yOf(measure.wanted);
  ctx.strokeStyle = palette.faint;
  ctx.lineWidth = 1;
  ctx.setLineDash([4, 4]);
  ctx.beginPath();
  ctx.moveTo(0, Math.round(wanted) + 0.5);
  ctx.lineTo(scene.width, Math.round(wanted) + 0.5);
  ctx.stroke();
  ctx.setLineDash([]);
  if (scene.trying) return;
  if (scene.judged === "clarity") return drawCovered(ctx, scene, palette);
  const { buried, moreBuried } = scene.figures;
  const isNarrow = (b: Buried) => b.accepted === null && (b.to - b.from) / scene.view.perPx < NARROW;
  for (const one of buried) if (!isNarrow(one)) drawBuried(ctx, scene, one, palette);
  drawMany(ctx, scene, [...buried.filter(isNarrow).map((b) => [b.from, b.to]), ...moreBuried], palette);
}

/** What the strip shows of each moment of speech: its values, which of them is wanted, and which reaches the upper edge. */
interface Measure {
  runs: [number, number[]][];
  wanted: number;
  most: number;
}

function measureOf({ judged, figures, clarity, aim }: Scene): Measure | null {
  if (judged === "clarity") return clarity && { runs: clarity.clarity, wanted: aim.clarity, most: 100 };
  return figures && { runs: figures.clearance, wanted: aim.clearance, most: TOP_LU };
}

/** Where speech is less clear than wanted: which track covers it, and where in the spectrum. */
function drawCovered(ctx: CanvasRenderingContext2D, scene: Scene, palette: Palette): void {
  const { top, height } = scene.layout.clearance;
  for (const { from, to, worst, track, fromHz, toHz } of scene.clarity?.covered ?? []) {
    const [left, right] = [xOf(scene.view, from), xOf(scene.view, to)];
    if (right < 0 || left > scene.width) continue;
    hatch(ctx, left, top + 1, Math.max(1, right - left), height - 2, palette.trouble, 0.4);
    const name = scene.layout.lanes.find((lane) => lane.track.id === track)?.track.name ?? "softly spoken";
    drawWord(ctx, name, `${worst} · ${hertz(fromHz)}–${hertz(toHz)}`, left, right, top, palette.trouble);
  }
}

const hertz = (hz: number) => (hz < 1000 ? String(hz) : `${hz / 1000}k`);

/** What is buried where there is no room for words, and what is beyond what is listed: those that stand close are hatched as one. */
function drawMany(
  ctx: CanvasRenderingContext2D,
  { view, width, layout }: Scene,
  spans: number[][],
  palette: Palette,
): void {
  const { top, height } = layout.clearance;
  const hatched = (left: number, right: number) => {
    if (right > 0 && left < width)
      hatch(ctx, left, top + 1, Math.max(1, right - left), height - 2, palette.trouble, 0.4);
  };
  let [left, right] = [-1, -1];
  for (const [from, to] of spans) {
    const begin = xOf(view, from ?? 0);
    if (begin - right > 2) {
      hatched(left, right);
      left = begin;
    }
    right = xOf(view, to ?? 0);
  }
  hatched(left, right);
}

/** What is said, where there are captions; else a line where somebody is heard to speak. */
function drawSpoken(ctx: CanvasRenderingContext2D, scene: Scene, palette: Palette): void {
  const { view, width, captions, figures } = scene;
  const { top } = scene.layout.clearance;
  const { caption } = scene.layout;
  ctx.font = `10px ${SANS}`;
  ctx.textBaseline = "middle";
  ctx.textAlign = "left";
  ctx.fillStyle = palette.speech;
  let edge = 0;
  for (const [from, to] of figures?.speech ?? []) {
    const left = xOf(view, from ?? 0);
    const right = xOf(view, to ?? 0);
    if (left > width) break;
    // Where they stand close, what is drawn already says it.
    if (right > edge) ctx.fillRect(left, top, Math.max(1, right - left), 2);
    edge = Math.max(edge, Math.ceil(right));
  }
  ctx.fillStyle = palette.ink;
  for (const { from, to, text } of captions) {
    const left = Math.max(0, xOf(view, from));
    const right = Math.min(width, xOf(view, to));
    if (right - left < 14) continue;
    ctx.save();
    ctx.beginPath();
    ctx.rect(left, caption.top, right - left - 3, caption.height);
    ctx.clip();
    ctx.fillText(text, left + 2, caption.top + caption.height / 2);
    ctx.restore();
  }
}

function drawBars(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  palette: Palette,
  { runs, wanted }: Measure,
  base: number,
  yOf: (value: number) => number,
): void {
  const { view, rate, width } = scene;
  const tenth = rate / 10;
  const perBar = (BAR * view.perPx) / tenth;
  for (const [first, values] of runs) {
    const left = xOf(view, first * tenth);
    if (left > width || xOf(view, (first + values.length) * tenth) < 0) continue;
    const start = Math.max(0, Math.floor(-left / BAR));
    const bars = Math.ceil(values.length / perBar);
    for (let bar = start; bar < bars && left + bar * BAR < width; bar++) {
      // The lowest value under a bar is the one that matters.
      let lowest = Infinity;
      for (let i = Math.floor(bar * perBar); i < Math.max(bar * perBar + 1, (bar + 1) * perBar); i++)
        lowest = Math.min(lowest, values[i] ?? Infinity);
      if (lowest === Infinity) continue;
      ctx.fillStyle = lowest < wanted ? palette.trouble : palette.speech;
      const y = yOf(lowest);
      ctx.fillRect(left + bar * BAR, y, BAR - 1, base - y);
    }
  }
}

function drawBuried(ctx: CanvasRenderingContext2D, scene: Scene, buried: Buried, palette: Palette): void {
  const { top, height } = scene.layout.clearance;
  const left = xOf(scene.view, buried.from);
  const right = xOf(scene.view, buried.to);
  if (right < 0 || left > scene.width) return;
  const accepted = buried.accepted !== null;
  const colour = accepted ? palette.faint : palette.trouble;
  hatch(ctx, left, top + 1, right - left, height - 2, colour, accepted ? 0.25 : 0.4);
  if (buried.from === scene.stretch) {
    ctx.strokeStyle = colour;
    ctx.lineWidth = 2;
    ctx.strokeRect(left + 1, top + 2, right - left - 2, height - 4);
  }
  drawWord(ctx, accepted ? "accepted" : "buried", `${formatDb(buried.worst)} LU`, left, right, top, colour);
}

/** A word at the beginning of a stretch, and a figure after it, as far as there is room. */
function drawWord(
  ctx: CanvasRenderingContext2D,
  word: string,
  figure: string,
  left: number,
  right: number,
  top: number,
  colour: string,
): void {
  ctx.textBaseline = "top";
  ctx.textAlign = "left";
  ctx.fillStyle = colour;
  const from = Math.max(left, 0) + 3;
  ctx.font = `700 11px ${SANS}`;
  const room = right - from;
  const wordWidth = ctx.measureText(word).width;
  if (room < wordWidth + 4) return;
  ctx.fillText(word, from, top + 3);
  ctx.font = `600 11px ${MONO}`;
  if (room > wordWidth + ctx.measureText(figure).width + 10)
    ctx.fillText(figure, from + wordWidth + 5, top + 3);
}
