import { describe, expect, it } from "vitest";
import type { Clip, Stretch } from "@/api/schema";
import { SECOND, storeOf } from "@/test/mixes";
import { columnsOf } from "./columns";
import { layOut } from "./geometry";
import { buildScene, type DrawnClip } from "./scene";
import type { Measuring } from "./measuring";
import { SoundGain } from "./soundGain";

/** The bed of the usual mix, 10 s, with other things about it. */
function bed(change: Partial<Clip> = {}, rows: DrawnClip["rows"] = []): DrawnClip {
  const state = storeOf().getState();
  const scene = buildScene(state, layOut(state.tracks, 600), { start: 0, perPx: SECOND / 80 }, 800, null);
  const drawn = scene.clips.find((d) => d.clip.id === "bed");
  if (!drawn) throw new Error("no bed");
  return { ...drawn, clip: { ...drawn.clip, ...change }, rows, levelDb: 0 };
}

const schedule = (...stretches: [from: number, to: number, db: number][]): Stretch[] =>
  stretches.map(([from, to, db]) => ({ from: from * SECOND, to: to * SECOND, db: [db, 0] }));

const withLevels = (stretches: Stretch[]) => {
  const drawn = bed();
  const [own] = drawn.wires;
  if (!own) throw new Error("no wire");
  return { ...drawn, wires: [{ ...own, schedule: stretches }] };
};

/** A murmur with a cough from 4.5 to 4.9 s. */
const cough: Measuring = (from, to) => {
  const loud = to > 4.5 * SECOND && from < 4.9 * SECOND;
  return { peak: loud ? 0.9 : 0.1, power: loud ? 0.09 : 0.002, clipped: false };
};

const columns = (drawn: DrawnClip, count: number, measure: Measuring = cough, ceiling = 0.95) =>
  columnsOf(
    { from: 0, perColumn: (10 * SECOND) / count, count, heard: { from: 0, to: 10 * SECOND }, ceiling },
    SoundGain.of(drawn),
    measure,
    measure,
  );

describe("the columns of a drawn sound", () => {
  it("show a silenced cough as silenced, however many seconds a column takes", () => {
    const silenced = withLevels([
      ...schedule([0, 4.4, 0]),
      { from: 4.4 * SECOND, to: 5 * SECOND, gain: [0, 0] },
      ...schedule([5, 10, 0]),
    ]);
    for (const count of [4, 40, 400]) {
      const { peak, before } = columns(silenced, count);
      expect(Math.max(...peak)).toBeCloseTo(0.1, 5);
      expect(Math.max(...before)).toBeCloseTo(0.9, 5);
    }
  });

  it("show a notch in the average, by as much as it takes of the column", () => {
    const notched = withLevels(schedule([0, 2, 0], [2, 3, -18], [3, 10, 0]));
    const even: Measuring = () => ({ peak: 0.5, power: 0.04, clipped: false });
    const [whole] = columns(notched, 1, even).average;
    expect(whole).toBeCloseTo(Math.sqrt(0.04 * (0.9 + 0.1 * 10 ** -1.8)), 2);
    const fine = columns(notched, 100, even);
    expect(fine.average[15]).toBeCloseTo(0.2, 5);
    expect(fine.average[25]).toBeCloseTo(0.2 * 10 ** -0.9, 5);
    expect(fine.before[25]).toBeCloseTo(0.5, 5);
  });

  it("mark what passes the ceiling after the gains, and what is clipped before them", () => {
    const lifted = withLevels(schedule([0, 10, 3]));
    const marked = columns(lifted, 100);
    expect(marked.over[47]).toBe(2);
    expect(marked.over[20]).toBe(0);
    const clipped: Measuring = () => ({ peak: 1, power: 0.5, clipped: true });
    expect(columns(withLevels(schedule([0, 10, -6])), 2, clipped).over[0]).toBe(1);
  });

  it("go along a ramp as exactly as if it were taken apart", () => {
    const even: Measuring = () => ({ peak: 0.5, power: 0.25, clipped: false });
    const ramped = withLevels([{ from: 0, to: 10 * SECOND, db: [0, -40] }]);
    const { peak, average } = columns(ramped, 100, even);
    for (let i = 0; i < 100; i++) {
      expect(20 * Math.log10((peak[i] ?? 0) / 0.5)).toBeCloseTo(-0.4 * i, 3);
      expect(20 * Math.log10((average[i] ?? 0) / 0.5)).toBeCloseTo(-0.4 * (i + 0.5), 1);
    }
  });

  it("follow fades, lanes of the track and what a drag adds", () => {
    const even: Measuring = () => ({ peak: 0.5, power: 0.25, clipped: false });
    const faded = bed({
      fades: [
        { length: 2 * SECOND, shape: "linear" },
        { length: 0, shape: "linear" },
      ],
    });
    expect(columns(faded, 100, even).peak[10]).toBeCloseTo(0.275, 3);
    const ducked = bed({}, [{ schedule: schedule([0, 5, 0], [5, 10, -6]), shift: 0 }]);
    expect(columns(ducked, 100, even).peak[60]).toBeCloseTo(0.5 * 10 ** -0.3, 5);
    const dragged = { ...bed(), extra: (at: number) => (at > 5 * SECOND ? -6 : 0) };
    expect(columns(dragged, 100, even).peak[60]).toBeCloseTo(0.5 * 10 ** -0.3, 5);
  });
});

