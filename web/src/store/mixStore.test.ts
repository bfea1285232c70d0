import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Asked } from "@/api/asked";
import { ApiError } from "@/api/problem";
import type { Clip, Edit, OpenedMix, Step } from "@/api/schema";
import { ADA, BEN, PLAIN } from "@/test/mixes";
import { looseChange } from "./screen";
import type { MixPort } from "@/store/sync";
import { createMixStore, USUAL_AIM, USUAL_FADERS } from "./mixStore";

const clip = (id: string, gain: number): Clip => ({
  id,
  track: "t",
  source: "s",
  name: id,
  at: 0,
  in: 0,
  length: 100,
  gain,
  curve: [],
  level: gain,
  schedule: [{ from: 0, to: 100, db: [0, 0] }],
  ...PLAIN,
});

const opened: OpenedMix = {
  me: ADA,
  project: { id: "p", name: "Crossing", role: "owner" },
  mix: {
    rate: 48000,
    frameRate: "25",
    length: 100,
    aim: USUAL_AIM,
    captions: [],
    faders: USUAL_FADERS,
    rules: [],
    sources: [{ id: "s", name: "S", length: 100, channels: 2, gain: 0 }],
    tracks: [{ id: "t", name: "Music", stem: "music", fader: 0, pan: 0, muted: false }],
    clips: [clip("a", 0), clip("b", 0)],
    markers: [],
    pictures: [],
    strip: [],
  },
  revision: 1,
  label: "New project",
  author: ADA,
  before: null,
  canUndo: false,
  canRedo: false,
};

const step = (from: number, revision: number, changed: Clip[], removed: string[] = []): Step => ({
  from,
  others: [],
  changes: { changedTracks: [], changedClips: changed, placedClips: [], removedClips: removed },
  revision,
  label: `edit ${revision}`,
  author: ADA,
  before: revision - 1,
  canUndo: true,
  canRedo: false,
});

/** A server that answers steps in the given way, and has come to revision 9 by other hands. */
function port(answer: (base: number, asked: Asked) => Promise<Step>): MixPort {
  return {
    mix: () => Promise.resolve({ ...opened, revision: 9 }),
    changes: (_p, from) => Promise.resolve(step(from, 9, [])),
    step: (_p, asked, base) => answer(base, asked),
  };
}

const refusal = (status: number, detail: string, code?: string) =>
  Promise.reject(new ApiError({ type: "about:blank", title: "", status, detail, ...(code ? { code } : {}) }));
const gain: Edit = { edit: "set-clip-gain", clips: ["a"], gain: -6 };

