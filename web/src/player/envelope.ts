import type { Stretch } from "@/api/schema";
import { gainOf, gridOf, isSampled, isConstant, stretchIndexAt } from "@/preview/schedule";

/** The part of an AudioParam that an envelope is written to. */
export type GainParam = Pick<
  AudioParam,
  "setValueAtTime" | "linearRampToValueAtTime" | "exponentialRampToValueAtTime"
>;

/**
 * Writes a gain schedule onto an audio parameter, a piece at a time, each going on where the last one ended.
 * Straight-in-dB stretches become exponential ramps, straight-in-gain ones linear ramps, bent ones straight lines from
 * grid point to grid point: the same definition that the server renders by.
 */
export class Envelope {
  private written: number;
  /** The value that holds until the next event; null during a ramp, NaN before anything is written. */
  private held: number | null = NaN;

  /**
   * @param timeOf context time of a position of the schedule
   * @param from   first position to be heard
   */
  constructor(
    private readonly param: GainParam,
    private readonly schedule: Stretch[],
    private readonly timeOf: (position: number) => number,
    from: number,
  ) {
    this.written = from;
  }

  /** Whether it writes to this parameter. */
  writes(param: GainParam): boolean {
    return param === this.param;
  }

  /** Writes up to a position, or up to the next grid point after it. */
  writeTo(position: number): void {
    let i = stretchIndexAt(this.schedule, this.written);
    for (let stretch = this.schedule[i]; stretch && this.written < position; stretch = this.schedule[++i]) {
      this.write(stretch, Math.min(position, stretch.to));
    }
  }

  private write(stretch: Stretch, to: number): void {
    const from = Math.max(this.written, stretch.from);
    const value = valueAt(stretch, from);
    if (Number.isNaN(this.held) || from === stretch.from) this.anchor(value, from);
    this.held = isConstant(stretch) ? value : null;
    if (isConstant(stretch)) {
      this.written = to;
    } else if (isSampled(stretch)) {
      this.written = this.writePoints(stretch, from, to);
    } else {
      const end = gainOf(stretch, to);
      if (stretch.gain) this.param.linearRampToValueAtTime(end, this.timeOf(to));
      else this.param.exponentialRampToValueAtTime(end, this.timeOf(to));
      this.written = to;
    }
  }

  /**
   * Sets a value from a position on. The clock counts in seconds, where a sample may fall a hair before its own event and
   * would then still get the old value; so a step is also written a quarter of a sample early.
   */
  private anchor(value: number, position: number): void {
    if (this.held !== null && this.held !== value)
      this.param.setValueAtTime(value, Math.max(0, this.timeOf(position - 0.25)));
    this.param.setValueAtTime(value, this.timeOf(position));
  }

  private writePoints(stretch: Stretch, from: number, to: number): number {
    const grid = gridOf(stretch);
    let point = from;
    while (point < to) {
      point = Math.min(stretch.from + (Math.floor((point - stretch.from) / grid) + 1) * grid, stretch.to);
      this.param.linearRampToValueAtTime(gainOf(stretch, point), this.timeOf(point));
    }
    return point;
  }
}

/** Gain that applies at a position: between grid points on the straight line, as everywhere. */
export function valueAt(stretch: Stretch, position: number): number {
  if (!isSampled(stretch)) return gainOf(stretch, position);
  const grid = gridOf(stretch);
  const left = stretch.from + Math.floor((position - stretch.from) / grid) * grid;
  const right = Math.min(left + grid, stretch.to);
  const first = gainOf(stretch, left);
  return right === left
    ? first
    : first + ((gainOf(stretch, right) - first) * (position - left)) / (right - left);
}
