import type { Stem } from "@/api/types";
import { decibelsOf, formatDb } from "@/lib/format";
import { gainOf, stretchIndexAt } from "@/lib/schedule";
import { formatTimecode, rulerMark, rulerStep } from "@/lib/timecode";
import { CAPTION, CLIP_MARGIN, NAME_STRIP, soundArea, xOf, yOfDb } from "./geometry";
import type { Outlines } from "./outlines";
import { type DrawnClip, type Scene, wireDb } from "./scene";

export type Palette = Record<
  "paper" | "sheet" | "sunk" | "line" | "ink" | "faint" | "copper" | "glow" | Stem,
  string
>;

export function readPalette(element: Element): Palette {
  const style = getComputedStyle(element);
  const names = [
    "paper",
    "sheet",
    "sunk",
    "line",
    "ink",
    "faint",
    "copper",
    "glow",
    "speech",
    "music",
    "ambience",
    "effects",
  ] as const;
  return Object.fromEntries(
    names.map((name) => [name, style.getPropertyValue(`--${name}`).trim()]),
  ) as Palette;
}

const BAR = 3;
/** Room for a written timecode. */
const LABEL_PX = 96;
const SANS = '"Archivo Variable", sans-serif';
const MONO = '"IBM Plex Mono", monospace';

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
  drawHorizon(ctx, scene, palette);
  for (const drawn of scene.clips) {
    if (drawn.lane.top + drawn.lane.height > scrollTop && drawn.lane.top < scrollTop + viewHeight) {
      drawClip(ctx, scene, drawn, palette, outlines);
    }
  }
  drawRange(ctx, scene, palette);
}

function drawLanes(ctx: CanvasRenderingContext2D, scene: Scene, palette: Palette): void {
  const { layout, width } = scene;
  ctx.fillStyle = palette.sunk;
  ctx.globalAlpha = 0.55;
  ctx.fillRect(0, 0, width, CAPTION);
  ctx.fillRect(0, layout.horizon.top + layout.horizon.height, width, CAPTION);
  ctx.globalAlpha = 1;
  ctx.fillStyle = palette.line;
  for (const lane of layout.lanes) ctx.fillRect(0, lane.top + lane.height - 1, width, 1);
  const end = xOf(scene.view, scene.length);
  if (end < width) {
    ctx.globalAlpha = 0.35;
    ctx.fillStyle = palette.sunk;
    ctx.fillRect(Math.max(0, end), 0, width, layout.height);
    ctx.globalAlpha = 1;
  }
}

/** Time is written on the horizon: between the speech and everything else, where the eye already is. */
function drawHorizon(ctx: CanvasRenderingContext2D, scene: Scene, palette: Palette): void {
  const { top, height } = scene.layout.horizon;
  ctx.fillStyle = palette.sunk;
  ctx.fillRect(0, top, scene.width, height);
  ctx.fillStyle = palette.ink;
  ctx.fillRect(0, top, scene.width, 1.5);
  ctx.fillStyle = palette.line;
  ctx.fillRect(0, top + height - 1, scene.width, 1);
  const { view, rate, frameRate } = scene;
  const step = rulerStep(view.perPx, rate, frameRate, LABEL_PX);
  const length = rulerMark(step, 1, rate, frameRate);
  const end = view.start + scene.width * view.perPx;
  ctx.font = `11px ${MONO}`;
  ctx.textBaseline = "middle";
  ctx.textAlign = "left";
  for (let n = Math.max(0, Math.floor(view.start / length) - 1); ; n++) {
    const sample = rulerMark(step, n, rate, frameRate);
    if (sample > end) break;
    const x = Math.round(xOf(view, sample));
    ctx.fillStyle = palette.ink;
    ctx.fillRect(x, top + 1, 1, 10);
    ctx.fillRect(x, top + height - 6, 1, 6);
    ctx.fillText(formatTimecode(sample, rate, frameRate), x + 5, top + height / 2 + 2);
    if ((step.frames ?? 5) % 5 !== 0) continue;
    ctx.fillStyle = palette.faint;
    for (let part = 1; part < 5; part++) {
      const minor = Math.round(xOf(view, sample + (length * part) / 5));
      ctx.fillRect(minor, top + 1, 1, 5);
      ctx.fillRect(minor, top + height - 3, 1, 3);
    }
  }
}

