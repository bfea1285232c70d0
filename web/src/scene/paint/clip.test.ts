// @vitest-environment jsdom
import { describe, expect, it } from "vitest";
import type { Clip } from "@/api/schema";
import { SECOND, storeOf } from "@/test/mixes";
import { Frames } from "../frames";
import { layOut } from "../geometry";
import { Outlines } from "../outlines";
import { Samples } from "../samples";
import { buildScene } from "../scene";
import { drawClip } from "./clip";
import type { Palette } from "./palette";
import { SoundTiles } from "./soundTiles";

/** What is written on the bed when a second is so many px wide. */
function written(perSecond: number, change: Partial<Clip>): string[] {
  const texts: string[] = [];
  const state: Record<string, unknown> = {};
  const ctx = new Proxy(state, {
    get: (target, name: string) =>
      name in target
        ? target[name]
        : name === "measureText"
          ? (text: string) => ({ width: text.length * 6 })
          : (...args: unknown[]) => name === "fillText" && texts.push(String(args[0])),
    set: (target, name: string, value) => {
      target[name] = value;
      return true;
    },
  }) as unknown as CanvasRenderingContext2D;
  const store = storeOf();
  const mix = store.getState();
  const scene = buildScene(mix, layOut(mix.tracks, 600), { start: 0, perPx: SECOND / perSecond }, 900, null);
  const drawn = scene.clips.find((d) => d.clip.id === "bed");
  if (!drawn) throw new Error("no bed");
  const never = () => new Promise<never>(() => undefined);
  const nothing = () => undefined;
  const sounds = {
    outlines: new Outlines(never, never, nothing),
    samples: new Samples(SECOND, never, nothing),
    frames: new Frames(never, nothing),
    version: () => 0,
  };
  const palette = new Proxy({}, { get: (_, name) => String(name) }) as Palette;
  drawClip({ ctx, palette, sounds, tiles: new SoundTiles(), ratio: 1 }, scene, {
    ...drawn,
    clip: { ...drawn.clip, name: "Slow accordion", ...change },
    coveredFrom: drawn.clip.at + (change.length ?? drawn.clip.length),
  });
  return texts.filter(Boolean);
}

describe("the labels of a clip", () => {
  it("give way in order as it gets shorter: the name is shortened, then goes, then the gain; none is cut through", () => {
    const gain = { gain: -4.5, length: SECOND };
    expect(written(200, gain)).toEqual(["Slow accordion", "−4.5 dB"]);
    expect(written(120, gain)).toEqual(["Slow acc…", "−4.5 dB"]);
    expect(written(60, gain)).toEqual(["−4.5 dB"]);
    expect(written(40, gain)).toEqual([]);
  });

  it("tell a gain of nothing only where there is room for it, and always that it is muted", () => {
    expect(written(120, { gain: 0, length: SECOND })).toEqual(["Slow accordion"]);
    expect(written(200, { gain: 0, length: SECOND })).toEqual(["Slow accordion", "0.0 dB"]);
    expect(written(60, { gain: 0, muted: true, length: SECOND })).toEqual(["muted"]);
  });
});