describe("the mix store", () => {
  it("sends edits one after the other, each on the revision the one before has made", async () => {
    const bases: number[] = [];
    const store = createMixStore(
      port((base) => {
        bases.push(base);
        return Promise.resolve(step(base, base + 1, [clip("a", -base)]));
      }),
      opened,
    );
    const { edit } = store.getState();
    await Promise.all([1, 2, 3].map(() => edit({ edit: "set-clip-gain", clips: ["a"], gain: 0 })));
    expect(bases).toEqual([1, 2, 3]);
    expect(store.getState().clips.a?.gain).toBe(-3);
    expect(store.getState().pending).toBe(0);
  });

  it("changes what changed and keeps every other object, so that nothing else is drawn again", async () => {
    const store = createMixStore(
      port((base) => Promise.resolve(step(base, 2, [clip("a", -6)]))),
      opened,
    );
    const before = store.getState();
    await before.edit({ edit: "set-clip-gain", clips: ["a"], gain: -6 });
    expect(store.getState().clips.b).toBe(before.clips.b);
    expect(store.getState().tracks[0]).toBe(before.tracks[0]);
  });

  it("keeps the last saved mix and says why when an edit is refused", async () => {
    const store = createMixStore(
      port(() => refusal(422, "Too loud.")),
      opened,
    );
    const before = store.getState().clips;
    expect(await store.getState().edit({ edit: "set-clip-gain", clips: ["a"], gain: 99 })).toBe(false);
    expect(store.getState().clips).toBe(before);
    expect(store.getState().notice?.text).toBe("Too loud.");
  });

  it("comes to the present when somebody else was faster", async () => {
    const store = createMixStore(
      port(() => refusal(409, "Changed meanwhile.", "outdated")),
      opened,
    );
    expect(await store.getState().edit({ edit: "remove-clips", clips: ["a"] })).toBe(false);
    await vi.waitFor(() => expect(store.getState().revision).toBe(9));
    expect(store.getState().notice?.text).toBe("Changed meanwhile.");
  });

  it("never shows a revision whose content it does not hold", async () => {
    const store = createMixStore(
      port(() => Promise.resolve(step(4, 5, [clip("a", -5)]))),
      opened,
    );
    await store.getState().edit(gain);
    // An answer that starts elsewhere is no use; the whole state was loaded in its place.
    expect(store.getState().revision).toBe(9);
    expect(store.getState().clips.a?.gain).toBe(0);
  });

  it("lets go of a selected clip that is gone", async () => {
    const store = createMixStore(
      port((base) => Promise.resolve(step(base, 2, [], ["a"]))),
      opened,
    );
    store.getState().select("a");
    await store.getState().edit({ edit: "remove-clips", clips: ["a"] });
    expect(store.getState().selected).toEqual([]);
    expect(Object.keys(store.getState().clips)).toEqual(["b"]);
  });

  it("shows and sounds another state without losing the present, and lets nothing be edited meanwhile", async () => {
    const store = createMixStore(
      port((base) => Promise.resolve(step(base, 2, [clip("a", -6)]))),
      opened,
    );
    const present = store.getState().clips;
    const mix = { ...opened.mix, clips: [clip("a", -20), clip("b", 0)] };
    store.getState().hear({ mix, revision: 0, label: "", name: "Loud bed" });
    expect(store.getState().clips.a?.gain).toBe(-20);
    expect(store.getState().clips.b).toBe(present.b);
    expect(await store.getState().edit({ edit: "set-clip-gain", clips: ["a"], gain: -6 })).toBe(false);
    expect(store.getState().notice?.text).toContain("Loud bed");
    store.getState().hear(null);
    expect(store.getState().clips).toBe(present);
  });

  it("goes to a state that is heard, without switching back first", async () => {
    const store = createMixStore(
      port((base, asked) =>
        Promise.resolve(step(base, asked.kind === "goTo" ? asked.revision : 2, [clip("a", -20)])),
      ),
      { ...opened, revision: 5 },
    );
    const mix = { ...opened.mix, clips: [clip("a", -20), clip("b", 0)] };
    store.getState().hear({ mix, revision: 3, label: "", name: "Loud bed" });
    expect(await store.getState().goTo(3)).toBe(true);
    expect(store.getState()).toMatchObject({ revision: 3, hearing: null, clips: { a: { gain: -20 } } });
  });

  it("remembers a change to a range only while it is the newest edit", async () => {
    let revision = 1;
    const store = createMixStore(
      port((base) => Promise.resolve(step(base, ++revision, []))),
      opened,
    );
    const range = { from: 0, to: 50, tracks: null };
    store.getState().set({ range });
    const dip: Edit = { edit: "dip-range", clips: ["a"], from: 0, to: 50, by: -9, ramp: 4 };
    await store.getState().edit(dip);
    expect(looseChange(store.getState())).toEqual(dip);
    expect(store.getState().settings).toMatchObject({ by: -9, rampChosen: false });
    store.getState().set({ range: { ...range, from: 10 } });
    expect(looseChange(store.getState())).toBeNull();
    store.getState().set({ range });
    await store.getState().edit({ edit: "set-clip-gain", clips: ["a"], gain: -6 });
    expect(store.getState().adjustable).toBeNull();
  });
});

