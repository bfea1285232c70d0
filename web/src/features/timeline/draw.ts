import type { Hue, Side, Stem } from "@/api/types";
import { decibelsOf, formatDb } from "@/lib/format";
import { fadeGain, gainOf, stretchIndexAt } from "@/lib/schedule";
import { formatTimecode, rulerMark, rulerStep } from "@/lib/timecode";
import { curveOf, isChosen } from "@/store/chosen";
import { CAPTION, CLIP_MARGIN, NAME_STRIP, soundArea, xOf, yOfDb } from "./geometry";
import { easesOf, gripOf, placeOf } from "./hit";
import type { Outlines } from "./outlines";
import { type DrawnClip, type DrawnWire, grippable, inkOf, type Scene, wireDb } from "./scene";

const NAMES = [
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
  "moss",
  "brick",
  "slate",
  "plum",
  "ochre",
  "teal",
] as const;

export type Palette = Record<(typeof NAMES)[number] | Stem | Hue, string>;

export function readPalette(element: Element): Palette {
  const style = getComputedStyle(element);
  return Object.fromEntries(
    NAMES.map((name) => [name, style.getPropertyValue(`--${name}`).trim()]),
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
  drawMarkers(ctx, scene, palette);
  drawLasso(ctx, scene, palette);
}

function drawLanes(ctx: CanvasRenderingContext2D, scene: Scene, palette: Palette): void {
  const { layout, width } = scene;
  ctx.fillStyle = palette.sunk;
  ctx.globalAlpha = 0.55;
  ctx.fillRect(0, 0, width, CAPTION);
  ctx.fillRect(0, layout.horizon.top + layout.horizon.height, width, CAPTION);
  ctx.globalAlpha = 1;
  drawStrip(ctx, scene, palette);
  for (const lane of layout.lanes) {
    ctx.fillStyle = palette.line;
    ctx.fillRect(0, lane.top + lane.height - 1, width, 1);
    if (lane.track.locked) hatch(ctx, 0, lane.top, width, lane.height - 1, palette.faint, 0.13);
  }
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
  const ink = palette[inkOf(lane.track)];
  ctx.save();
  ctx.beginPath();
  ctx.roundRect(left + 0.5, top + 0.5, Math.max(2, right - left - 1), height - 1, 4);
  ctx.fillStyle = palette.sheet;
  ctx.globalAlpha = isCrossing(drawn) ? 0.82 : 1;
  ctx.fill();
  ctx.clip();
  const silent = lane.track.muted || (scene.solo.length > 0 && !scene.solo.includes(lane.track.id));
  ctx.globalAlpha = silent ? 0.35 : 1;
  if (drawn.wires.length > 1) {
    drawSound(ctx, scene, drawn, ink, palette, outlines, "left");
    drawSound(ctx, scene, drawn, ink, palette, outlines, "right");
    drawSides(ctx, drawn, Math.max(left, 0), palette);
  } else {
    drawSound(ctx, scene, drawn, ink, palette, outlines);
  }
  drawFades(ctx, scene, drawn, palette);
  drawName(ctx, drawn, left, right, ink, palette);
  if (!drawn.wiresHidden) {
    drawCommonWire(ctx, scene, drawn, palette);
    for (const wire of grippable(drawn)) {
      drawWire(ctx, scene, drawn, wire, palette);
      drawKeyframes(ctx, scene, drawn, wire, palette);
    }
    drawEases(ctx, scene, drawn, palette);
  }
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

function drawSides(ctx: CanvasRenderingContext2D, drawn: DrawnClip, left: number, palette: Palette): void {
  ctx.font = `600 9.5px ${SANS}`;
  ctx.textBaseline = "top";
  ctx.textAlign = "left";
  ctx.fillStyle = palette.faint;
  for (const side of ["left", "right"] as const) {
    const area = soundArea(drawn.lane, side);
    const level = drawn.clip.channels?.[side];
    const muted = level?.muted ? " · muted" : "";
    // On the quiet side, away from the bars.
    const y = drawn.lane.rises ? area.top + 3 : area.bottom - 12;
    ctx.fillText(`${side} ${formatDb(level?.gain ?? 0)}${muted}`, left + 10, y);
  }
  ctx.fillRect(left, (soundArea(drawn.lane).top + soundArea(drawn.lane).bottom) / 2, 4000, 0.6);
}

/** The curve of each fade, with what it takes away shaded: the corner that the grip sits on. */
function drawFades(ctx: CanvasRenderingContext2D, scene: Scene, drawn: DrawnClip, palette: Palette): void {
  const { clip, lane } = drawn;
  const area = soundArea(lane);
  const room = area.bottom - area.top;
  const [base, loud] = lane.rises ? [area.bottom, area.top] : [area.top, area.bottom];
  for (const edge of ["in", "out"] as const) {
    const fade = edge === "in" ? clip.fades[0] : clip.fades[1];
    if (!fade || fade.length === 0) continue;
    const { windowFrom = 0, windowTo = 1 } = fade;
    const start = edge === "in" ? clip.at : clip.at + clip.length - fade.length;
    const width = fade.length / scene.view.perPx;
    const steps = Math.max(2, Math.min(60, Math.round(width / 3)));
    ctx.beginPath();
    ctx.moveTo(xOf(scene.view, edge === "in" ? clip.at : clip.at + clip.length), loud);
    for (let n = 0; n <= steps; n++) {
      const x = edge === "in" ? n / steps : 1 - n / steps;
      const gain = fadeGain(fade.shape, windowFrom + (windowTo - windowFrom) * (n / steps));
      ctx.lineTo(xOf(scene.view, start + fade.length * x), base + (lane.rises ? -1 : 1) * room * gain);
    }
    ctx.fillStyle = palette.sunk;
    const alpha = ctx.globalAlpha;
    ctx.globalAlpha = alpha * 0.75;
    ctx.fill();
    ctx.globalAlpha = alpha;
    ctx.lineWidth = 1.2;
    ctx.strokeStyle = palette.copper;
    ctx.stroke();
  }
}

/** Half-round tabs where fades are taken hold of. */
function drawGrips(ctx: CanvasRenderingContext2D, scene: Scene, drawn: DrawnClip, palette: Palette): void {
  if (drawn.clip.length / scene.view.perPx < 28) return;
  for (const edge of ["in", "out"] as const) {
    const { x, y } = gripOf(scene, drawn, edge);
    ctx.beginPath();
    ctx.arc(x, drawn.lane.rises ? y - 4 : y + 4, 5, 0, Math.PI, !drawn.lane.rises);
    ctx.closePath();
    ctx.fillStyle = drawn.selected ? palette.copper : palette.line;
    ctx.fill();
  }
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

/** One-sided bars after gain and fades; the sound before them as a fine ghost. */
function drawSound(
  ctx: CanvasRenderingContext2D,
  scene: Scene,
  drawn: DrawnClip,
  ink: string,
  palette: Palette,
  outlines: Outlines,
  channel?: Side,
): void {
  const { clip, lane } = drawn;
  const { view, rate } = scene;
  const msPerSample = 1000 / rate;
  const outline = outlines.get(clip.source, BAR * view.perPx * msPerSample, channel);
  if (!outline) return;
  const { points, msPerPoint } = outline;
  const area = soundArea(lane, channel);
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
  const own = drawn.wires[0]?.schedule ?? [];
  const side = channel && drawn.wires.find((w) => w.channel === channel)?.schedule;
  const muted = channel && clip.channels?.[channel]?.muted;
  const trackGain = muted ? 0 : 10 ** (drawn.levelDb / 20);
  let index = stretchIndexAt(own, Math.max(clip.in, firstBar * barSamples - shift));
  ctx.fillStyle = ink;
  const ghost: number[] = [];
  for (let bar = firstBar; bar < lastBar; bar++) {
    const from = bar * barSamples - shift;
    const middle = Math.min(Math.max(from + barSamples / 2, clip.in), clip.in + clip.length - 1);
    while (index < own.length - 1 && (own[index]?.to ?? Infinity) <= middle) index++;
    const stretch = own[index];
    const peak = highest(points, (from * msPerSample) / msPerPoint, (barSamples * msPerSample) / msPerPoint);
    if (!stretch || peak === 0) continue;
    let gain = gainOf(stretch, middle) * trackGain * fadesAt(drawn, middle);
    if (drawn.extra) gain *= 10 ** (drawn.extra(middle) / 20);
    const beside = side?.[stretchIndexAt(side, middle)];
    if (beside) gain *= gainOf(beside, middle);
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

function fadesAt({ clip }: DrawnClip, position: number): number {
  const [fadeIn, fadeOut] = clip.fades;
  const into = position - clip.in;
  const left = clip.in + clip.length - position;
  const gain = (fade: typeof fadeIn, way: number) => {
    if (!fade || way >= fade.length) return 1;
    const { windowFrom = 0, windowTo = 1 } = fade;
    return fadeGain(fade.shape, windowFrom + ((windowTo - windowFrom) * way) / fade.length);
  };
  return gain(fadeIn, into) * gain(fadeOut, left);
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

function drawRange(ctx: CanvasRenderingContext2D, scene: Scene, palette: Palette): void {
  const { range, layout, ramp } = scene;
  if (!range) return;
  const left = xOf(scene.view, range.from);
  const width = Math.max(1, xOf(scene.view, range.to) - left);
  const lanes = layout.lanes.filter((l) => range.tracks === null || range.tracks.includes(l.track.id));
  ctx.fillStyle = palette.glow;
  for (const lane of lanes) ctx.fillRect(left, lane.top, width, lane.height);
  ctx.fillRect(left, layout.horizon.top, width, layout.horizon.height);
  ctx.fillStyle = palette.copper;
  for (const x of [left, left + width - 1]) {
    for (const lane of lanes) ctx.fillRect(x, lane.top, 1, lane.height);
    ctx.fillRect(x, layout.horizon.top, 1, layout.horizon.height);
  }
  if (ramp === null) return;
  // Flags at the outer ends of the ramps just made: they are still loose.
  const out = (scene.inside ? -ramp : ramp) / scene.view.perPx;
  const y = layout.horizon.top + layout.horizon.height - 13;
  for (const [x, to] of [
    [left - out, left],
    [left + width + out, left + width],
  ] as const) {
    ctx.beginPath();
    ctx.moveTo(x, y);
    ctx.lineTo(to, y);
    ctx.lineWidth = 1;
    ctx.strokeStyle = palette.copper;
    ctx.stroke();
    ctx.beginPath();
    ctx.arc(x, y, 4, 0, 2 * Math.PI);
    ctx.fillStyle = palette.copper;
    ctx.fill();
  }
}

function drawMarkers(ctx: CanvasRenderingContext2D, scene: Scene, palette: Palette): void {
  const { horizon } = scene.layout;
  const bottom = horizon.top + horizon.height;
  ctx.font = `600 10.5px ${SANS}`;
  ctx.textBaseline = "middle";
  ctx.textAlign = "left";
  scene.markers.forEach((marker, i) => {
    const x = xOf(scene.view, marker.at);
    if (x < -200 || x > scene.width + 10) return;
    const next = scene.markers[i + 1];
    const room = next ? xOf(scene.view, next.at) - x - 12 : 400;
    ctx.fillStyle = palette.ink;
    ctx.fillRect(x - 0.5, horizon.top, 1, horizon.height);
    ctx.beginPath();
    ctx.moveTo(x - 5, bottom - 9);
    ctx.lineTo(x + 5, bottom - 9);
    ctx.lineTo(x, bottom - 2);
    ctx.closePath();
    ctx.fill();
    const width = Math.min(ctx.measureText(marker.name).width + 8, Math.max(0, room));
    if (width < 16) return;
    ctx.fillStyle = palette.paper;
    ctx.fillRect(x + 6, bottom - 15, width, 13);
    ctx.save();
    ctx.beginPath();
    ctx.rect(x + 6, bottom - 15, width, 13);
    ctx.clip();
    ctx.fillStyle = palette.ink;
    ctx.fillText(marker.name, x + 10, bottom - 8);
    ctx.restore();
  });
}

/** When pictures show, along the upper edge. */
function drawStrip(ctx: CanvasRenderingContext2D, scene: Scene, palette: Palette): void {
  ctx.font = `600 9.5px ${SANS}`;
  ctx.textBaseline = "middle";
  ctx.textAlign = "left";
  for (const picture of scene.strip) {
    const left = Math.max(0, xOf(scene.view, picture.at));
    const right = Math.min(scene.width, xOf(scene.view, picture.at + picture.length));
    if (right <= left) continue;
    ctx.fillStyle = palette.line;
    ctx.fillRect(left, 3, right - left, CAPTION - 7);
    if (right - left < 60) continue;
    ctx.fillStyle = palette.faint;
    ctx.fillText("PICTURE", left + 8, 3 + (CAPTION - 7) / 2 + 0.5);
  }
}

function drawLasso(ctx: CanvasRenderingContext2D, scene: Scene, palette: Palette): void {
  const { lasso } = scene;
  if (!lasso) return;
  ctx.fillStyle = palette.glow;
  ctx.fillRect(lasso.left, lasso.top, lasso.right - lasso.left, lasso.bottom - lasso.top);
  ctx.setLineDash([4, 3]);
  ctx.lineWidth = 1;
  ctx.strokeStyle = palette.copper;
  ctx.strokeRect(lasso.left + 0.5, lasso.top + 0.5, lasso.right - lasso.left, lasso.bottom - lasso.top);
  ctx.setLineDash([]);
}

function hatch(
  ctx: CanvasRenderingContext2D,
  left: number,
  top: number,
  width: number,
  height: number,
  colour: string,
  alpha: number,
): void {
  ctx.save();
  ctx.beginPath();
  ctx.rect(left, top, width, height);
  ctx.clip();
  ctx.globalAlpha = alpha;
  ctx.strokeStyle = colour;
  ctx.lineWidth = 1;
  ctx.beginPath();
  for (let x = left - height; x < left + width; x += 9) {
    ctx.moveTo(x, top + height);
    ctx.lineTo(x + height, top);
  }
  ctx.stroke();
  ctx.restore();
}
