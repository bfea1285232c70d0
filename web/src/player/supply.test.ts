import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { storeOf, SECOND } from "@/test/mixes";
import { Segments } from "./segments";
import { Supply } from "./supply";

/** The speech sounds from 2 s to 8 s, from its source's first second on; the bed under all of it. */
function supplied(fetchSegment: (key: string) => Promise<ArrayBuffer>) {
  const store = storeOf();
  const asked: string[] = [];
  const context = { decodeAudioData: async () => ({}) as AudioBuffer } as unknown as BaseAudioContext;
  const segments = new Segments(context, (source, number) => {
    asked.push(`${source}/${number}`);
    return fetchSegment(`${source}/${number}`);
  });
  return { supply: new Supply(store, segments), asked, store };
}

const comes = () => Promise.resolve(new ArrayBuffer(8));
const fails = () => Promise.reject(new Error("no network"));

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

describe("the supply of sound", () => {
  it("has a second of all that sounds, across the end of a segment", async () => {
    const { supply, asked } = supplied(comes);
    await supply.bringFirst(2.9 * SECOND);
    expect(new Set(asked)).toEqual(new Set(["s-voice/0", "s-voice/1", "s-bed/1"]));
    expect(supply.isWorthWaiting).toBe(true);
  });

  it("has what begins within that second, too, and nothing later", async () => {
    const { supply, asked } = supplied(comes);
    await supply.bringFirst(0.5 * SECOND);
    expect(asked).toEqual(["s-bed/0"]);
    await supply.bringFirst(1.5 * SECOND);
    expect(new Set(asked)).toEqual(new Set(["s-bed/0", "s-bed/1", "s-voice/0"]));
  });

  it("says what does not come, and waits for nothing for a while", async () => {
    const { supply, store } = supplied((key) => (key.startsWith("s-voice") ? fails() : comes()));
    await supply.bringFirst(3 * SECOND);
    expect(store.getState().notice?.text).toContain("The sound of “Narrator” does not come");
    expect(supply.isWorthWaiting).toBe(false);
    supply.recovered();
    expect(store.getState().notice, "not so soon that nobody can read it").not.toBeNull();
    vi.advanceTimersByTime(4001);
    expect(supply.isWorthWaiting).toBe(false);
    supply.recovered();
    expect([supply.isWorthWaiting, store.getState().notice]).toEqual([true, null]);
  });

  it("waits for nothing that cannot be heard", async () => {
    const { supply, store, asked } = supplied(fails);
    store.getState().set({ listening: "rest" });
    await supply.bringFirst(3 * SECOND);
    expect(new Set(asked)).toEqual(new Set(["s-bed/1"]));
    expect(store.getState().notice?.text).toMatch(/“Slow accordion” does not come/);
  });

  it("waits again after a while, and leaves what others say", async () => {
    const { supply, store } = supplied(fails);
    await supply.bringFirst(3 * SECOND);
    store.getState().set({ notice: { kind: "error", text: "Mine." } });
    vi.advanceTimersByTime(10_001);
    expect(supply.isWorthWaiting).toBe(true);
    supply.recovered();
    expect(store.getState().notice?.text).toBe("Mine.");
  });

  it("ends waiting for an answer that never comes", async () => {
    const { supply, store } = supplied(() => new Promise(() => undefined));
    const done = vi.fn();
    void supply.bringFirst(3 * SECOND).then(done);
    await vi.advanceTimersByTimeAsync(9_900);
    expect(done).not.toHaveBeenCalled();
    await vi.advanceTimersByTimeAsync(200);
    expect(done).toHaveBeenCalled();
    expect(store.getState().notice?.text).toContain("and of 1 more");
  });
});
