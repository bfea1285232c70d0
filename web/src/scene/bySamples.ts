import type { Side } from "@/api/schema";
import { CLIPPED, type Measuring } from "./measuring";
import type { Samples } from "./samples";
import type { Sounds } from "./sounds";

/** By the samples themselves; null until those of the whole stretch have come. */
export function bySamples(
  { samples }: Sounds,
  source: string,
  from: number,
  to: number,
  side?: Side,
): Measuring | null {
  const pieces = piecesOf(samples, source, from, to);
  if (!pieces) return null;
  const found = { peak: 0, power: 0, clipped: false };
  return (start, end) => {
    found.peak = 0;
    found.power = 0;
    for (let sample = Math.floor(start), last = Math.max(sample + 1, Math.floor(end)); sample < last;) {
      const piece = pieces.find((p) => sample >= p.from && sample < p.to);
      if (!piece) break;
      const until = Math.min(last, piece.to);
      for (const channel of piece.channels(side)) {
        let power = 0;
        for (let i = sample - piece.from; i < until - piece.from; i++) {
          const value = channel[i] ?? 0;
          const size = value < 0 ? -value : value;
          if (size > found.peak) found.peak = size;
          power += value * value;
        }
        found.power = Math.max(found.power, power / (until - sample));
      }
      sample = until;
    }
    found.clipped = found.peak >= CLIPPED;
    return found;
  };
}

interface Piece {
  from: number;
  to: number;
  channels: (side?: Side) => Float32Array[];
}

/** The segments under a stretch of a recording; null until all have come. */
export function piecesOf(samples: Samples, source: string, from: number, to: number): Piece[] | null {
  const pieces: Piece[] = [];
  let whole = true;
  for (let sample = Math.max(0, Math.floor(from)); sample < to;) {
    const found = samples.around(source, sample);
    if (!found) {
      // The others are asked for all the same.
      whole = false;
      sample = samples.after(sample);
      continue;
    }
    const { segment, from: begin } = found;
    const end = begin + (segment[0]?.length ?? 0);
    const channels = (side?: Side) =>
      side && segment.length === 2
        ? segment.slice(side === "left" ? 0 : 1, side === "left" ? 1 : 2)
        : segment;
    pieces.push({ from: begin, to: end, channels });
    if (end <= sample) break; // the end of the recording
    sample = samples.after(sample);
  }
  return whole ? pieces : null;
}
