import { CORE } from "./constants";
import { ease } from "./ease";

/** dB that a range may be lifted or dipped by: what asks for more gets as much. */
export function withinDip(by: number): number {
  const [deepest, highest] = CORE.dip;
  return Math.max(deepest, Math.min(highest, by));
}

/**
 * What a dip adds along a wire: nothing, down the S of a ramp, all of it, up again. Exact where the wire under its ramps is straight.
 *
 * @param from where it is down by all of it, as to; the ramps lie around that
 * @param ramp samples
 * @param by dB
 */
export function dipAdds(from: number, to: number, ramp: number, by: number): (position: number) => number {
  return (position) => {
    if (ramp <= 0) return position >= from && position < to ? by : 0;
    const into = Math.min(1, Math.max(0, (position - from + ramp) / ramp));
    const out = Math.min(1, Math.max(0, (to + ramp - position) / ramp));
    return by * ease(Math.min(into, out));
  };
}
