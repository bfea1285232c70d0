import { describe, expect, it } from "vitest";
import { opened, SECOND, storeOf } from "@/test/mixes";
import { chooseAt, chooseBeside } from "./clicks";
import { layOut, soundArea, type View, xOf, yOfDb } from "@/scene/geometry";
import { type Modifiers, OUTSIDE } from "./gesture";
import { easesOf, gripOf, hitTest, isRightOn, type Target } from "@/scene/hit";
import type { Adjustable } from "@/store/screen";
import { buildScene, type Scene } from "@/scene/scene";
import { yOfPan } from "@/scene/sideLanes";
import { startGesture } from "./startGesture";

const VIEW: View = { start: 0, perPx: (20 * SECOND) / 800 };
const PLAIN: Modifiers = { axis: false, fine: false, free: true };

function stage(part: Parameters<typeof storeOf>[0] = {}) {
  const state = storeOf(part).getState();
  const layout = layOut(state.tracks, 600, Object.fromEntries(state.tracks.map((t) => [t.id, 132])));
  const scene = buildScene(state, layout, VIEW, 800, null);
  const lane = (track: string) => {
    const found = layout.lanes.find((l) => l.track.id === track);
    if (!found) throw new Error(track);
    return found;
  };
  const x = (seconds: number) => xOf(VIEW, seconds * SECOND);
  const at = (seconds: number, track: string, db: number) =>
    hitTest(scene, x(seconds), yOfDb(lane(track), db));
  const start = (
    target: Target | null,
    seconds: number,
    y: number,
    keys: { ctrl?: boolean; shift?: boolean } = {},
  ) => {
    const from = { x: x(seconds), y, ctrl: false, shift: false, ramp: 4800, ...keys };
    const gesture = target && startGesture(target, scene, state, from);
    if (!gesture) throw new Error("no gesture starts here");
    return gesture;
  };
  return { state, scene, layout, lane, x, at, start };
}

function drawn(scene: Scene, clip: string) {
  const found = scene.clips.find((d) => d.clip.id === clip);
  if (!found) throw new Error(clip);
  return found;
}

describe("what the pointer is over", () => {
  it("is decided by its place alone", () => {
    const { at, scene, layout, lane, x } = stage();
    expect(at(4, "speech", -3)?.kind).toBe("wire");
    expect(at(4, "speech", -40)?.kind).toBe("body");
    expect(at(8, "music", -11)?.kind).toBe("keyframe");
    expect(at(10, "music", -11)?.kind).toBe("wire");
    expect(at(15, "speech", 0)?.kind).toBe("lane");
    expect(hitTest(scene, x(4), lane("speech").top + 8)?.kind).toBe("name");
    expect(hitTest(scene, x(4), lane("music").top + 8)?.kind).toBe("name");
    expect(hitTest(scene, x(2) + 2, lane("speech").top + 60)).toMatchObject({ kind: "trim", edge: "from" });
    expect(hitTest(scene, x(8) - 2, lane("speech").top + 60)).toMatchObject({ kind: "trim", edge: "to" });
    expect(hitTest(scene, x(4), layout.horizon.top + 5)?.kind).toBe("horizon");
    expect(hitTest(scene, 5, 4)).toBeNull();
  });

  it("is a dip inside a selected range, on that track only", () => {
    const range = { from: 3 * SECOND, to: 5 * SECOND, tracks: ["music"] };
    const { at, scene, layout, x } = stage({ range });
    expect(at(4, "music", -30)?.kind).toBe("dip");
    expect(at(4, "speech", -30)?.kind).toBe("body");
    expect(at(6, "music", -30)?.kind).toBe("body");
    expect(hitTest(scene, x(3) + 2, layout.horizon.top + 5)).toMatchObject({
      kind: "range-edge",
      edge: "from",
    });
  });
});