function drawClip(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  drawn: DrawnClip,
  palette: Palette,
  outlines: Outlines,
): void {
  const { clip, lane, selected } = drawn;
  const left = xOf(scene.view, clip.at);
  const right = xOf(scene.view, clip.at + clip.length);
  const top = lane.top + CLIP_MARGIN;
  const height = lane.height - 2 * CLIP_MARGIN;
  const ink = palette[lane.track.stem];
  ctx.save();
  ctx.beginPath();
  ctx.roundRect(left + 0.5, top + 0.5, Math.max(2, right - left - 1), height - 1, 4);
  ctx.fillStyle = palette.sheet;
  ctx.fill();
  ctx.clip();
  const muted = lane.track.muted;
  ctx.globalAlpha = muted ? 0.35 : 1;
  drawSound(ctx, scene, drawn, ink, palette, outlines);
  drawName(ctx, drawn, left, right, ink, palette);
  drawWire(ctx, scene, drawn, palette);
  ctx.restore();
  ctx.beginPath();
  ctx.roundRect(left + 0.5, top + 0.5, Math.max(2, right - left - 1), height - 1, 4);
  ctx.lineWidth = selected ? 2 : 1;
  ctx.strokeStyle = selected ? palette.ink : palette.line;
  ctx.stroke();
}

function drawName(
  ctx: CanvasRenderingContext2D,
  drawn: DrawnClip,
  left: number,
  right: number,
  ink: string,
  palette: Palette,
): void {
  const { clip, lane } = drawn;
  const y = lane.rises ? lane.top + CLIP_MARGIN : lane.top + lane.height - CLIP_MARGIN - NAME_STRIP;
  ctx.fillStyle = ink;
  const before = ctx.globalAlpha;
  ctx.globalAlpha = before * (drawn.selected ? 0.24 : 0.11);
  ctx.fillRect(left, y, right - left, NAME_STRIP);
  ctx.globalAlpha = before;
  const visible = Math.max(left, 0);
  if (right - visible < 26) return;
  ctx.textBaseline = "middle";
  ctx.font = `600 11.5px ${SANS}`;
  ctx.fillStyle = ink;
  ctx.textAlign = "left";
  const gain = `${formatDb(clip.gain)}${clip.gain === "silence" ? "" : " dB"}`;
  const nameWidth = ctx.measureText(clip.name).width;
  ctx.fillText(clip.name, visible + 7, y + NAME_STRIP / 2 + 0.5);
  if (right - visible > nameWidth + 74) {
    ctx.font = `10.5px ${MONO}`;
    ctx.fillStyle = palette.copper;
    ctx.fillText(gain, visible + 7 + nameWidth + 9, y + NAME_STRIP / 2 + 0.5);
  }
}

/** One-sided bars after gain; the sound before the wire as a fine ghost. */
function drawSound(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  drawn: DrawnClip,
  ink: string,
  palette: Palette,
  outlines: Outlines,
): void {
  const { clip, lane, schedule } = drawn;
  const { view, rate } = scene;
  const msPerSample = 1000 / rate;
  const outline = outlines.get(clip.source, BAR * view.perPx * msPerSample);
  if (!outline) return;
  const { points, msPerPoint } = outline;
  const area = soundArea(lane);
  const room = area.bottom - area.top;
  const base = lane.rises ? area.bottom : area.top;
  const direction = lane.rises ? -1 : 1;
  const shift = clip.at - clip.in;
  const barSamples = BAR * view.perPx;
  // Bars keep to a grid of the timeline, so that they do not shimmer while scrolling.
  const firstBar = Math.floor(Math.max(clip.at, view.start) / barSamples);
  const lastBar = Math.ceil(
    Math.min(clip.at + clip.length, view.start + scene.width * view.perPx) / barSamples,
  );
  const trackGain = 10 ** (decibelsOf(lane.track.fader) / 20);
  let index = stretchIndexAt(schedule, Math.max(clip.in, firstBar * barSamples - shift));
  ctx.fillStyle = ink;
  const ghost: number[] = [];
  for (let bar = firstBar; bar < lastBar; bar++) {
    const from = bar * barSamples - shift;
    const middle = Math.min(Math.max(from + barSamples / 2, clip.in), clip.in + clip.length - 1);
    while (index < schedule.length - 1 && (schedule[index]?.to ?? Infinity) <= middle) index++;
    const stretch = schedule[index];
    const peak = highest(points, (from * msPerSample) / msPerPoint, (barSamples * msPerSample) / msPerPoint);
    if (!stretch || peak === 0) continue;
    const gain = gainOf(stretch, middle) * (drawn.extra ? 10 ** (drawn.extra(middle) / 20) : 1) * trackGain;
    const x = xOf(view, bar * barSamples);
    const size = room * shownSize(peak * gain);
    if (size >= 0.4) ctx.fillRect(x + 0.5, direction < 0 ? base - size : base, BAR - 1, size);
    if (Math.abs(gain - 1) > 0.02) ghost.push(x, base + direction * room * shownSize(peak));
  }
  const opaque = ctx.globalAlpha;
  ctx.globalAlpha = opaque * 0.38;
  for (let i = 0; i < ghost.length; i += 2) ctx.fillRect(ghost[i] ?? 0, (ghost[i + 1] ?? 0) - 0.4, BAR, 0.8);
  ctx.globalAlpha = opaque;
  ctx.fillStyle = palette.line;
  ctx.fillRect(xOf(view, clip.at), base - (direction < 0 ? 1 : 0), clip.length / view.perPx, 1);
}

