import { describe, expect, it } from "vitest";
import type { Clip } from "@/api/schema";
import { unlinkedGain } from "@/lib/format";
import { rampsFor, type RangeSettings, whyUnheard } from "@/store/screen";
import { opened, SECOND, storeOf } from "@/test/mixes";
import { layOut, snapDb, yOfDb } from "./geometry";
import { heardLevelAt, storedLevelAt } from "./levels";

const voice = (part: Partial<Clip> = {}): Clip => ({
  ...(opened().mix.clips.find((c) => c.id === "voice") as Clip),
  ...part,
});

describe("the level of a clip at a moment", () => {
  it("has its fades", () => {
    const faded = voice({
      fades: [
        { length: 2 * SECOND, shape: "linear" },
        { length: 0, shape: "linear" },
      ],
    });
    expect(storedLevelAt(faded, 3 * SECOND)).toBe(-3);
    expect(heardLevelAt(faded, 3 * SECOND)).toBeCloseTo(-3 - 6.02, 2);
    expect(heardLevelAt(faded, 5 * SECOND)).toBe(-3);
    expect(heardLevelAt(faded, 2 * SECOND)).toBe(-Infinity);
  });

  it("knows the gains of channels that are set apart", () => {
    expect(unlinkedGain({ gain: -6, right: 2 })).toBe(2);
    expect(unlinkedGain({ gain: -6 })).toBe(0);
  });
});

describe("a dragged level", () => {
  it("comes to rest on 0 dB and on the levels beside it, when it is near", () => {
    const lane = layOut(storeOf().getState().tracks, 600).lanes[0];
    if (!lane) throw new Error("no lane");
    expect(snapDb(lane, 0.3, [0, -11])).toBe(0);
    expect(snapDb(lane, -10.7, [0, -11])).toBe(-11);
    expect(snapDb(lane, -6, [0, -11])).toBe(-6);
    expect(Math.abs(yOfDb(lane, 0.3) - yOfDb(lane, 0))).toBeLessThan(4);
  });
});

describe("ramps that nobody chose", () => {
  const settings: RangeSettings = { ramp: 19200, rampChosen: false, inside: null, by: -11, ceiling: -6 };

  it("lie outside a dip, inside a lift, and are short around a silenced word", () => {
    expect(rampsFor(settings, -11)).toEqual({ ramp: 19200, inside: false });
    expect(rampsFor(settings, 12)).toEqual({ ramp: 19200, inside: true });
    expect(rampsFor(settings, "silence")).toEqual({ ramp: 1440, inside: false });
  });

  it("give way to those that were chosen", () => {
    const chosen = { ...settings, rampChosen: true, inside: false };
    expect(rampsFor(chosen, 12)).toEqual({ ramp: 19200, inside: false });
    expect(rampsFor(chosen, "silence")).toEqual({ ramp: 19200, inside: false });
  });
});

describe("why a track is not heard", () => {
  it("is told by what stands in the way", () => {
    const state = storeOf().getState();
    const [speech, music] = state.tracks;
    if (!speech || !music) throw new Error("no tracks");
    expect(whyUnheard(state, music)).toBeNull();
    expect(whyUnheard(state, { ...music, muted: true })).toContain("is muted");
    expect(whyUnheard({ ...state, solo: [speech.id] }, music)).toContain("others are heard alone");
    expect(whyUnheard({ ...state, listening: "speech" }, music)).toContain("only speech is heard");
    expect(whyUnheard({ ...state, listening: "speech" }, speech)).toBeNull();
  });
});