describe("choosing", () => {
  const keyframe = (seconds: number): Extract<Target, { kind: "keyframe" }> => {
    const target = stage().at(seconds, "music", seconds === 8 || seconds === 12 ? -11 : 0);
    if (target?.kind !== "keyframe") throw new Error("no keyframe");
    return target;
  };
  const chosen = [{ clip: "bed", keyframes: [8 * SECOND, 12 * SECOND] }];

  it("takes what is pressed, unless it is chosen already", () => {
    const store = storeOf({ chosen });
    chooseAt(store.getState(), keyframe(8));
    expect(store.getState().chosen).toEqual(chosen);
    chooseAt(store.getState(), keyframe(7));
    expect(store.getState().chosen).toEqual([{ clip: "bed", keyframes: [7 * SECOND] }]);
  });

  it("with Shift adds to the choice, or takes from it, only by a click; a drag moves all that is chosen", () => {
    const store = storeOf({ chosen: [{ clip: "bed", keyframes: [8 * SECOND] }], selected: ["bed"] });
    chooseBeside(store.getState(), keyframe(12));
    expect(store.getState().chosen).toEqual(chosen);
    chooseBeside(store.getState(), keyframe(8));
    expect(store.getState().chosen).toEqual([{ clip: "bed", keyframes: [12 * SECOND] }]);
    const { start, x, lane } = stage({ chosen });
    const y = yOfDb(lane("music"), -11);
    const gesture = start(keyframe(8), 8, y, { shift: true });
    gesture.move(x(8.5), y, { ...PLAIN, axis: true });
    expect(gesture.commit().edit).toMatchObject({ chosen, later: SECOND / 2 });
    const other = start(keyframe(7), 7, yOfDb(lane("music"), 0), { shift: true });
    other.move(x(7.5), yOfDb(lane("music"), 0), { ...PLAIN, axis: true });
    expect(other.commit().edit).toMatchObject({ chosen: [{ clip: "bed", keyframes: [7 * SECOND] }] });
  });

  it("tells a keyframe itself from the room around it, where a double click adds another", () => {
    const { scene, lane, x } = stage();
    const y = yOfDb(lane("music"), -11);
    expect(isRightOn(scene, keyframe(8), x(8) + 3, y)).toBe(true);
    expect(hitTest(scene, x(8) + 7, y)?.kind).toBe("keyframe");
    expect(isRightOn(scene, keyframe(8), x(8) + 7, y)).toBe(false);
  });
});

describe("dragging a clip", () => {
  it("moves it in time and to another track, as one edit", () => {
    const { scene, lane, start, x } = stage();
    const y = lane("speech").top + 8;
    const gesture = start(hitTest(scene, x(4), y), 4, y);
    gesture.move(x(5), y, PLAIN);
    gesture.move(x(7), lane("music").top + 20, PLAIN);
    expect(gesture.commit()).toEqual({
      edit: { edit: "move-clip", clip: "voice", track: "music", at: 5 * SECOND },
    });
  });

  it("snaps to ends of clips, unless that is held off", () => {
    const { scene, lane, start, x, state } = stage({ playhead: Math.round(5.1 * SECOND) });
    const y = lane("speech").top + 8;
    const gesture = start(hitTest(scene, x(4), y), 4, y);
    gesture.move(x(7), y, { ...PLAIN, free: false });
    expect(gesture.commit().edit).toMatchObject({ at: state.playhead });
    gesture.move(x(7), y, PLAIN);
    expect(gesture.commit().edit).toMatchObject({ at: 5 * SECOND });
  });

  it("keeps to one axis with Shift: that which it went along further", () => {
    const { scene, lane, start, x } = stage();
    const y = lane("speech").top + 8;
    const gesture = start(hitTest(scene, x(4), y), 4, y);
    gesture.move(x(12), lane("music").top + 20, { ...PLAIN, axis: true });
    expect(gesture.commit().edit).toMatchObject({ track: "speech", at: 10 * SECOND });
    gesture.move(x(4) + 3, lane("music").top + 20, { ...PLAIN, axis: true });
    expect(gesture.commit().edit).toMatchObject({ track: "music", at: 2 * SECOND });
  });

  it("cannot leave what is seen", () => {
    const { scene, lane, start, x } = stage();
    const y = lane("speech").top + 8;
    const gesture = start(hitTest(scene, x(4), y), 4, y);
    gesture.move(9000, y, PLAIN);
    expect(gesture.commit().edit).toMatchObject({ at: 18 * SECOND });
  });

  it("stores nothing when it ends where it began", () => {
    const { scene, lane, start, x } = stage();
    const y = lane("speech").top + 8;
    const gesture = start(hitTest(scene, x(4), y), 4, y);
    gesture.move(x(9), y, PLAIN);
    gesture.move(x(4), y, PLAIN);
    expect(gesture.commit()).toEqual({});
  });
});

