import { describe, expect, it } from "vitest";
import { ApiError } from "@/api/client";
import type { Clip, Edit, OpenedMix, Step } from "@/api/types";
import { PLAIN } from "@/test/mixes";
import { looseChange } from "./screen";
import { createMixStore, type MixPort, USUAL_AIM, USUAL_FADERS } from "./mixStore";

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
  before: null,
  canUndo: false,
  canRedo: false,
};

const step = (revision: number, changed: Clip[], removed: string[] = []): Step => ({
  changes: {
    frameRate: "25",
    length: 100,
    aim: USUAL_AIM,
    captions: [],
    faders: USUAL_FADERS,
    rules: [],
    sources: opened.mix.sources,
    tracks: structuredClone(opened.mix.tracks),
    changedClips: changed,
    placedClips: [],
    removedClips: removed,
    markers: [],
    pictures: [],
    strip: [],
  },
  revision,
  label: `edit ${revision}`,
  before: revision - 1,
  canUndo: true,
  canRedo: false,
});

function port(edit: MixPort["edit"]): MixPort {
  const none = () => Promise.reject(new Error("not asked for"));
  const mix = () => Promise.resolve({ ...opened, revision: 9 });
  return { mix, edit, undo: none, redo: none, goTo: none, takeUp: none };
}

describe("the mix store", () => {
  it("sends edits one after the other, each on the revision the one before has made", async () => {
    const bases: number[] = [];
    const store = createMixStore(
      port((_p, base) => {
        bases.push(base);
        return Promise.resolve(step(base + 1, [clip("a", -base)]));
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
      port(() => Promise.resolve(step(2, [clip("a", -6)]))),
      opened,
    );
    const before = store.getState();
    await before.edit({ edit: "set-clip-gain", clips: ["a"], gain: -6 });
    expect(store.getState().clips.b).toBe(before.clips.b);
    expect(store.getState().tracks[0]).toBe(before.tracks[0]);
  });

  it("keeps the last saved mix and says why when an edit is refused", async () => {
    const refuse = () =>
      Promise.reject(new ApiError({ type: "about:blank", title: "", status: 422, detail: "Too loud." }));
    const store = createMixStore(port(refuse), opened);
    const before = store.getState().clips;
    expect(await store.getState().edit({ edit: "set-clip-gain", clips: ["a"], gain: 99 })).toBe(false);
    expect(store.getState().clips).toBe(before);
    expect(store.getState().notice?.text).toBe("Too loud.");
  });

  it("takes the newest state when somebody else was faster", async () => {
    const outdated = () =>
      Promise.reject(
        new ApiError({ type: "about:blank", title: "", status: 409, detail: "Changed meanwhile." }),
      );
    const store = createMixStore(port(outdated), opened);
    await store.getState().edit({ edit: "remove-clips", clips: ["a"] });
    expect(store.getState().revision).toBe(9);
  });

  it("lets go of a selected clip that is gone", async () => {
    const store = createMixStore(
      port(() => Promise.resolve(step(2, [], ["a"]))),
      opened,
    );
    store.getState().select("a");
    await store.getState().edit({ edit: "remove-clips", clips: ["a"] });
    expect(store.getState().selected).toEqual([]);
    expect(Object.keys(store.getState().clips)).toEqual(["b"]);
  });

  it("shows and sounds another state without losing the present, and lets nothing be edited meanwhile", async () => {
    const store = createMixStore(
      port(() => Promise.resolve(step(2, [clip("a", -6)]))),
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

  it("remembers a change to a range only while it is the newest edit", async () => {
    let revision = 1;
    const store = createMixStore(
      port(() => Promise.resolve(step(++revision, []))),
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
