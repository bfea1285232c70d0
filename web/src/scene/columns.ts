import type { SoundGain } from "./soundGain";
import type { Measuring } from "./measuring";

/** Sound as it is drawn: for each column the highest sample and the average after all gains, and the highest before them; full scale 1.0. */
export interface Columns {
  peak: Float32Array;
  average: Float32Array;
  before: Float32Array;
  /** 1 where the recording itself is clipped, 2 where what comes out passes the ceiling, 3 both. */
  over: Uint8Array;
}

interface Stretch {
  /** Source sample at which the first column begins, and samples of each; both may be fractions. */
  from: number;
  perColumn: number;
  count: number;
  /** What of the source is heard, [from, to). */
  heard: { from: number; to: number };
  ceiling: number;
}

/** Parts that a column is taken apart in where its gain turns within it: a silenced cough is seen on a view of an hour. */
const PARTS = 16;

/** Samples before the end of a column at which its last gain is asked for: what begins there is not in it any more. */
const JUST_BEFORE = 0.01;

/**
 * @param coarse measures whole columns
 * @param fine measures parts of them
 */
export function columnsOf(stretch: Stretch, gain: SoundGain, coarse: Measuring, fine: Measuring): Columns {
  const { from, perColumn, count, heard, ceiling } = stretch;
  const columns: Columns = {
    peak: new Float32Array(count),
    average: new Float32Array(count),
    before: new Float32Array(count),
    over: new Uint8Array(count),
  };
  const found = { peak: 0, power: 0, before: 0, clipped: false };
  let smooth = -Infinity;
  let steady = -Infinity;
  let last = 0;
  for (let i = 0; i < count; i++) {
    const start = Math.max(heard.from, from + i * perColumn);
    const end = Math.min(heard.to, from + (i + 1) * perColumn);
    if (end <= start) continue;
    if (end > smooth) {
      smooth = gain.smoothUntil(start);
      steady = gain.steadyUntil(start);
      last = gain.at(start);
    }
    if (end <= smooth) {
      const next = end <= steady ? last : gain.at(end - JUST_BEFORE);
      const { peak, power, clipped } = coarse(start, end);
      found.peak = peak * Math.max(last, next);
      found.power = (power * (last * last + last * next + next * next)) / 3;
      found.before = peak;
      found.clipped = clipped;
      last = next;
    } else {
      takeApart(found, start, end, gain, fine);
    }
    columns.peak[i] = found.peak;
    columns.average[i] = Math.min(found.peak, Math.sqrt(found.power));
    columns.before[i] = found.before;
    columns.over[i] = (found.clipped ? 1 : 0) | (found.peak > ceiling ? 2 : 0);
  }
  return columns;
}

interface Found {
  peak: number;
  power: number;
  before: number;
  clipped: boolean;
}

/** Fills in what a column holds in which the gain turns. */
function takeApart(found: Found, start: number, end: number, gain: SoundGain, fine: Measuring): void {
  let [peak, power, before, clipped] = [0, 0, 0, false];
  const parts = Math.min(PARTS, Math.max(1, Math.floor(end - start)));
  const step = (end - start) / parts;
  for (let n = 0; n < parts; n++) {
    const part = fine(start + n * step, start + (n + 1) * step);
    const here = gain.at(start + (n + 0.5) * step);
    peak = Math.max(peak, part.peak * here);
    power += (part.power * here * here) / parts;
    before = Math.max(before, part.peak);
    clipped ||= part.clipped;
  }
  found.peak = peak;
  found.power = power;
  found.before = before;
  found.clipped = clipped;
}