describe("trimming", () => {
  it("keeps the sound in place and stops where the source does", () => {
    const { scene, lane, start, x } = stage();
    const y = lane("speech").top + 60;
    const left = start(hitTest(scene, x(2) + 2, y), 2, y);
    left.move(x(0), y, PLAIN);
    expect(left.commit().edit).toEqual({ edit: "trim-clip", clip: "voice", from: SECOND, to: 8 * SECOND });
    const right = start(hitTest(scene, x(8) - 2, y), 8, y);
    const shown = right.move(x(19), y, PLAIN);
    expect(right.commit().edit).toEqual({
      edit: "trim-clip",
      clip: "voice",
      from: 2 * SECOND,
      to: 11 * SECOND,
    });
    const schedule = shown.preview.clips.voice?.schedule ?? [];
    expect(schedule[schedule.length - 1]?.to).toBe(10 * SECOND);
  });
});

describe("dragging the wire", () => {
  it("of a clip without keyframes sets its gain, and tells from what to what", () => {
    const { at, lane, start, x } = stage();
    const y = yOfDb(lane("speech"), -3);
    const gesture = start(at(4, "speech", -3), 4, y);
    const { readout } = gesture.move(x(4), yOfDb(lane("speech"), -9), PLAIN);
    expect(gesture.commit().edit).toEqual({ edit: "set-clip-gain", clips: ["voice"], gain: -9 });
    expect(readout).toBe("−3.0 → −9.0 dB (−6.0)");
  });

  it("goes a tenth of the way with the fine modifier", () => {
    const { at, lane, start, x } = stage();
    const y = yOfDb(lane("speech"), -3);
    const gesture = start(at(4, "speech", -3), 4, y);
    gesture.move(x(4), y + 20, { ...PLAIN, fine: true });
    const fine = gesture.commit().edit;
    const whole = start(at(4, "speech", -3), 4, y);
    whole.move(x(4), y + 2, PLAIN);
    expect(fine).toEqual(whole.commit().edit);
  });

  it("between two keyframes moves that stretch and nothing else", () => {
    const { at, lane, start, x } = stage();
    const y = yOfDb(lane("music"), -11);
    const gesture = start(at(10, "music", -11), 10, y);
    gesture.move(x(10), yOfDb(lane("music"), -14), PLAIN);
    expect(gesture.commit().edit).toEqual({
      edit: "move-keyframes",
      chosen: [{ clip: "bed", keyframes: [8 * SECOND, 12 * SECOND] }],
      later: 0,
      by: -3,
    });
  });

  it("can be pulled down to silence, and never above +24 dB", () => {
    const { at, lane, start, x } = stage();
    const y = yOfDb(lane("speech"), -3);
    const gesture = start(at(4, "speech", -3), 4, y);
    gesture.move(x(4), y + 500, PLAIN);
    expect(gesture.commit().edit).toMatchObject({ gain: "silence" });
    const up = start(at(4, "speech", -3), 4, y);
    up.move(x(4), y - 900, PLAIN);
    expect(up.commit().edit).toMatchObject({ gain: 24 });
  });
});

describe("dragging a keyframe", () => {
  it("moves it in time and level, never past its neighbours", () => {
    const { at, lane, start, x } = stage();
    const y = yOfDb(lane("music"), -11);
    const gesture = start(at(8, "music", -11), 8, y);
    gesture.move(x(8.5), yOfDb(lane("music"), -15), PLAIN);
    expect(gesture.commit().edit).toEqual({
      edit: "move-keyframes",
      chosen: [{ clip: "bed", keyframes: [8 * SECOND] }],
      later: SECOND / 2,
      by: -4,
    });
    gesture.move(x(19), y, PLAIN);
    expect(gesture.commit().edit).toMatchObject({ later: 4 * SECOND - 1 });
  });

  it("keeps to one axis with Shift", () => {
    const { at, lane, start, x } = stage();
    const y = yOfDb(lane("music"), -11);
    const gesture = start(at(8, "music", -11), 8, y);
    gesture.move(x(9), y + 8, { ...PLAIN, axis: true });
    expect(gesture.commit().edit).toMatchObject({ later: SECOND, by: 0 });
    gesture.move(x(8.05), y + 40, { ...PLAIN, axis: true });
    expect(gesture.commit().edit).toMatchObject({ later: 0 });
  });
});

