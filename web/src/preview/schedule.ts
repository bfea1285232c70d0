import type { FadeRamp, Stretch } from "@/api/schema";
import { fadeGain } from "./fade";

function rampGain(ramp: FadeRamp, position: number): number {
  const x = Math.min(1, Math.max(0, (position - ramp.from) / (ramp.to - ramp.from)));
  const [from = 0, to = 1] = ramp.window;
  return fadeGain(ramp.fade, from + (to - from) * (ramp.falling ? 1 - x : x));
}

/** Gain of a stretch at a position, following the definition in the core: see Stretch in docs/openapi.yaml. */
export function gainOf(stretch: Stretch, position: number): number {
  const x = (position - stretch.from) / (stretch.to - stretch.from);
  let gain: number;
  if (stretch.gain) {
    gain = (stretch.gain[0] ?? 0) + (stretch.gain[1] ?? 0) * x;
  } else {
    const [base = 0, slope = 0, bend = 0] = stretch.db ?? [];
    gain = 10 ** ((base + slope * x + bend * x * x) / 20);
  }
  for (const factor of stretch.factors ?? [])
    gain *= "fade" in factor ? rampGain(factor, position) : gainOf(factor, position);
  return gain;
}

/** Level of a stretch in dB without its factors, for drawing and reading a level wire. */
export function decibelsAt(stretch: Stretch, position: number): number {
  const x = (position - stretch.from) / (stretch.to - stretch.from);
  if (stretch.gain) return 20 * Math.log10((stretch.gain[0] ?? 0) + (stretch.gain[1] ?? 0) * x);
  const [base = 0, slope = 0, bend = 0] = stretch.db ?? [];
  return base + slope * x + bend * x * x;
}

/** Whether it is followed from point to point, every grid samples, rather than exactly. */
export function isSampled(stretch: Stretch): boolean {
  return stretch.grid !== undefined;
}

/** Samples between the points of a sampled stretch. */
export function gridOf(stretch: Stretch): number {
  return stretch.grid ?? 384;
}

export function isConstant(stretch: Stretch): boolean {
  if (isSampled(stretch)) return false;
  return stretch.gain ? stretch.gain[1] === 0 : stretch.db?.[1] === 0;
}

/** Index of the stretch under a position; stretches follow one another. Outside, the nearest. */
export function stretchIndexAt(schedule: Stretch[], position: number): number {
  let low = 0;
  let high = schedule.length - 1;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((schedule[middle]?.to ?? Infinity) <= position) low = middle + 1;
    else high = middle;
  }
  return low;
}

export function gainAt(schedule: Stretch[], position: number): number {
  const stretch = schedule[stretchIndexAt(schedule, position)];
  return stretch ? gainOf(stretch, Math.min(Math.max(position, stretch.from), stretch.to)) : 1;
}
