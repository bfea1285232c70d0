import { describe, expect, it } from "vitest";
import { SECOND } from "@/test/mixes";
import { soundArea, yOfDb } from "@/scene/geometry";
import { OUTSIDE } from "./gesture";
import { hitTest } from "@/scene/hit";
import { yOfPan } from "@/scene/sideLanes";
import { PLAIN, stage, withLanes } from "@/test/stage";

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