describe("a range", () => {
  it("is selected by dragging either way, on its lane or across all", () => {
    const { at, scene, layout, start, x } = stage();
    const lane = start(at(15, "speech", 0), 15, 40);
    lane.move(x(10), 40, PLAIN);
    expect(lane.commit()).toEqual({ range: { from: 10 * SECOND, to: 15 * SECOND, tracks: ["speech"] } });
    const y = layout.horizon.top + 5;
    const all = start(hitTest(scene, x(1), y), 1, y);
    all.move(x(3), y, PLAIN);
    expect(all.commit().range?.tracks).toBeNull();
  });

  it("has edges that can be moved, but not past one another", () => {
    const range = { from: 3 * SECOND, to: 5 * SECOND, tracks: ["music"] };
    const { scene, layout, start, x } = stage({ range });
    const y = layout.horizon.top + 5;
    const gesture = start(hitTest(scene, x(3), y), 3, y);
    gesture.move(x(9), y, PLAIN);
    expect(gesture.commit().range).toEqual({ ...range, from: 5 * SECOND - 1 });
  });

  it("is dipped by dragging inside it: one edit, with the ramps asked for", () => {
    const range = { from: 3 * SECOND, to: 5 * SECOND, tracks: ["music"] };
    const { at, lane, start, x } = stage({ range });
    const y = yOfDb(lane("music"), -30);
    const gesture = start(at(4, "music", -30), 4, y);
    const shown = gesture.move(x(4), y + yOfDb(lane("music"), -11) - yOfDb(lane("music"), 0), PLAIN);
    expect(gesture.commit().edit).toEqual({
      edit: "dip-range",
      clips: ["bed"],
      from: range.from,
      to: range.to,
      by: -11,
      ramp: 4800,
    });
    expect(shown.readout).toContain("Dip −11.0 dB");
    const extra = shown.preview.clips.bed?.extra;
    expect([2.5, 2.95, 4, 5.05, 5.5].map((s) => extra?.(s * SECOND))).toEqual([-0, -5.5, -11, -5.5, -0]);
  });
});

describe("several at once", () => {
  const four = { clip: "bed", keyframes: [7, 8, 12, 13].map((n) => n * SECOND) };

  it("keyframes that are chosen move together, and stop together", () => {
    const { at, lane, start, x } = stage({ chosen: [four] });
    const y = yOfDb(lane("music"), -11);
    const gesture = start(at(8, "music", -11), 8, y);
    const shown = gesture.move(x(1), yOfDb(lane("music"), -14), PLAIN);
    expect(gesture.commit().edit).toEqual({
      edit: "move-keyframes",
      chosen: [four],
      later: -7 * SECOND,
      by: -3,
    });
    expect(shown.preview.clips.bed?.clip?.curve.map((k) => [k.at / SECOND, k.level])).toEqual([
      [0, -3],
      [1, -14],
      [5, -14],
      [6, -3],
    ]);
  });

  it("a lasso chooses what lies in it, and with Shift adds to what was chosen", () => {
    const { scene, start, x, lane, at } = stage({ chosen: [{ clip: "bed", keyframes: [7 * SECOND] }] });
    const [top, bottom] = [yOfDb(lane("music"), -8), yOfDb(lane("music"), -20)];
    const target = at(16, "music", -40);
    const gesture = start(target, 16, top, { ctrl: true });
    gesture.move(x(11), bottom, PLAIN);
    expect(gesture.commit().chosen).toEqual([{ clip: "bed", keyframes: [12 * SECOND] }]);
    const added = start(hitTest(scene, x(16), bottom), 16, top, { ctrl: true, shift: true });
    added.move(x(7.5), bottom, PLAIN);
    expect(added.commit().chosen).toEqual([
      { clip: "bed", keyframes: [7 * SECOND, 8 * SECOND, 12 * SECOND] },
    ]);
  });

  it("selected clips move together, and with Ctrl take along what comes later", () => {
    const { scene, start, x, lane } = stage({ selected: ["voice", "bed"] });
    const y = lane("speech").top + 8;
    const gesture = start(hitTest(scene, x(4), y), 4, y);
    gesture.move(x(5), lane("music").top + 20, PLAIN);
    expect(gesture.commit().edit).toEqual({ edit: "move-clips", clips: ["voice", "bed"], later: SECOND });
    gesture.move(x(1), y, PLAIN);
    expect(gesture.commit()).toEqual({});
    gesture.move(x(5), y, { ...PLAIN, fine: true });
    expect(gesture.commit().edit).toMatchObject({ ripple: true });
  });
});

