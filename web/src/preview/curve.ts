import type { Keyframe, Stretch } from "@/api/schema";
import { decibelsOf } from "@/lib/format";
import { ease } from "./ease";

/** Straight pieces that stand for a bent ramp while it is dragged; the server's own shape follows. */
const PIECES = 24;

/** Level of a curve at a position of its own time, dB; before the first keyframe and after the last it stays. */
export function levelOn(curve: Keyframe[], position: number): number {
  const next = curve.findIndex((k) => k.at > position);
  const before = curve[(next < 0 ? curve.length : next) - 1];
  const after = next < 0 ? undefined : curve[next];
  if (!before || !after) return decibelsOf(before?.level ?? after?.level ?? 0);
  return between(before, after, (position - before.at) / (after.at - before.at));
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
 * What a curve is heard as, until the server has said it better.
 *
 * @param around dB that is added all along
 * @param from where it begins to count, in its own time
 */
export function scheduleOf(curve: Keyframe[], around: number, from: number, end: number): Stretch[] {
  const [first, last] = [curve[0], curve[curve.length - 1]];
  if (!first || !last) return [{ from, to: end, db: [around, 0] }];
  const at = (position: number) => Math.max(-144, levelOn(curve, position) + around);
  const stretches: Stretch[] = [];
  if (first.at > from) stretches.push({ from, to: first.at, db: [at(first.at), 0] });
  curve.forEach((k, i) => {
    const next = curve[i + 1];
    if (!next || next.at <= k.at) return;
    const kind = typeof k.ramp === "string" ? k.ramp : k.ramp.kind;
    if (kind === "hold") {
      stretches.push({ from: k.at, to: next.at, db: [at(k.at), 0] });
      return;
    }
    if (
      kind === "gain" ||
      !Number.isFinite(decibelsOf(k.level)) ||
      !Number.isFinite(decibelsOf(next.level))
    ) {
      const [a, b] = [k, next].map((one) => 10 ** ((decibelsOf(one.level) + around) / 20)) as [
        number,
        number,
      ];
      stretches.push({ from: k.at, to: next.at, gain: [a, b - a] });
      return;
    }
    const pieces = kind === "line" ? 1 : Math.min(PIECES, next.at - k.at);
    for (let n = 0; n < pieces; n++) {
      const [a, b] = [n, n + 1].map((p) => Math.round(k.at + ((next.at - k.at) * p) / pieces)) as [
        number,
        number,
      ];
      stretches.push({ from: a, to: b, db: [at(a), at(b) - at(a)] });
    }
  });
  if (last.at < end) stretches.push({ from: last.at, to: end, db: [at(last.at), 0] });
  return stretches;
}