describe("what waits for the server", () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  it("is sent again with the same key until there is an answer, and said meanwhile", async () => {
    const keys: string[] = [];
    let away = 3;
    const store = createMixStore(
      port((base, asked) => {
        keys.push(asked.key);
        if (away-- > 0) return refusal(away === 1 ? 500 : 0, "The server cannot be reached.");
        return Promise.resolve(step(base, base + 1, [clip("a", -base)]));
      }),
      opened,
    );
    const done = Promise.all([store.getState().edit(gain), store.getState().edit(gain)]);
    await vi.advanceTimersByTimeAsync(500);
    expect(store.getState()).toMatchObject({
      pending: 2,
      unsent: ["set clip gain", "set clip gain"],
      trouble: "The server cannot be reached.",
    });
    await vi.advanceTimersByTimeAsync(60_000);
    expect(await done).toEqual([true, true]);
    expect(new Set(keys.slice(0, 4)).size).toBe(1);
    expect(new Set(keys).size).toBe(2);
    expect(store.getState()).toMatchObject({ pending: 0, unsent: [], trouble: null, revision: 3 });
  });

  it("is tried at once when asked to, and can be given up", async () => {
    let away = true;
    const store = createMixStore(
      port((base) => (away ? refusal(503, "Away.") : Promise.resolve(step(base, base + 1, [clip("a", -6)])))),
      opened,
    );
    const first = store.getState().edit(gain);
    await vi.advanceTimersByTimeAsync(20_000);
    away = false;
    store.getState().tryNow();
    await vi.advanceTimersByTimeAsync(10);
    expect(await first).toBe(true);
    away = true;
    const second = store.getState().edit(gain);
    await vi.advanceTimersByTimeAsync(3000);
    store.getState().giveUp();
    expect(await second).toBe(false);
    expect(store.getState().pending).toBe(0);
  });

  it("is not held up by a screen that cannot be brought to the present", async () => {
    const server = port((base) => Promise.resolve(step(base, base + 1, [clip("a", -6)])));
    const changes = () => refusal(500, "No.");
    const store = createMixStore({ ...server, changes }, opened);
    store.getState().catchUp();
    await vi.advanceTimersByTimeAsync(20_000);
    const done = store.getState().edit(gain);
    await vi.advanceTimersByTimeAsync(10);
    expect(await done).toBe(true);
  });

  it("survives a reload that fails in between", async () => {
    let reloads = 0;
    const server = port((base) =>
      base === 1
        ? refusal(409, "Never was.", "unknown-base")
        : Promise.resolve(step(base, 10, [clip("a", -6)])),
    );
    const mix = () => (++reloads < 3 ? refusal(500, "No.") : Promise.resolve({ ...opened, revision: 9 }));
    const store = createMixStore({ ...server, mix }, opened);
    const done = store.getState().edit(gain);
    await vi.advanceTimersByTimeAsync(30_000);
    expect(await done).toBe(true);
    expect(store.getState()).toMatchObject({ revision: 10, pending: 0 });
  });

  it("is kept until it is answered, but for what its caller keeps, and is taken up by another page", async () => {
    const kept: string[][] = [];
    const keeping = { save: (waiting: Asked[]) => void kept.push(waiting.map((w) => w.key)) };
    const never = new Promise<Step>(() => undefined);
    const store = createMixStore(
      port(() => never),
      opened,
      keeping,
    );
    void store.getState().edit(gain);
    void store.getState().edit(gain, { key: "a-ride-of-its-own" });
    expect(kept.at(-1)).toHaveLength(1);

    const sent: Asked[] = [];
    const next = createMixStore(
      port((base, asked) => {
        sent.push(asked);
        return Promise.resolve(step(base, base + 1, []));
      }),
      opened,
      keeping,
    );
    next.getState().resume([{ key: "left-behind", kind: "edit", edit: gain, instead: false }]);
    await next.getState().settled();
    expect(sent).toEqual([{ key: "left-behind", kind: "edit", edit: gain, instead: false }]);
    expect(kept.at(-1)).toEqual([]);
  });
});

describe("others", () => {
  const bens = { ...opened, author: BEN, label: "Dip Bed", canUndo: true, revision: 2, before: 1 };

  it("have their newest edit taken back only after it was asked", async () => {
    const asked: Asked[] = [];
    const store = createMixStore(
      port((base, what) => {
        asked.push(what);
        return Promise.resolve(step(base, 1, []));
      }),
      bens,
    );
    expect(await store.getState().undo()).toBe(false);
    expect(store.getState().question).toEqual({ name: "Ben", label: "Dip Bed" });
    expect(asked).toEqual([]);
    await store.getState().undo(true);
    expect(asked).toMatchObject([{ kind: "undo", evenOthers: true }]);
  });

  it("are asked about too where only the server knew", async () => {
    const store = createMixStore(
      port(() => refusal(409, "By Ben.", "others")),
      { ...bens, author: ADA },
    );
    expect(await store.getState().undo()).toBe(false);
    expect(store.getState().question).not.toBeNull();
  });

  it("are heard of, without a word of one's own being lost", async () => {
    const store = createMixStore(
      {
        ...port(() => refusal(0, "Away.")),
        changes: (_p, from) =>
          Promise.resolve({
            ...step(from, 7, [clip("a", -9)], ["b"]),
            author: BEN,
            others: [{ name: "Ben", what: "Remove B" }],
          }),
      },
      opened,
    );
    store.getState().set({ notice: { kind: "error", text: "Mine." }, selected: ["a", "b"] });
    store.getState().catchUp();
    await vi.waitFor(() => expect(store.getState().revision).toBe(7));
    expect(store.getState()).toMatchObject({ selected: ["a"], notice: { text: "Mine." }, author: BEN });
    expect(store.getState().news?.others).toEqual([{ name: "Ben", what: "Remove B" }]);
  });

  it("change the present that is kept aside while another state is heard", async () => {
    const store = createMixStore(
      {
        ...port(() => refusal(0, "")),
        changes: (_p, from) => Promise.resolve(step(from, 7, [clip("a", -9)])),
      },
      opened,
    );
    store
      .getState()
      .hear({ mix: { ...opened.mix, clips: [clip("a", -20)] }, revision: 1, label: "", name: "A" });
    store.getState().catchUp();
    await vi.waitFor(() => expect(store.getState().revision).toBe(7));
    expect(store.getState().clips.a?.gain).toBe(-20);
    store.getState().hear(null);
    expect(store.getState().clips.a?.gain).toBe(-9);
  });
});
