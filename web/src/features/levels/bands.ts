/** What lies between two edges: the middle, and where eight of ten values are. dB. */
export interface Band {
  low: number;
  middle: number;
  high: number;
}

/**
 * The band of the values from one place to another; null where there are none.
 *
 * @param left part of the values, 0…1, that lies outside on either side
 */
export function bandOf(levels: (number | null)[], from: number, to: number, left = 0.1): Band | null {
  const sorted = levels
    .slice(Math.max(0, from), Math.max(0, to))
    .filter((level) => level !== null)
    .sort((a, b) => a - b);
  if (sorted.length === 0) return null;
  const at = (part: number) => sorted[Math.round(part * (sorted.length - 1))] ?? 0;
  return { low: at(left), middle: at(0.5), high: at(1 - left) };
}

/** dBFS that show all of some levels but single ones, with room around them: at least 24 dB. */
export function rangeOf(levels: (number | null)[]): [number, number] {
  const band = bandOf(levels, 0, levels.length, 0.01) ?? { low: -40, middle: -28, high: -16 };
  const high = Math.min(0, 6 * Math.ceil((band.high + 2) / 6));
  return [Math.min(high - 24, 6 * Math.floor((band.low - 2) / 6)), high];
}
