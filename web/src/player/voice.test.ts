import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Filters } from "@/api/schema";
import { opened, SECOND } from "@/test/mixes";
import { Segments } from "./segments";
import { positionAt, timeAt, Voice } from "./voice";

/** As much of an audio graph as a voice touches; notes every start. */
class FakeParam {
  setValueAtTime = () => this;
  linearRampToValueAtTime = () => this;
  exponentialRampToValueAtTime = () => this;
}
class FakeNode {
  gain = new FakeParam();
  connect = (next: unknown) => next;
  disconnect = () => undefined;
}
const starts: { when: number; offset: number; duration: number }[] = [];
class FakeSource extends FakeNode {
  onended: (() => void) | null = null;
  start = (when: number, offset: number, duration: number) => starts.push({ when, offset, duration });
  stop = () => undefined;
}

class FakeContext {
  currentTime = 0;
  decodeAudioData = () => Promise.resolve({ sampleRate: SECOND } as AudioBuffer);
}

beforeEach(() => {
  starts.length = 0;
  vi.stubGlobal("GainNode", FakeNode);
  vi.stubGlobal("AudioBufferSourceNode", FakeSource);
  vi.stubGlobal("BiquadFilterNode", FakeNode);
});
afterEach(() => vi.unstubAllGlobals());

const voiceClip = () => {
  const clip = opened().mix.clips[0];
  if (!clip) throw new Error("no clip");
  return clip;
};

async function voice(
  from: number,
  fetchSegment = () => Promise.resolve(new ArrayBuffer(8)),
  filters: Filters = [],
) {
  const context = new FakeContext() as unknown as AudioContext & FakeContext;
  const segments = new Segments(context, fetchSegment);
  const clip = { ...voiceClip(), filters };
  for (let n = 0; n < 4; n++) await segments.load(clip.source, n);
  const anchor = { start: 1, from, rate: SECOND };
  return {
    voice: new Voice(clip, context, anchor, segments, new FakeNode() as unknown as AudioNode, from),
    context,
  };
}

describe("a voice", () => {
  it("plays its part of the source, segment after segment, without gap or overlap", async () => {
    const { voice: v } = await voice(0);
    v.schedule(20 * SECOND);
    // In from second 1 for 6 seconds, at second 2; segments are two seconds long.
    expect(starts.map((s) => [s.when, s.offset, s.duration])).toEqual([
      [3, 1, 1],
      [4, 0, 2],
      [6, 0, 2],
      [8, 0, 1],
    ]);
    expect(v.late).toBe(0);
  });

  it("begins in the middle when played from there", async () => {
    const { voice: v } = await voice(4.5 * SECOND);
    v.schedule(20 * SECOND);
    expect(starts[0]).toEqual({ when: 1, offset: 1.5, duration: 0.5 });
  });

  it("starts no more than it is asked for, and goes on from there", async () => {
    const { voice: v } = await voice(0);
    v.schedule(2.5 * SECOND);
    expect(starts).toHaveLength(1);
    v.schedule(3.5 * SECOND);
    expect(starts).toHaveLength(2);
    v.schedule(3.5 * SECOND);
    expect(starts).toHaveLength(2);
  });

  it("counts a segment that comes too late, and goes on after it", async () => {
    const { voice: v, context } = await voice(0);
    context.currentTime = 3.25;
    v.schedule(20 * SECOND);
    expect(v.late).toBe(1);
    expect(starts[0]).toEqual({ when: 3.25, offset: 1.25, duration: 0.75 });
    expect(starts[1]?.when).toBe(4);
  });

  it("waits for a segment that is not there yet", async () => {
    const context = new FakeContext() as unknown as AudioContext;
    const segments = new Segments(context, () => new Promise(() => undefined));
    const v = new Voice(
      voiceClip(),
      context,
      { start: 1, from: 0, rate: SECOND },
      segments,
      new FakeNode() as unknown as AudioNode,
      0,
    );
    v.schedule(20 * SECOND);
    expect(starts).toHaveLength(0);
    expect(v.late).toBe(0);
    // It would sound from second 3 on.
    expect([v.runsOut(2.9), v.runsOut(3.1)]).toEqual([false, true]);
  });

  it("that comes in while others sound has nobody wait for it before it sounds itself", async () => {
    const context = new FakeContext() as unknown as AudioContext & FakeContext;
    const segments = new Segments(context, (_, number) =>
      number < 2 ? Promise.resolve(new ArrayBuffer(8)) : new Promise(() => undefined),
    );
    const clip = voiceClip();
    await segments.load(clip.source, 1);
    const anchor = { start: 1, from: 0, rate: SECOND };
    const begun = (from: number) =>
      new Voice(clip, context, anchor, segments, new FakeNode() as unknown as AudioNode, from);
    const v = begun(5 * SECOND);
    v.schedule(20 * SECOND);
    expect([starts.length, v.runsOut(100)]).toEqual([0, false]);
    // From the middle of the segment that has come: it sounds, and what follows is waited for.
    const sounding = begun(3.5 * SECOND);
    sounding.schedule(20 * SECOND);
    expect([starts.length, sounding.runsOut(5.9), sounding.runsOut(6.1)]).toEqual([1, false, true]);
  });
});

describe("segments", () => {
  it("are fetched once, and again only after a failure", async () => {
    let asked = 0;
    const context = new FakeContext() as unknown as AudioContext;
    const segments = new Segments(context, () =>
      ++asked === 1 ? Promise.reject(new Error("lost")) : Promise.resolve(new ArrayBuffer(8)),
    );
    expect(await segments.load("s", 0)).toBeNull();
    expect(await segments.load("s", 0)).not.toBeNull();
    expect(await segments.load("s", 0)).not.toBeNull();
    expect(asked).toBe(2);
    expect(segments.ready("s", 0)).not.toBeNull();
  });
});

describe("the clock", () => {
  it("goes from positions to times and back", () => {
    const anchor = { start: 12.5, from: 48000 * 3, rate: 48000 };
    expect(timeAt(anchor, 48000 * 4)).toBe(13.5);
    expect(positionAt(anchor, timeAt(anchor, 123456))).toBeCloseTo(123456, 6);
  });

  it("has its filters hear what comes before, and misses no sound where only that comes too late", async () => {
    const cut: Filters = [{ kind: "highpass", hertz: 80, q: 0.71, db: 0 }];
    const play = async (now: number) => {
      starts.length = 0;
      const { voice: v, context } = await voice(0, undefined, cut);
      context.currentTime = now;
      v.schedule(20 * SECOND);
      return [starts[0]?.when, v.late];
    };
    const [early, none] = await play(0);
    expect([early?.toFixed(2), none]).toEqual(["2.70", 0]);
    expect(await play(2.9)).toEqual([expect.closeTo(2.9, 3), 0]);
    expect(await play(3.1)).toEqual([expect.closeTo(3.1, 3), 1]);
  });
});
