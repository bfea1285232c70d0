import { describe, expect, it } from "vitest";
import type { Figures } from "@/api/schema";
import { figuresOf, SECOND, storeOf } from "@/test/mixes";
import { layOut } from "../geometry";
import { buildScene } from "../scene";
import { SoundGain } from "../soundGain";
import { drawClearance } from "./clearance";
import { drawOutside } from "./outside";
import type { Palette } from "./palette";
import { drawTrackLanes } from "./trackLanes";

/** A canvas that notes what is asked of it. */
function canvas() {
  const calls: { name: string; args: unknown[]; fill: unknown }[] = [];
  const state: Record<string, unknown> = {};
  const ctx = new Proxy(state, {
    get: (target, name: string) =>
      name in target
        ? target[name]
        : name === "measureText"
          ? (text: string) => ({ width: text.length * 6 })
          : (...args: unknown[]) => calls.push({ name, args, fill: target.fillStyle }),
    set: (target, name: string, value) => {
      target[name] = value;
      return true;
    },
  }) as unknown as CanvasRenderingContext2D;
  const texts = () => calls.filter((c) => c.name === "fillText").map((c) => c.args[0]);
  return { ctx, calls, texts };
}

const palette = new Proxy({}, { get: (_, name) => String(name) }) as Palette;

function sceneWith(figures: Partial<Figures>, captions: { from: number; to: number; text: string }[] = []) {
  const store = storeOf();
  store.setState({ figures: figuresOf(figures), captions });
  const state = store.getState();
  return buildScene(state, layOut(state.tracks, 600), { start: 0, perPx: SECOND / 80 }, 800, null);
}

describe("the clearance strip", () => {
  const buried = (part: object) => ({
    from: 2 * SECOND,
    to: 6 * SECOND,
    worst: 4.2,
    accepted: null,
    ...part,
  });

  it("shows how clear it is instead, with the track that covers it and where", () => {
    const store = storeOf();
    const track = store.getState().tracks.find((t) => t.stem === "music")?.id ?? "";
    store.setState({
      judged: "clarity",
      figures: figuresOf({ buried: [buried({}) as Figures["buried"][number]] }),
      clarity: {
        revision: 1,
        lacking: [],
        tooLong: false,
        clarity: [[20, [...Array<number>(20).fill(90), ...Array<number>(20).fill(40)]]],
        average: 65,
        clearPart: 0.5,
        covered: [{ from: 4 * SECOND, to: 6 * SECOND, worst: 40, track, fromHz: 630, toHz: 4000 }],
      },
    });
    const state = store.getState();
    const scene = buildScene(state, layOut(state.tracks, 600), { start: 0, perPx: SECOND / 80 }, 800, null);
    const { ctx, calls, texts } = canvas();
    drawClearance(ctx, scene, palette);
    expect(texts()).toEqual(["Music", "40 · 630–4k"]);
    const bars = calls.filter((c) => c.name === "fillRect" && (c.args[2] as number) === 2);
    for (const [fill, least] of [
      ["speech", 20],
      ["trouble", 20],
    ] as const)
      expect(bars.filter((b) => b.fill === fill).length).toBeGreaterThan(least);
    // The lower value has the lower bar.
    const tall = (fill: string) =>
      Math.max(...bars.filter((b) => b.fill === fill).map((b) => b.args[3] as number));
    expect(tall("speech")).toBeGreaterThan(2 * tall("trouble"));
  });

  it("tells clear from buried by colour, hatch and word", () => {
    const scene = sceneWith({
      speech: [[2 * SECOND, 6 * SECOND]],
      clearance: [[20, [...Array<number>(20).fill(22), ...Array<number>(20).fill(4.2)]]],
      buried: [buried({ from: 4 * SECOND }) as Figures["buried"][number]],
    });
    const { ctx, calls, texts } = canvas();
    drawClearance(ctx, scene, palette);
    const bars = calls.filter((c) => c.name === "fillRect" && (c.args[2] as number) === 2);
    const [clear, low] = ["speech", "trouble"].map((fill) => bars.filter((b) => b.fill === fill));
    expect(clear?.length).toBeGreaterThan(20);
    expect(low?.length).toBeGreaterThan(20);
    expect(Math.max(...(low ?? []).map((b) => b.args[3] as number))).toBeLessThan(
      Math.min(...(clear ?? []).map((b) => b.args[3] as number)),
    );
    expect(texts()).toEqual(["buried", "+4.2 LU"]);
  });

  it("calls what was accepted by that name, and frames the stretch at hand", () => {
    const scene = {
      ...sceneWith({
        speech: [],
        clearance: [],
        buried: [buried({ accepted: "" }) as Figures["buried"][number]],
      }),
      stretch: 2 * SECOND,
    };
    const { ctx, calls, texts } = canvas();
    drawClearance(ctx, scene, palette);
    expect(texts()[0]).toBe("accepted");
    expect(calls.some((c) => c.name === "strokeRect")).toBe(true);
  });

  it("hatches many short ones at once, and what is beyond the list like the rest", () => {
    const scene = sceneWith({
      buried: Array.from(
        { length: 40 },
        (_, i) => buried({ from: i * 2000, to: i * 2000 + 1000 }) as Figures["buried"][number],
      ),
      moreBuried: [[4 * SECOND, 8 * SECOND]],
    });
    const { ctx, calls } = canvas();
    drawClearance(ctx, scene, palette);
    const places = calls.filter((c) => c.name === "rect").map((c) => [c.args[0], c.args[2]]);
    expect(places).toHaveLength(2);
    expect(places[1]).toEqual([320, 320]);
  });

  it("shows captions above the speech, and nothing before there are figures", () => {
    const scene = sceneWith({ speech: [], clearance: [], buried: [] }, [
      { from: SECOND, to: 3 * SECOND, text: "The tide does not wait." },
      { from: 90 * SECOND, to: 91 * SECOND, text: "Out of sight" },
    ]);
    const { ctx, texts } = canvas();
    drawClearance(ctx, scene, palette);
    expect(texts()).toEqual(["The tide does not wait."]);
    const empty = canvas();
    drawClearance(empty.ctx, { ...scene, figures: null, captions: [] }, palette);
    expect(empty.texts()).toEqual([]);
  });
});

