import type { Fade, FadeShape } from "@/api/schema";

/** Gain of a fade at x along its way, 0…1; the same shapes as in the core. */
export function fadeGain(shape: FadeShape, x: number): number {
  switch (shape) {
    case "linear":
      return x;
    case "equal-power":
      return Math.sin((x * Math.PI) / 2);
    case "s":
      return 0.5 - 0.5 * Math.cos(x * Math.PI);
    case "exponential":
      return (Math.exp(6.907755278982137 * (x - 1)) - 0.001) / 0.999;
  }
}

/** Gain of a fade so many samples from its silent end. */
export function fadeAt(fade: Fade | undefined, samples: number): number {
  if (!fade || fade.length === 0 || samples >= fade.length) return 1;
  const { windowFrom = 0, windowTo = 1 } = fade;
  return fadeGain(fade.shape, windowFrom + ((windowTo - windowFrom) * Math.max(0, samples)) / fade.length);
}
