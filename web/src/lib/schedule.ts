import type { Stretch } from "@/api/types";

/** Gain of a stretch at a position, following the definition in the core: see Stretch in docs/openapi.yaml. */
export function gainOf(stretch: Stretch, position: number): number {
  const x = (position - stretch.from) / (stretch.to - stretch.from);
  if (stretch.gain) return (stretch.gain[0] ?? 0) + (stretch.gain[1] ?? 0) * x;
  const [base = 0, slope = 0, bend = 0] = stretch.db ?? [];
  return 10 ** ((base + slope * x + bend * x * x) / 20);
}

/** Level of a stretch in dB, for drawing and reading. */
export function decibelsAt(stretch: Stretch, position: number): number {
  if (stretch.gain) return 20 * Math.log10(gainOf(stretch, position));
  const x = (position - stretch.from) / (stretch.to - stretch.from);
  const [base = 0, slope = 0, bend = 0] = stretch.db ?? [];
  return base + slope * x + bend * x * x;
}

export function isBent(stretch: Stretch): boolean {
  return (stretch.db?.length ?? 0) > 2;
}

/** Samples between the points of a bent stretch. */
export function gridOf(stretch: Stretch): number {
  return stretch.grid ?? 96;
}

export function isConstant(stretch: Stretch): boolean {
  return stretch.gain ? stretch.gain[1] === 0 : !isBent(stretch) && stretch.db?.[1] === 0;
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