describe("the gain of a clip", () => {
  it("knows where it turns next", () => {
    const ramp: Stretch = { from: 4 * SECOND, to: 6 * SECOND, db: [0, -6] };
    const gain = SoundGain.of(withLevels([...schedule([0, 4, 0]), ramp, ...schedule([6, 10, -6])]));
    expect([1, 4.5, 7].map((at) => gain.smoothUntil(at * SECOND) / SECOND)).toEqual([4, 6, 10]);
    const faded = SoundGain.of(
      bed({
        fades: [
          { length: SECOND, shape: "linear" },
          { length: 2 * SECOND, shape: "linear" },
        ],
        curve: [],
      }),
    );
    expect([0.5, 2, 19].map((at) => faded.smoothUntil(at * SECOND) / SECOND)).toEqual([1, 7, 20]);
  });

  it("knows how far it stays the same", () => {
    const gain = SoundGain.of(withLevels(schedule([0, 4, 0], [4, 10, -6])));
    expect(gain.steadyUntil(0)).toBe(4 * SECOND);
    expect(gain.steadyUntil(5 * SECOND)).toBe(10 * SECOND);
    const ramp: Stretch = { from: 4 * SECOND, to: 6 * SECOND, db: [0, -6] };
    const moving = SoundGain.of(withLevels([...schedule([0, 4, 0]), ramp, ...schedule([6, 10, -6])]));
    expect(moving.steadyUntil(5 * SECOND)).toBe(5 * SECOND);
    const faded = SoundGain.of(
      bed({
        fades: [
          { length: SECOND, shape: "linear" },
          { length: SECOND, shape: "linear" },
        ],
      }),
    );
    expect(faded.steadyUntil(SECOND / 2)).toBe(SECOND / 2);
    expect(faded.steadyUntil(2 * SECOND)).toBe(7 * SECOND);
  });

  it("is silent for a muted channel", () => {
    const drawn = bed();
    const channels = {
      left: { gain: 0, curve: [], muted: true },
      right: { gain: 0, curve: [], muted: false },
    };
    const clip = { ...drawn.clip, channels } as unknown as Clip;
    expect(SoundGain.of({ ...drawn, clip }, "left").at(SECOND)).toBe(0);
    expect(SoundGain.of({ ...drawn, clip }, "right").at(SECOND)).toBeGreaterThan(0);
  });
});
