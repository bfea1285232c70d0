import { describe, expect, it } from "vitest";
import { formatDb } from "@/lib/format";
import { mutedSpans, panAt } from "./lanes";
import { formatPan, parsePan } from "./pan";
import { gainAt, gainOf, stretchIndexAt } from "./schedule";
import { formatTimecode, frameAt, FRAME_RATES, rulerMark, rulerStep, sampleOfFrame } from "./timecode";

describe("levels for people", () => {
  it.each([
    [-6, "−6.0"],
    [1.5, "+1.5"],
    [-0.04, "0.0"],
    ["silence" as const, "silence"],
    [-Infinity, "silence"],
  ])("writes %s as %s", (level, text) => expect(formatDb(level)).toBe(text));
});

describe("pan", () => {
  it.each([
    ["30 left", -0.3],
    ["L30", -0.3],
    ["right 45", 0.45],
    ["−20", -0.2],
    ["0.5", 0.5],
    ["centre", 0],
    ["100%", 1],
    ["120", null],
    ["left 30 right", null],
    ["aside", null],
  ])("typed as %s is %s", (text, pan) => expect(parsePan(text)).toBe(pan));

  it("is told in words", () => {
    expect([-0.3, 0.004, 1].map(formatPan)).toEqual(["30 left", "centre", "100 right"]);
  });

  it("follows the lane of a track, and so does its mute", () => {
    const track = { id: "t", name: "T", stem: "music" as const, fader: 0, pan: 0.2, muted: false };
    const pan = [
      { at: 100, pan: -1 },
      { at: 200, pan: 1 },
    ];
    const mute = [
      { at: 10, muted: true },
      { at: 20, muted: false },
      { at: 50, muted: true },
    ];
    expect(panAt(track, 5)).toBe(0.2);
    expect([0, 150, 300].map((at) => panAt({ ...track, lanes: { pan } }, at))).toEqual([-1, 0, 1]);
    expect(panAt({ ...track, lanes: { pan, off: true } }, 150)).toBe(0.2);
    expect(mutedSpans({ ...track, lanes: { mute } })).toEqual([
      { from: 10, to: 20 },
      { from: 50, to: Infinity },
    ]);
  });
});

describe("timecode", () => {
  // The same frames as in the core's test, SMPTE ST 12-1 [recalled from memory].
  it.each([
    [1800, "00:01:00;02"],
    [17982, "00:10:00;00"],
    [107892, "01:00:00;00"],
  ])("counts drop-frame %i as %s", (frame, text) => {
    expect(formatTimecode(sampleOfFrame(frame, 48000, "29.97df"), 48000, "29.97df")).toBe(text);
  });

  it("puts every frame's first sample into that frame", () => {
    for (const rate of FRAME_RATES) {
      for (let frame = 0; frame < 3000; frame += 7)
        expect(frameAt(sampleOfFrame(frame, 48000, rate), 48000, rate)).toBe(frame);
    }
  });
});

describe("a ruler", () => {
  it.each(FRAME_RATES)(
    "at %s has round timecodes at marks that neither crowd nor are far apart",
    (frameRate) => {
      for (const perPx of [12, 300, 4800, 48000, 400000]) {
        const step = rulerStep(perPx, 48000, frameRate, 96);
        const marks = [1, 2, 3, 40].map((n) => rulerMark(step, n, 48000, frameRate));
        const [first = 0, second = 0] = marks;
        expect((second - first) / perPx).toBeGreaterThanOrEqual(92);
        if (perPx > 300) expect((second - first) / perPx).toBeLessThan(300);
        for (const mark of marks)
          if (step.seconds) expect(formatTimecode(mark, 48000, frameRate)).toMatch(/00$|;02$/);
      }
    },
  );
});

describe("a gain schedule", () => {
  const schedule = [
    { from: 0, to: 100, db: [0, 0] },
    { from: 100, to: 200, db: [0, -20] },
    { from: 200, to: 300, gain: [0.1, -0.1] },
  ];

  it("is straight in dB, or in gain where it says so", () => {
    expect(gainAt(schedule, 50)).toBe(1);
    expect(20 * Math.log10(gainAt(schedule, 150))).toBeCloseTo(-10, 9);
    expect(gainAt(schedule, 250)).toBeCloseTo(0.05, 12);
  });

  it("keeps to its first and last stretch outside", () => {
    expect(stretchIndexAt(schedule, -5)).toBe(0);
    expect(stretchIndexAt(schedule, 999)).toBe(2);
    expect(gainAt(schedule, 999)).toBeCloseTo(0, 12);
  });

  it("bends as a parabola in dB", () => {
    expect(20 * Math.log10(gainOf({ from: 0, to: 100, db: [0, 0, -8] }, 50))).toBeCloseTo(-2, 9);
  });
});