describe("marks outside the zone", () => {
  it("are full where it is too loud and hollow where it is too soft, and only on their clips", () => {
    const scene = sceneWith({
      outside: [
        { track: "speech", from: 0, to: 5 * SECOND, by: -4 },
        { track: "speech", from: 6 * SECOND, to: 7 * SECOND, by: 5 },
        { track: "speech", from: 12 * SECOND, to: 14 * SECOND, by: 5 },
      ],
    });
    const voice = scene.clips.find((c) => c.clip.id === "voice");
    if (!voice) throw new Error("no voice");
    const { ctx, calls } = canvas();
    drawOutside(ctx, scene, voice, palette);
    expect(calls.filter((c) => c.name === "stroke")).toHaveLength(2);
    expect(calls.filter((c) => c.name === "fill")).toHaveLength(1);
    const [first] = calls.filter((c) => c.name === "moveTo").map((c) => c.args[0] as number);
    expect(first).toBeGreaterThan(2 * 80);
  });
});

describe("the lanes of a track", () => {
  const ducked = (part: object = {}) => {
    const store = storeOf();
    store.setState((s) => ({
      figures: { outOfDate: [], outside: [] } as never,
      tracks: s.tracks.map((t) =>
        t.id === "music"
          ? {
              ...t,
              duckingLevels: [{ from: 0, to: 20 * SECOND, db: [-12, 0] }],
              ducking: { curve: [], held: [{ from: 2 * SECOND, to: 5 * SECOND }] },
              levels: [{ from: 0, to: 20 * SECOND, db: [-6, 0] }],
              lanes: { level: [{ at: SECOND, level: -6, ramp: "line" as const }] },
            }
          : t,
      ),
      ...part,
    }));
    const state = store.getState();
    const scene = buildScene(state, layOut(state.tracks, 600), { start: 0, perPx: SECOND / 80 }, 800, null);
    const drawn = canvas();
    drawTrackLanes(drawn.ctx, scene, palette);
    return { ...drawn, scene };
  };

  it("say in words that they duck, and what is held", () => {
    const { texts, calls } = ducked();
    expect(texts()).toEqual(["held", "ducking"]);
    expect(calls.filter((c) => c.name === "setLineDash").map((c) => c.args[0])).toContainEqual([7, 3]);
  });

  it("say when they are out of date, but not while a rule is tried", () => {
    const late = { figures: { outOfDate: ["music"], outside: [] } };
    expect(ducked(late).texts()).toContain("ducking · out of date (Shift+U)");
    const tried = { ...late, duckTry: { music: { all: [{ from: 0, to: SECOND, db: [-3, 0] }] } } };
    expect(ducked(tried).texts()).toContain("ducking");
  });

  it("are in what is drawn of the sound, in place of the fader", () => {
    const { scene } = ducked();
    const bed = scene.clips.find((c) => c.clip.id === "bed");
    expect(bed?.levelDb).toBe(0);
    if (!bed) throw new Error("no bed");
    expect(20 * Math.log10(SoundGain.of(bed).at(3 * SECOND))).toBeCloseTo(-18, 5);
    expect(scene.clips.find((c) => c.clip.id === "voice")?.rows).toEqual([]);
  });
});