/** Quiet sound must still be seen: a power between linear and logarithmic, looked up, since thousands of bars ask for it. */
const SIZES = Float32Array.from({ length: 2049 }, (_, i) => Math.min(1, i / 2048) ** 0.68 * 0.94);

/** Part of the room that an amplitude takes; 1.0 is full scale. */
function shownSize(amplitude: number): number {
  return SIZES[amplitude >= 1 ? 2048 : (amplitude * 2048) | 0] ?? 0;
}

function highest(points: Uint16Array, from: number, count: number): number {
  const start = Math.max(0, Math.floor(from));
  const end = Math.min(points.length, Math.max(start + 1, Math.round(from + count)));
  let peak = 0;
  for (let i = start; i < end; i++) peak = Math.max(peak, points[i] ?? 0);
  return peak / 32768;
}

function drawWire(ctx: CanvasRenderingContext2D, scene: Scene, drawn: DrawnClip, palette: Palette): void {
  const { clip, lane, schedule } = drawn;
  const sourceDb = drawn.aroundDb - decibelsOf(lane.track.fader);
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
      const y = yOfDb(lane, wireDb(drawn, stretch, position, sourceDb));
      const x = xOf(scene.view, position + shift);
      if (begun) ctx.lineTo(x, y);
      else ctx.moveTo(x, y);
      begun = true;
    }
  }
  ctx.lineWidth = 1.8;
  ctx.strokeStyle = palette.copper;
  ctx.stroke();
  const gain = decibelsOf(clip.gain);
  ctx.lineWidth = 1.8;
  for (const keyframe of clip.curve) {
    const x = xOf(scene.view, keyframe.at + shift);
    if (x < -8 || x > scene.width + 8) continue;
    const y = yOfDb(lane, decibelsOf(keyframe.level) + gain + (drawn.extra?.(keyframe.at) ?? 0));
    const chosen = scene.keyframe?.clip === clip.id && scene.keyframe.at === keyframe.at;
    ctx.beginPath();
    // A lozenge: unlike the round grips of the screen, and easy to tell from a bar.
    const r = chosen ? 5.5 : 4.5;
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

function drawRange(ctx: CanvasRenderingContext2D, scene: Scene, palette: Palette): void {
  const { range, layout } = scene;
  if (!range) return;
  const left = xOf(scene.view, range.from);
  const width = Math.max(1, xOf(scene.view, range.to) - left);
  const lane = layout.lanes.find((l) => l.track.id === range.track);
  const top = lane ? lane.top : 0;
  const height = lane ? lane.height : layout.height;
  ctx.fillStyle = palette.glow;
  ctx.fillRect(left, top, width, height);
  ctx.fillRect(left, layout.horizon.top, width, layout.horizon.height);
  ctx.fillStyle = palette.copper;
  for (const x of [left, left + width - 1]) {
    ctx.fillRect(x, top, 1, height);
    ctx.fillRect(x, layout.horizon.top, 1, layout.horizon.height);
  }
}
