import { describe, expect, it, vi } from "vitest";
import { Frames } from "./frames";
import { Outlines } from "./outlines";
import { Samples } from "./samples";
import { byOutline } from "./byOutline";
import { bySamples } from "./bySamples";
import type { Sounds } from "./sounds";
import { scaleMarks, soundHeight } from "./soundHeight";
import { segmentOf } from "./wave";

const RATE = 48_000;

/** A WAV file as the server cuts them, of so many bits, with these samples, full scale 1. */
function wav(channels: number, bits: 16 | 24, samples: number[]): ArrayBuffer {
  const view = new DataView(new ArrayBuffer(44 + (samples.length * bits) / 8));
  view.setUint16(22, channels, true);
  view.setUint16(34, bits, true);
  samples.forEach((sample, i) => {
    const value = Math.round(sample * 2 ** (bits - 1));
    if (bits === 16) view.setInt16(44 + 2 * i, value, true);
    else {
      view.setUint8(44 + 3 * i, value & 255);
      view.setInt16(45 + 3 * i, value >> 8, true);
    }
  });
  return view.buffer;
}

function soundsWith(points: Uint16Array, averages: Uint16Array, segments: ArrayBuffer[] = []): Sounds {
  const outlines = new Outlines(
    async () => points,
    async () => averages,
    () => undefined,
  );
  const samples = new Samples(
    RATE,
    async (_, number) => segments[number] ?? Promise.reject(new Error("none")),
    () => undefined,
  );
  const frames = new Frames(
    async () => [],
    () => undefined,
  );
  return { outlines, samples, frames, version: (id) => outlines.version(id) + samples.version(id) };
}

describe("the frames of a film", () => {
  it("are asked for again until they are made, and then kept", async () => {
    vi.useFakeTimers();
    let made = false;
    const [ask, arrived] = [vi.fn(async () => (made ? [48_000] : null)), vi.fn()];
    const frames = new Frames(ask, arrived);
    expect(frames.cuts("film")).toEqual([]);
    expect(frames.at("film", 3, [0, 10])).toBeNull();
    await vi.advanceTimersByTimeAsync(3000);
    expect(ask).toHaveBeenCalledTimes(1);
    await vi.advanceTimersByTimeAsync(2000);
    made = true;
    frames.cuts("film");
    await vi.advanceTimersByTimeAsync(10);
    expect(frames.cuts("film")).toEqual([48_000]);
    await vi.advanceTimersByTimeAsync(60_000);
    expect(ask).toHaveBeenCalledTimes(2);
    expect(arrived).toHaveBeenCalled();
    vi.useRealTimers();
  });
});

const settled = () => new Promise((resolve) => setTimeout(resolve));

describe("heights of sound", () => {
  it("have a dB for as many pixels everywhere, or follow the samples", () => {
    const step = (db: number) => soundHeight(10 ** (db / 20), "decibels");
    expect(step(0) - step(-12)).toBeCloseTo(step(-12) - step(-24), 3);
    expect(soundHeight(0.5, "linear")).toBeCloseTo(soundHeight(1, "linear") / 2, 3);
    for (const scale of ["decibels", "linear"] as const) {
      expect(soundHeight(0, scale)).toBe(0);
      expect(soundHeight(4, scale)).toBeGreaterThan(soundHeight(1, scale));
      expect(soundHeight(4, scale)).toBeLessThanOrEqual(1);
      for (const { db, height } of scaleMarks(scale))
        expect(height).toBeCloseTo(soundHeight(10 ** (db / 20), scale), 9);
    }
  });
});

describe("what is drawn of a recording", () => {
  it("is its outline: the highest peak and the mean of the powers", async () => {
    const sounds = soundsWith(Uint16Array.from([100, 32768, 200, 300]), Uint16Array.from([0, 16384]));
    expect(byOutline(sounds, "s", 960, RATE)).toBeNull();
    await settled();
    const measure = byOutline(sounds, "s", 960, RATE);
    expect(measure?.(0, 1920)).toMatchObject({ peak: 1, power: 0.125, clipped: true });
    expect(measure?.(1920, 3840)).toMatchObject({ peak: 300 / 32768, clipped: false });
    expect(sounds.version("s")).toBeGreaterThan(0);
  });

  it("is the samples themselves from near, across the seam of two segments, channel by channel", async () => {
    const first = Array.from({ length: 2 * 2 * RATE }, (_, i) => (i === 4 * RATE - 2 ? 0.5 : 0));
    const sounds = soundsWith(new Uint16Array(), new Uint16Array(), [
      wav(2, 16, first),
      wav(2, 16, [0, -0.75, 0, 0]),
    ]);
    const near = (side?: "left" | "right") =>
      bySamples(sounds, "s", 2 * RATE - 10, 2 * RATE + 2, side)?.(2 * RATE - 10, 2 * RATE + 2).peak;
    expect(near()).toBeUndefined();
    await settled();
    expect([near(), near("left"), near("right")]).toEqual([0.75, 0.5, 0.75]);
  });

  it("reads 16 and 24 bits, one and two channels", () => {
    expect(segmentOf(wav(2, 16, [0.5, -1, 0.25, 0]))).toEqual([
      Float32Array.of(0.5, 0.25),
      Float32Array.of(-1, 0),
    ]);
    const [mono] = segmentOf(wav(1, 24, [0.5, -1, -1 / 2 ** 23]));
    expect([...(mono ?? [])]).toEqual([0.5, -1, -1 / 2 ** 23]);
  });
});