describe("fades", () => {
  it("are dragged by their corner, as far as the clip and the other fade allow", () => {
    const { scene, start, x } = stage({ selected: ["voice"] });
    const grip = gripOf(scene, drawn(scene, "voice"), "in");
    const target = hitTest(scene, grip.x, grip.y);
    expect(target).toMatchObject({ kind: "fade", edge: "in" });
    const gesture = start(target, 2, grip.y);
    const shown = gesture.move(x(3.5), grip.y, PLAIN);
    expect(gesture.commit().edit).toEqual({
      edit: "set-fade",
      clips: ["voice"],
      edge: "in",
      length: 1.5 * SECOND,
    });
    expect(shown.readout).toBe("fade in 0.00 s → 1.50 s");
    gesture.move(x(19), grip.y, PLAIN);
    expect(gesture.commit().edit).toMatchObject({ length: 6 * SECOND });
  });
});

describe("a change just made to a range", () => {
  const edit: Adjustable["edit"] = {
    edit: "dip-range",
    clips: ["bed"],
    from: 3 * SECOND,
    to: 5 * SECOND,
    by: -6,
    ramp: 4800,
  };
  const range = { from: 3 * SECOND, to: 5 * SECOND, tracks: ["music"] };
  const loose = { range, adjustable: { revision: 1, edit, range } };

  it("is let alone once another range is selected, even one at the same place", () => {
    const { at, lane, start, x, layout, scene } = stage({ ...loose, range: { ...range } });
    const gesture = start(at(4, "music", -30), 4, yOfDb(lane("music"), 0));
    gesture.move(x(4), yOfDb(lane("music"), -3), PLAIN);
    expect(gesture.commit()).toMatchObject({ edit: { by: -3 }, instead: false });
    expect(hitTest(scene, x(2.9), layout.horizon.top + 30)?.kind).not.toBe("ramp");
  });

  it("is made deeper by dragging again, not doubled", () => {
    const { at, lane, start, x } = stage(loose);
    const y = yOfDb(lane("music"), 0);
    const gesture = start(at(4, "music", -30), 4, y);
    gesture.move(x(4), yOfDb(lane("music"), -3), PLAIN);
    expect(gesture.commit()).toMatchObject({ edit: { by: -9, ramp: 4800 }, instead: true });
  });

  it("stops where no range may be lifted or dipped any further", () => {
    const high = { ...edit, by: 40 };
    const { at, lane, start, x } = stage({ range, adjustable: { revision: 1, edit: high, range } });
    const gesture = start(at(4, "music", -30), 4, yOfDb(lane("music"), -20));
    const shown = gesture.move(x(4), yOfDb(lane("music"), 6), PLAIN);
    expect(gesture.commit()).toMatchObject({ edit: { by: 48 }, instead: true });
    expect(shown.readout).toContain("+48.0 dB");
  });

  it("has ramps with handles on the horizon, and edges that take it along", () => {
    const { scene, layout, start, x } = stage(loose);
    const y = layout.horizon.top + 30;
    const flag = hitTest(scene, x(2.9), y);
    expect(flag).toEqual({ kind: "ramp", edge: "from" });
    const gesture = start(flag, 2.9, y);
    gesture.move(x(2.5), y, PLAIN);
    expect(gesture.commit()).toMatchObject({ edit: { ramp: SECOND / 2, by: -6 }, instead: true });
    const edge = start(hitTest(scene, x(5), layout.horizon.top + 5), 5, layout.horizon.top + 5);
    edge.move(x(6), y, PLAIN);
    expect(edge.commit()).toMatchObject({
      edit: { to: 6 * SECOND },
      range: { to: 6 * SECOND },
      instead: true,
    });
  });
});

