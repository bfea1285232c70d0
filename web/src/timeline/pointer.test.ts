import { describe, expect, it } from "vitest";
import { opened, SECOND, storeOf } from "@/test/mixes";
import { chooseAt, chooseBeside } from "./clicks";
import { yOfDb } from "@/scene/geometry";
import { hitTest, isRightOn, type Target } from "@/scene/hit";
import { startGesture } from "./startGesture";
import { PLAIN, stage } from "@/test/stage";

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
