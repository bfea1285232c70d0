import type { Side } from "@/api/schema";
import { CLIPPED, type Measuring } from "./measuring";
import type { Sounds } from "./sounds";

/** By outlines that have about one point in so many samples; null until one has come. */
export function byOutline(
  { outlines }: Pick<Sounds, "outlines">,
  source: string,
  samples: number,
  rate: number,
  side?: Side,
): Measuring | null {
  const ms = (1000 * samples) / rate;
  const peaks = outlines.get(source, ms, side);
  const averages = outlines.average(source, ms, side);
  if (!peaks) return null;
  const found = { peak: 0, power: 0, clipped: false };
  const perPeak = (peaks.msPerPoint * rate) / 1000;
  const perAverage = averages ? (averages.msPerPoint * rate) / 1000 : 1;
  return (from, to) => {
    let peak = 0;
    for (
      let i = Math.max(0, Math.floor(from / perPeak)), end = Math.max(i + 1, Math.round(to / perPeak));
      i < end;
      i++
    )
      peak = Math.max(peak, peaks.points[i] ?? 0);
    let power = 0;
    if (averages) {
      const first = Math.max(0, Math.floor(from / perAverage));
      const end = Math.max(first + 1, Math.round(to / perAverage));
      for (let i = first; i < end; i++) power += ((averages.points[i] ?? 0) / 32768) ** 2;
      power /= end - first;
    }
    found.peak = peak / 32768;
    found.power = power;
    found.clipped = found.peak >= CLIPPED;
    return found;
  };
}