describe("a smooth ramp", () => {
  it("is shaped by its two grips", () => {
    const bed = opened().mix.clips[1];
    if (!bed) throw new Error("no bed");
    const smooth = { ...bed, curve: bed.curve.map((k) => ({ ...k, ramp: "smooth" as const })) };
    const { scene, start, x } = stage({
      clips: { bed: smooth },
      chosen: [{ clip: "bed", keyframes: [8 * SECOND] }],
    });
    const grip = easesOf(scene, drawn(scene, "bed").lane, drawn(scene, "bed").wires)[0];
    if (!grip) throw new Error("no grip");
    const target = hitTest(scene, grip.x, grip.y);
    expect(target).toMatchObject({ kind: "ease", end: "out" });
    const gesture = start(target, grip.x / 40, grip.y);
    gesture.move(grip.x + (x(9) - x(8)), grip.y, PLAIN);
    expect(gesture.commit().edit).toMatchObject({
      edit: "set-keyframe",
      keyframe: 8 * SECOND,
      ramp: { kind: "smooth", easeOut: 0.75, easeIn: 0.25 },
    });
  });
});

/** Music with a level lane from −6 at 2 s to −12 at 6 s, and a ducking lane that dips at 10 s. */
function withLanes() {
  const at = (seconds: number, level: number) => ({ at: seconds * SECOND, level, ramp: "line" as const });
  const [speech, music] = opened().mix.tracks;
  if (!speech || !music) throw new Error("no tracks");
  const row = (from: number, to: number, db: [number, number]) => ({
    from: from * SECOND,
    to: to * SECOND,
    db,
  });
  return [
    speech,
    {
      ...music,
      lanes: {
        level: [at(2, -6), at(6, -12)],
        pan: [
          { at: 2 * SECOND, pan: -0.5 },
          { at: 12 * SECOND, pan: 0.5 },
        ],
        mute: [
          { at: 4 * SECOND, muted: true },
          { at: 6 * SECOND, muted: false },
        ],
      },
      levels: [row(0, 2, [-6, 0]), row(2, 6, [-6, -6]), row(6, 20, [-12, 0])],
      ducking: { curve: [at(9, 0), at(10, -8), at(12, -8), at(13, 0)] },
      duckingLevels: [
        row(0, 9, [0, 0]),
        row(9, 10, [0, -8]),
        row(10, 12, [-8, 0]),
        row(12, 13, [-8, 8]),
        row(13, 20, [0, 0]),
      ],
    },
  ];
}

