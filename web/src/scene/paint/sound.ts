import type { Side } from "@/api/schema";
import { fadeGain } from "@/preview/fade";
import { gainOf, stretchIndexAt } from "@/preview/schedule";
import { sideOf } from "@/store/wires";
import { soundArea, xOf } from "../geometry";
import type { Outlines } from "../outlines";
import type { DrawnClip, Scene } from "../scene";
import type { Palette } from "./palette";

const BAR = 3;

/** One-sided bars after gain and fades; the sound before them as a fine ghost. */
export function drawSound(
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
  const side = channel && drawn.wires.find((w) => sideOf(w.id) === channel)?.schedule;
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
    if (drawn.lanes) gain *= drawn.lanes(middle);
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
