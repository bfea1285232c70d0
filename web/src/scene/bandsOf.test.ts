import { describe, expect, it } from "vitest";
import type { Stretch } from "@/api/schema";
import { bandsOf, isDense } from "./bandsOf";

const SECOND = 48000;

/** Down by 12 dB every other second, an hour long. */
const ducked: Stretch[] = Array.from({ length: 3600 }, (_, i) => ({
  from: i * SECOND,
  to: (i + 1) * SECOND,
  db: [i % 2 ? -12 : 0, 0],
}));

describe("a lane that moves more often than can be drawn", () => {
  it("is told from one that does not", () => {
    expect(isDense(ducked, 0, 3600 * SECOND, 800)).toBe(true);
    expect(isDense(ducked, 0, 60 * SECOND, 800)).toBe(false);
    expect(isDense([], 0, SECOND, 800)).toBe(false);
  });

  it("is a band between how low and how high it goes, with its average over time", () => {
    const { low, high, middle } = bandsOf(ducked, 0, 4 * SECOND, 900, 4);
    expect([low[450], high[450]]).toEqual([-12, 0]);
    expect(middle[450]).toBeCloseTo(-6, 5);
    // At the ends only what is there counts.
    expect(middle[0]).toBeCloseTo(-6, 5);
    expect(bandsOf(ducked, 0, 4 * SECOND, 2000, 4).low[1500]).toBe(0);
  });

  it("follows ramps, and takes silence for what hides nothing", () => {
    const ramp: Stretch[] = [
      { from: 0, to: SECOND, db: [0, -20] },
      { from: SECOND, to: 2 * SECOND, gain: [0, 0] },
    ];
    const { low, middle } = bandsOf(ramp, 0, SECOND, 2, 0);
    expect(low[0]).toBeCloseTo(-20, 5);
    expect(middle[0]).toBeCloseTo(-10, 5);
    expect(low[1]).toBe(-60);
  });
});