describe("a lane of a track", () => {
  it("is taken hold of once it is the one that is edited, and clips are then moved but not levelled", () => {
    const resting = stage({ tracks: withLanes() });
    expect(resting.at(2, "music", -6)?.kind).toBe("body");
    const { at, scene, x, lane } = stage({ tracks: withLanes(), activeLane: { music: "level" } });
    expect(at(2, "music", -6)).toMatchObject({
      kind: "keyframe",
      wire: { track: "music", lane: "level" },
      keyframe: { at: 2 * SECOND },
    });
    expect(at(4, "music", -9)).toMatchObject({ kind: "wire", wire: { track: "music" } });
    expect(at(8, "music", -11)?.kind).not.toBe("keyframe");
    expect(hitTest(scene, x(4), lane("music").top + 8)?.kind).toBe("name");
  });

  it("has keyframes that move in time and level, never past their neighbours nor above the fader", () => {
    const { at, lane, start, x } = stage({ tracks: withLanes(), activeLane: { music: "level" } });
    const y = yOfDb(lane("music"), -6);
    const gesture = start(at(2, "music", -6), 2, y);
    const shown = gesture.move(x(3), yOfDb(lane("music"), -9), PLAIN);
    expect(gesture.commit().edit).toEqual({
      edit: "move-keyframes",
      chosen: [{ track: "music", lane: "level", keyframes: [2 * SECOND] }],
      later: SECOND,
      by: -3,
    });
    expect(shown.preview.lanes?.music?.curve?.map((k) => [k.at / SECOND, k.level])).toEqual([
      [3, -9],
      [6, -12],
    ]);
    gesture.move(x(19), soundArea(lane("music")).top - 20, PLAIN);
    expect(gesture.commit().edit).toMatchObject({ later: 4 * SECOND - 1, by: 18 });
  });

  it("loses a keyframe that is dragged well out of it, and says so before it is let go", () => {
    const { at, lane, start, x } = stage({ tracks: withLanes(), activeLane: { music: "level" } });
    const { top, bottom } = soundArea(lane("music"));
    const gesture = start(at(2, "music", -6), 2, yOfDb(lane("music"), -6));
    for (const y of [top - OUTSIDE - 1, bottom + OUTSIDE + 1]) {
      const shown = gesture.move(x(2), y, PLAIN);
      expect(shown.readout).toBe("Let go to remove this keyframe");
      expect(shown.preview.lanes?.music?.curve?.map((k) => k.at)).toEqual([6 * SECOND]);
      expect(gesture.commit()).toEqual({
        edit: {
          edit: "remove-keyframes",
          chosen: [{ track: "music", lane: "level", keyframes: [2 * SECOND] }],
        },
        chosen: [],
      });
    }
    gesture.move(x(2), yOfDb(lane("music"), -9), PLAIN);
    expect(gesture.commit().edit).toMatchObject({ edit: "move-keyframes", by: -3 });
  });

  it("keeps a stretch on it, however far it is dragged down", () => {
    const { at, lane, start, x } = stage({ tracks: withLanes(), activeLane: { music: "level" } });
    const gesture = start(at(4, "music", -9), 4, yOfDb(lane("music"), -9));
    gesture.move(x(4), yOfDb(lane("music"), -9) + 900, PLAIN);
    expect(gesture.commit().edit).toMatchObject({ edit: "move-keyframes", by: -54 });
  });

  it("is moved as a whole when all of it is chosen", () => {
    const chosen = [{ track: "music", lane: "level" as const, keyframes: [2 * SECOND, 6 * SECOND] }];
    const { at, lane, start, x } = stage({ tracks: withLanes(), activeLane: { music: "level" }, chosen });
    const gesture = start(at(6, "music", -12), 6, yOfDb(lane("music"), -12));
    gesture.move(x(1), yOfDb(lane("music"), -10), PLAIN);
    expect(gesture.commit().edit).toEqual({ edit: "move-keyframes", chosen, later: -2 * SECOND, by: 2 });
  });

  it("of ducking is dragged between two keyframes, and dipped over a range where there is no clip needed", () => {
    const range = { from: 15 * SECOND, to: 17 * SECOND, tracks: ["music"] };
    const { at, lane, start, x } = stage({ tracks: withLanes(), activeLane: { music: "ducking" }, range });
    const wire = start(at(11, "music", -8), 11, yOfDb(lane("music"), -8));
    wire.move(x(11), yOfDb(lane("music"), -10), PLAIN);
    expect(wire.commit().edit).toMatchObject({ edit: "move-keyframes", by: -2 });
    const dip = start(at(16, "music", -20), 16, yOfDb(lane("music"), 0));
    const shown = dip.move(x(16), yOfDb(lane("music"), -6), PLAIN);
    expect(dip.commit()).toMatchObject({
      edit: { edit: "dip-range", track: "music", lane: "ducking", by: -6 },
      instead: false,
    });
    expect(shown.preview.lanes?.music?.extra?.(16 * SECOND)).toBe(-6);
  });

  it("without keyframes is the fader", () => {
    const { at, lane, start, x } = stage({ activeLane: { music: "level" } });
    const gesture = start(at(4, "music", 0), 4, yOfDb(lane("music"), 0));
    gesture.move(x(4), yOfDb(lane("music"), -5), PLAIN);
    expect(gesture.commit().edit).toEqual({ edit: "set-fader", track: "music", fader: -5 });
  });

  it("gives its keyframes to a lasso", () => {
    const { at, lane, start, x } = stage({ tracks: withLanes(), activeLane: { music: "level" } });
    const gesture = start(at(1, "music", -40), 1, yOfDb(lane("music"), -4), { ctrl: true });
    gesture.move(x(3), yOfDb(lane("music"), -20), PLAIN);
    expect(gesture.commit().chosen).toEqual([{ track: "music", lane: "level", keyframes: [2 * SECOND] }]);
  });
});

