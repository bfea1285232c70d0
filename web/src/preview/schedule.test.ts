import { describe, expect, it } from "vitest";
import { fadeGain } from "./fade";
import { decibelsAt, gainOf, isConstant } from "./schedule";

describe("a schedule", () => {
  it("knows the shapes of fades as the core does", () => {
    // Values of the core's FadeShape at a quarter of the way.
    expect(fadeGain("linear", 0.25)).toBe(0.25);
    expect(fadeGain("equal-power", 0.25)).toBeCloseTo(Math.sin(Math.PI / 8), 12);
    expect(fadeGain("s", 0.25)).toBeCloseTo(0.14644661, 8);
    expect(20 * Math.log10(fadeGain("exponential", 0.5) * 0.999 + 0.001)).toBeCloseTo(-30, 9);
    for (const shape of ["linear", "equal-power", "s", "exponential"] as const) {
      expect(fadeGain(shape, 0)).toBeCloseTo(0, 9);
      expect(fadeGain(shape, 1)).toBeCloseTo(1, 9);
    }
  });

  it("multiplies its factors: fades within their window, and the levels of a channel", () => {
    const stretch = {
      from: 100,
      to: 200,
      db: [-20, 0],
      grid: 48,
      factors: [
        { from: 100, to: 200, fade: "linear" as const, falling: true, window: [0, 0.5] },
        { from: 100, to: 200, gain: [1, -0.5] },
      ],
    };
    expect(gainOf(stretch, 100)).toBeCloseTo(0.1 * 0.5, 12);
    expect(gainOf(stretch, 150)).toBeCloseTo(0.1 * 0.25 * 0.75, 12);
    expect(gainOf(stretch, 200)).toBeCloseTo(0, 12);
    expect(decibelsAt(stretch, 150)).toBe(-20);
    expect(isConstant(stretch)).toBe(false);
  });
});
