import type { Stretch } from "@/api/schema";
import { decibelsAt, stretchIndexAt } from "@/preview/schedule";

/** The lowest level that counts for an average, dB: silence would hide all else. */
const LEAST = -60;

export interface LaneBands {
  low: Float32Array;
  high: Float32Array;
  /** Average over time. */
  middle: Float32Array;
}

/** Whether changes of a lane stand closer than so many columns on average: then its line is a thicket, and a band says more. */
export function isDense(schedule: Stretch[], from: number, to: number, columns: number): boolean {
  return stretchIndexAt(schedule, to) - stretchIndexAt(schedule, from) > columns / 6;
}

/**
 * What a lane does over windows around each column of a view: its lowest and highest level, dB, and its average. Goes once through what is
 * in view, however much that is.
 *
 * @param from sample of the first column
 * @param wide columns on either side that a window takes in
 */
export function bandsOf(
  schedule: Stretch[],
  from: number,
  perColumn: number,
  columns: number,
  wide: number,
): LaneBands {
  const count = columns + 2 * wide;
  const start = from - wide * perColumn;
  const low = new Float32Array(count).fill(Infinity);
  const high = new Float32Array(count).fill(-Infinity);
  const sum = new Float64Array(count);
  const time = new Float64Array(count);
  for (let i = stretchIndexAt(schedule, start); i < schedule.length; i++) {
    const stretch = schedule[i];
    if (!stretch || stretch.from >= start + count * perColumn) break;
    const first = Math.max(0, Math.floor((stretch.from - start) / perColumn));
    for (let c = first; c < count && start + c * perColumn < stretch.to; c++) {
      const begin = Math.max(stretch.from, start + c * perColumn);
      const end = Math.min(stretch.to, start + (c + 1) * perColumn);
      const [a, b] = [begin, end].map((at) => Math.max(LEAST, decibelsAt(stretch, at))) as [number, number];
      low[c] = Math.min(low[c] ?? 0, a, b);
      high[c] = Math.max(high[c] ?? 0, a, b);
      sum[c] = (sum[c] ?? 0) + ((a + b) / 2) * (end - begin);
      time[c] = (time[c] ?? 0) + (end - begin);
    }
  }
  const bands = {
    low: new Float32Array(columns),
    high: new Float32Array(columns),
    middle: new Float32Array(columns),
  };
  for (let column = 0; column < columns; column++) {
    let [lowest, highest, total, lasted] = [Infinity, -Infinity, 0, 0];
    for (let c = column; c <= column + 2 * wide; c++) {
      lowest = Math.min(lowest, low[c] ?? Infinity);
      highest = Math.max(highest, high[c] ?? -Infinity);
      total += sum[c] ?? 0;
      lasted += time[c] ?? 0;
    }
    bands.low[column] = Number.isFinite(lowest) ? lowest : 0;
    bands.high[column] = Number.isFinite(highest) ? highest : 0;
    bands.middle[column] = lasted > 0 ? total / lasted : 0;
  }
  return bands;
}
