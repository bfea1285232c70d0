import type { Keyframe, ShapedRamp, Stretch } from "@/api/schema";
import { decibelsOf } from "@/lib/format";
import { ease } from "./ease";

/** Level of a curve at a position of its own time, dB; before the first keyframe and after the last it stays. */
export function levelOn(curve: Keyframe[], position: number): number {
  const next = firstAfter(curve, position);
  const [before, after] = [curve[next - 1], curve[next]];
  if (!before || !after) return decibelsOf(before?.level ?? after?.level ?? 0);
  return between(before, after, (position - before.at) / (after.at - before.at));
}

/** Number of the first keyframe after a position; of none, how many there are. */
function firstAfter(curve: Keyframe[], position: number): number {
  let [low, high] = [0, curve.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((curve[middle]?.at ?? Infinity) > position) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** @param x way from a keyframe to the next one, 0…1 */
function between(before: Keyframe, after: Keyframe, x: number): number {
  const [first, last] = [decibelsOf(before.level), decibelsOf(after.level)];
  const shape = typeof before.ramp === "string" ? { kind: before.ramp } : before.ramp;
  if (shape.kind === "hold" || x === 0) return first;
  if (shape.kind === "gain" || !Number.isFinite(first) || !Number.isFinite(last))
    return 20 * Math.log10(10 ** (first / 20) * (1 - x) + 10 ** (last / 20) * x);
  if (shape.kind === "line") return first + (last - first) * x;
  const { easeOut = 0.5, easeIn = 0.5, windowFrom = 0, windowTo = 1, tilt = 0 } = shape;
  const s = (u: number) => ease(u, easeOut, easeIn);
  const up = (s(windowFrom + (windowTo - windowFrom) * x) - s(windowFrom)) / (s(windowTo) - s(windowFrom));
  return first + tilt * x + (last - first - tilt) * up;
}

/**
 * What a curve is heard as, as the core works it out.
 *
 * @param around dB that is added all along
 * @param from where it begins to count, in its own time
 */
export function scheduleOf(curve: Keyframe[], around: number, from: number, end: number): Stretch[] {
  const [first, last] = [curve[0], curve[curve.length - 1]];
  if (!first || !last) return [{ from, to: end, db: [around, 0] }];
  const rest = (k: Keyframe) => [Math.max(-144, decibelsOf(k.level) + around), 0];
  const stretches: Stretch[] = [];
  if (first.at > from) stretches.push({ from, to: first.at, db: rest(first) });
  curve.forEach((k, i) => {
    const next = curve[i + 1];
    if (next && next.at > k.at) stretches.push(...rampOf(k, next, around));
  });
  if (last.at < end) stretches.push({ from: last.at, to: end, db: rest(last) });
  return stretches;
}

function rampOf(k: Keyframe, next: Keyframe, around: number): Stretch[] {
  const [from, to] = [k.at, next.at];
  const [first, last] = [decibelsOf(k.level) + around, decibelsOf(next.level) + around];
  const shape = typeof k.ramp === "string" ? { kind: k.ramp } : k.ramp;
  if (shape.kind === "hold") return [{ from, to, db: [Math.max(-144, first), 0] }];
  if (shape.kind === "gain" || !Number.isFinite(first) || !Number.isFinite(last)) {
    const [a, b] = [10 ** (first / 20), 10 ** (last / 20)];
    return [{ from, to, gain: [a, b - a] }];
  }
  if (shape.kind === "line") return [{ from, to, db: [first, last - first] }];
  return parabolas(k, next, shape, around);
}

/** An S cut where its parabolas meet; each is fitted through its ends and its middle, which for a parabola is exact. */
function parabolas(
  k: Keyframe,
  next: Keyframe,
  { easeOut = 0.5, easeIn = 0.5, windowFrom = 0, windowTo = 1 }: Partial<ShapedRamp>,
  around: number,
): Stretch[] {
  const length = next.at - k.at;
  const cuts = [easeOut, 1 - easeIn]
    .map((u) => Math.round(((u - windowFrom) / (windowTo - windowFrom)) * length))
    .filter((cut) => cut > 0 && cut < length);
  const ends = [...new Set([0, ...cuts, length])];
  const at = (position: number) => between(k, next, position / length) + around;
  return ends.slice(1).map((to, i) => {
    const from = ends[i] ?? 0;
    const [a, middle, b] = [at(from), at((from + to) / 2), at(to)];
    const bend = 2 * (a + b - 2 * middle);
    return { from: k.at + from, to: k.at + to, db: [a, b - a - bend, bend] };
  });
}
