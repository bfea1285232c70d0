import { describe, expect, it } from "vitest";
import { bandOf, rangeOf } from "./bands";

describe("a band", () => {
  it("holds eight of ten values, whatever the outermost are, and skips what is silent", () => {
    const levels = [null, -60, -24, -23, -22, -21, -20, -19, -18, -17, null, -2];
    expect(bandOf(levels, 0, levels.length)).toEqual({ low: -24, middle: -20, high: -17 });
    expect(bandOf(levels, 0, 1)).toBeNull();
    expect(bandOf(levels, -5, 2)).toEqual({ low: -60, middle: -60, high: -60 });
  });

  it("is shown with room around it, on whole steps of the scale", () => {
    expect(rangeOf(Array.from({ length: 20 }, (_, i) => -30 + i))).toEqual([-36, -6]);
    expect(rangeOf([-20])).toEqual([-42, -18]);
    expect(rangeOf([null])).toEqual([-42, -12]);
  });
});
