import { afterEach, describe, expect, it, vi } from "vitest";
import type { Clip, Edit, Figures, Source } from "@/api/schema";
import { SECOND, storeOf } from "@/test/mixes";
import type { Desk } from ".";
import { deleteTakes, remove, split } from "./arrange";
import { changeRange, LEVELS, sideUnder } from "./levels";
import { SELECT } from "./select";
import { placeHere } from "./placeHere";

const edits: Edit[] = [];
const stage = (part: Parameters<typeof storeOf>[0] = {}) =>
  storeOf({
    edit: (edit) => {
      edits.push(edit);
      return Promise.resolve(true);
    },
    ...part,
  });
const run = (id: string, store: ReturnType<typeof stage>) =>
  SELECT.commands.find((c) => c.id === id)?.run({ store } as unknown as Desk, store.getState());
const range = { from: 3 * SECOND, to: 5 * SECOND, tracks: ["music"] };

describe("going to buried speech", () => {
  const figures = { buried: [{ from: 4 * SECOND, to: 5 * SECOND, accepted: null }] } as Figures;
  const go = (store: ReturnType<typeof stage>) => {
    const player = { seek: vi.fn() };
    SELECT.commands
      .find((c) => c.id === "next-buried")
      ?.run({ store, player } as unknown as Desk, store.getState());
    return player.seek;
  };

  it("waits for what is still being measured, says so, and goes once", () => {
    const store = stage({ playhead: 0 });
    const seek = go(store);
    expect(store.getState().notice?.text).toContain("still being measured");
    expect(seek).not.toHaveBeenCalled();
    store.setState({ figures });
    store.setState({ playhead: 4 * SECOND });
    expect(seek.mock.calls).toEqual([[4 * SECOND]]);
  });

  it("is forgotten where the mix is edited meanwhile", () => {
    const store = stage({ playhead: 0 });
    const seek = go(store);
    store.setState({ revision: store.getState().revision + 1 });
    store.setState({ figures });
    expect(seek).not.toHaveBeenCalled();
  });
});

afterEach(() => {
  edits.length = 0;
  vi.restoreAllMocks();
});

describe("what Delete takes", () => {
  it("is what is framed: keyframes before the range, the range before clips, and it is said before", () => {
    const chosen = [{ clip: "bed", keyframes: [7 * SECOND] }];
    const all = stage({ chosen, range, selected: ["bed"] });
    expect(deleteTakes(all.getState())).toBe("Delete takes the chosen keyframe.");
    remove(all.getState(), false);
    const ranged = stage({ range, selected: ["bed"] });
    expect(deleteTakes(ranged.getState())).toContain("the sound of the range, on Music");
    remove(ranged.getState(), false);
    remove(ranged.getState(), true);
    const clip = stage({ selected: ["bed"] });
    expect(deleteTakes(clip.getState())).toBe("Delete takes “Slow accordion”.");
    remove(clip.getState(), false);
    const { from, to, tracks } = range;
    expect(edits).toEqual([
      { edit: "remove-keyframes", chosen },
      { edit: "remove-range", from, to, tracks },
      { edit: "remove-range", from, to, tracks, close: true },
      { edit: "remove-clips", clips: ["bed"], close: false },
    ]);
  });
});

describe("splitting", () => {
  it("cuts what is selected, or what the range frames, and nothing else", () => {
    const at = { playhead: 4 * SECOND };
    const none = stage(at);
    split({} as Desk, none.getState());
    expect(edits).toEqual([]);
    expect(none.getState().notice?.text).toContain("Select the clips to split");
    split({} as Desk, stage({ ...at, selected: ["voice"] }).getState());
    split({} as Desk, stage({ ...at, range }).getState());
    expect(edits).toEqual([
      { edit: "split", cuts: [{ clip: "voice", at: 4 * SECOND }] },
      {
        edit: "split",
        cuts: [
          { clip: "bed", at: 3 * SECOND },
          { clip: "bed", at: 5 * SECOND },
        ],
      },
    ]);
  });
});

describe("a range by its two ends", () => {
  const at = (store: ReturnType<typeof stage>, seconds: number) =>
    store.setState({ playhead: seconds * SECOND });

  it("keeps its beginning while one looks for its end", () => {
    const store = stage();
    at(store, 6);
    run("range-in", store);
    expect(store.getState().range).toMatchObject({ from: 6 * SECOND, marked: true });
    at(store, 9);
    run("range-out", store);
    expect(store.getState().range).toMatchObject({ from: 6 * SECOND, to: 9 * SECOND });
    at(store, 4);
    run("range-out", store);
    expect(store.getState().range).toMatchObject({ from: 4 * SECOND, to: 6 * SECOND });
    at(store, 8);
    run("range-in", store);
    expect(store.getState().range).toMatchObject({ from: 8 * SECOND, to: 20 * SECOND });
  });
});

describe("placing at the playhead", () => {
  const source = { id: "take", name: "Take two", frames: 4 * SECOND } as Source;
  const own = (clip: string) => ({ ...stage().getState().clips[clip] }) as Clip;

  it("places there and nowhere else: on the track of the selected clip, or on one that is free", async () => {
    const store = stage({ playhead: 9 * SECOND, clips: { voice: own("voice"), bed: own("bed") } });
    await placeHere(store, source);
    expect(edits).toMatchObject([{ edit: "add-clip", track: "speech", at: 9 * SECOND }]);
  });

  it("says what is in the way", async () => {
    const store = stage({ playhead: 4 * SECOND, selected: ["voice"] });
    await placeHere(store, source);
    expect(edits).toEqual([]);
    expect(store.getState().notice?.text).toContain(
      "“Narrator” is in the way on Narrator, 00:00:02:00 to 00:00:08:00",
    );
  });

  it("makes the first track itself", async () => {
    await placeHere(stage({ tracks: [], clips: {} }), source);
    expect(edits).toMatchObject([{ edit: "add-clip", stem: "speech", name: "Speech", at: 0 }]);
  });
});

describe("all clips", () => {
  it("are selected by one key", () => {
    const store = stage({ range });
    run("all-clips", store);
    expect([...store.getState().selected].sort()).toEqual(["bed", "voice"]);
    expect(store.getState().range).toBeNull();
  });
});

describe("an opened clip", () => {
  const opened = () => {
    const { clips } = stage().getState();
    const level = { gain: 0, curve: [], muted: false };
    const bed = { ...clips.bed, channels: { mode: "stereo", left: level, right: level } } as NonNullable<
      typeof clips.bed
    >;
    return { clips: { ...clips, bed } };
  };

  it("is dipped in the channel worked on, and as a whole where its channels are not shown apart", async () => {
    const store = stage({ ...opened(), range, side: { clip: "bed", side: "right" } });
    await changeRange(store.getState(), { edit: "dip-range", by: -9 });
    store.setState({ closed: ["bed"] });
    expect(sideUnder(store.getState())).toBeUndefined();
    await changeRange(store.getState(), { edit: "dip-range", by: -9 });
    expect(edits.map((edit) => "channel" in edit && edit.channel)).toEqual(["right", false]);
  });
});

describe("a nudge of a range that has just been changed", () => {
  it("stops where no range may be lifted any further", () => {
    const last = { edit: "dip-range" as const, clips: ["bed"], ...range, by: 47.5, ramp: 4800 };
    const store = stage({ range, adjustable: { revision: 1, edit: last, range } });
    LEVELS.commands.find((c) => c.id === "up-1")?.run({ store } as unknown as Desk, store.getState());
    expect(edits).toMatchObject([{ by: 48 }]);
  });
});
