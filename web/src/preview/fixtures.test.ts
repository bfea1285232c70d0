import { describe, expect, it } from "vitest";
import type { FadeShape, Keyframe, Stretch } from "@/api/schema";
import { keyframeBounds } from "./bounds";
import { levelOn, scheduleOf } from "./curve";
import { dipAdds } from "./dip";
import { fadeGain } from "./fade";
import fixtures from "./fixtures.json";
import { panOn } from "./lanes";
import { lengthOf, parseShownTime } from "./parse";
import { decibelsAt, gainAt, stretchIndexAt } from "./schedule";
import { formatTimecode, frameAt } from "./timecode";

// The fixtures are written by the core: tools/preview-fixtures.php.

const curveOf = (curve: unknown) => curve as Keyframe[];
const heard = (schedule: Stretch[], at: number) => {
  const stretch = schedule[stretchIndexAt(schedule, at)];
  return stretch ? decibelsAt(stretch, at) : NaN;
};

describe.each(fixtures.curves)("a curve: $name", ({ curve, schedule, levels }) => {
  it("has the core's levels", () => {
    for (const [at = 0, db = 0] of levels) expect(levelOn(curveOf(curve), at)).toBeCloseTo(db, 4);
  });

  it("sounds by the core's schedule as the core hears it", () => {
    for (const [at = 0, db = 0] of levels)
      expect(20 * Math.log10(gainAt(schedule as Stretch[], at))).toBeCloseTo(db, 3);
  });

  it("is shown as the core hears it while it is dragged", () => {
    const shown = scheduleOf(curveOf(curve), 0, 0, 70_000);
    for (const [at = 0, db = 0] of levels) expect(Math.abs(heard(shown, at) - db)).toBeLessThan(0.001);
  });
});

it("fades have the core's shapes", () => {
  for (const [shape, from, to, way, gain] of fixtures.fades as [FadeShape, number, number, number, number][])
    expect(fadeGain(shape, from + (to - from) * way)).toBeCloseTo(gain, 9);
});

it.each(fixtures.dips)(
  "a dip of $name is where the core puts it",
  ({ curve, from, to, by, ramp, inside, levels }) => {
    const out = inside ? -ramp : 0;
    const adds = dipAdds(from - out, to + out, ramp, by);
    for (const [at = 0, db = 0] of levels)
      expect(Math.abs(levelOn(curveOf(curve), at) + adds(at) - db), `at ${at}`).toBeLessThan(0.01);
  },
);

it("keyframes go as far as the core lets them", () => {
  for (const { curve, from, to, chosen, earliest, latest } of fixtures.bounds)
    expect(keyframeBounds([{ curve: curveOf(curve), from, to, keyframes: new Set(chosen) }])).toEqual([
      earliest,
      latest,
    ]);
});

it("pan lanes are where the core has them", () => {
  for (const { points, pans } of fixtures.pans)
    for (const [at = 0, pan = 0] of pans) expect(panOn(points, at, 0)).toBeCloseTo(pan, 9);
});

it("moments and lengths are read as the core reads them, at every frame rate", () => {
  for (const [what, text, frameRate, samples] of fixtures.times as [string, string, string, number | null][])
    expect(
      (what === "moment" ? parseShownTime : lengthOf)(text, { rate: 48_000, frameRate }),
      `${what} ${text} at ${frameRate}`,
    ).toBe(samples);
});

it("timecode is counted as the core counts it, at every frame rate", () => {
  for (const [frameRate, sample, frame, text] of fixtures.frames as [string, number, number, string][]) {
    expect(frameAt(sample, 48_000, frameRate), `${sample} at ${frameRate}`).toBe(frame);
    expect(formatTimecode(sample, 48_000, frameRate), `${sample} at ${frameRate}`).toBe(text);
  }
});