describe("pan and mute lanes", () => {
  const pan = { tracks: withLanes(), activeLane: { music: "pan" as const } };

  it("let pan points be moved, and the line be bent where it is taken", () => {
    const { scene, lane, start, x } = stage(pan);
    const own = lane("music");
    const point = hitTest(scene, x(2), yOfPan(own, -0.5));
    expect(point).toMatchObject({ kind: "pan-point", at: 2 * SECOND });
    const move = start(point, 2, yOfPan(own, -0.5));
    move.move(x(3), yOfPan(own, -0.2), PLAIN);
    expect(move.commit().edit).toEqual({
      edit: "set-pan-point",
      track: "music",
      point: 2 * SECOND,
      at: 3 * SECOND,
      pan: -0.2,
    });
    const line = hitTest(scene, x(7), yOfPan(own, 0));
    expect(line?.kind).toBe("pan-line");
    const bend = start(line, 7, yOfPan(own, 0));
    bend.move(x(7), yOfPan(own, 0.8), PLAIN);
    expect(bend.commit().edit).toEqual({ edit: "set-pan-point", track: "music", at: 7 * SECOND, pan: 0.8 });
  });

  it("bring a range to one side", () => {
    const range = { from: 15 * SECOND, to: 17 * SECOND, tracks: ["music"] };
    const { scene, lane, start, x } = stage({ ...pan, range });
    const y = yOfPan(lane("music"), 0.5);
    const gesture = start(hitTest(scene, x(16), y), 16, y);
    gesture.move(x(16), yOfPan(lane("music"), -1), PLAIN);
    expect(gesture.commit().edit).toMatchObject({ edit: "set-pan-range", pan: -1, ramp: 4800 });
  });

  it("let the ends of a mute be dragged: longer mutes, shorter lets be heard", () => {
    const { scene, lane, start, x } = stage({ tracks: withLanes(), activeLane: { music: "mute" } });
    const y = lane("music").top + 40;
    expect(hitTest(scene, x(5), y)).toMatchObject({ kind: "mute-span", from: 4 * SECOND });
    const drag = (from: number, to: number) => {
      const gesture = start(hitTest(scene, x(from), y), from, y);
      gesture.move(x(to), y, PLAIN);
      return gesture.commit().edit;
    };
    const span = (from: number, to: number, muted: boolean) => ({
      edit: "set-mute-range",
      track: "music",
      from: from * SECOND,
      to: to * SECOND,
      muted,
    });
    expect(drag(4, 3)).toEqual(span(3, 4, true));
    expect(drag(4, 5)).toEqual(span(4, 5, false));
    expect(drag(6, 8)).toEqual(span(6, 8, true));
    expect(drag(6, 5.5)).toEqual(span(5.5, 6, false));
  });
});

describe("markers and the playhead", () => {
  it("are taken hold of on the horizon", () => {
    const markers = [{ id: "m", at: 9 * SECOND, name: "Gangway" }];
    const { scene, layout, start, x } = stage({ markers, playhead: 4 * SECOND });
    const lower = layout.horizon.top + 34;
    expect(hitTest(scene, x(4), layout.horizon.top + 4)).toEqual({ kind: "playhead" });
    const gesture = start(hitTest(scene, x(9), lower), 9, lower);
    gesture.move(x(11), lower, PLAIN);
    expect(gesture.commit().edit).toEqual({ edit: "set-marker", marker: "m", at: 11 * SECOND });
  });
});

describe("a viewer", () => {
  it("may select, but drag nothing", () => {
    const viewer = { project: { ...opened().project, role: "viewer" as const } };
    const { state, scene, at, x, lane } = stage(viewer);
    const wire = at(4, "speech", -3);
    const from = {
      x: x(4),
      y: yOfDb(lane("speech"), -3),
      ctrl: false,
      shift: false,
      ramp: 4800,
      inside: false,
    };
    expect(wire && startGesture(wire, scene, state, from)).toBeNull();
    const body = at(4, "speech", -40);
    expect(body && startGesture(body, scene, state, from)).not.toBeNull();
  });
});
