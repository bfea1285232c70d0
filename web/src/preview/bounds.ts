import type { Keyframe } from "@/api/schema";

/** Some keyframes of a wire, and the part of it that counts, in its own time. */
interface Taken {
  curve: Keyframe[];
  from: number;
  to: number;
  keyframes: Set<number>;
}

/** How far keyframes can go earlier and later together, in samples: up to their neighbours, and to the ends of their wires. */
export function keyframeBounds(taken: Taken[]): [earliest: number, latest: number] {
  let earliest = -Infinity;
  let latest = Infinity;
  for (const { curve, from, to, keyframes } of taken) {
    curve.forEach((k, i) => {
      if (!keyframes.has(k.at)) return;
      const before = curve[i - 1];
      const after = curve[i + 1];
      const low = before && !keyframes.has(before.at) ? before.at + 1 : 0;
      const high = after && !keyframes.has(after.at) ? after.at - 1 : Infinity;
      earliest = Math.max(earliest, Math.max(low, k.at >= from ? from : 0) - k.at);
      latest = Math.min(latest, Math.min(high, k.at <= to ? to : Infinity) - k.at);
    });
  }
  return [Math.min(0, earliest), Math.max(0, latest)];
}
