import { describe, expect, it } from "vitest";
import { Segments, segmentsOf } from "./segments";

const decoded = { decodeAudioData: async () => ({}) as AudioBuffer } as unknown as BaseAudioContext;

function cache() {
  let time = 0;
  const fetched: string[] = [];
  const segments = new Segments(
    decoded,
    async (source, number) => {
      fetched.push(`${source}/${number}`);
      return new ArrayBuffer(0);
    },
    () => time,
  );
  return { segments, fetched, pass: (ms: number) => (time += ms) };
}

describe("segments of two seconds", () => {
  it("are fetched once while they are needed, however many sound at once", async () => {
    const { segments, fetched, pass } = cache();
    for (let tick = 0; tick < 20; tick++) {
      for (let clip = 0; clip < 300; clip++) segments.ready(`s${clip}`, 0);
      await Promise.resolve();
      pass(100);
    }
    expect(fetched.length).toBe(300);
    for (let clip = 0; clip < 300; clip++) expect(segments.ready(`s${clip}`, 0)).not.toBeNull();
  });

  it("go when they are needed no more, so that ten minutes take no more room than one", async () => {
    const { segments, pass } = cache();
    const sizes: number[] = [];
    for (let turn = 0; turn < 300; turn++) {
      for (let clip = 0; clip < 60; clip++) await segments.load(`s${clip}`, turn);
      pass(2000);
      sizes.push(segments.size);
    }
    expect(Math.max(...sizes)).toBeLessThanOrEqual(60 * 5);
    expect(sizes[299]).toBe(sizes[29]);
  });

  it("that could not be had are asked for anew", async () => {
    let tries = 0;
    const segments = new Segments(decoded, async () => {
      if (++tries === 1) throw new Error("away");
      return new ArrayBuffer(0);
    });
    expect(await segments.load("s", 0)).toBeNull();
    expect(await segments.load("s", 0)).not.toBeNull();
  });
});

describe("the segments that a clip sounds from", () => {
  const clip = { at: 1000, in: 96_000, length: 200_000 };

  it("are those that a span of the timeline meets, and no other", () => {
    expect(segmentsOf(clip, 1000, 1001, 48_000)).toEqual([1]);
    expect(segmentsOf(clip, 0, 49_000, 48_000)).toEqual([1]);
    expect(segmentsOf(clip, 1000 + 95_999, 1000 + 96_001, 48_000)).toEqual([1, 2]);
    expect(segmentsOf(clip, 0, 10_000_000, 48_000)).toEqual([1, 2, 3]);
  });

  it("are none where it does not sound", () => {
    expect(segmentsOf(clip, 0, 1000, 48_000)).toEqual([]);
    expect(segmentsOf(clip, 201_000, 300_000, 48_000)).toEqual([]);
  });
});
