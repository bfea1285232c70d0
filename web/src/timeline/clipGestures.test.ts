import { describe, expect, it } from "vitest";
import { SECOND } from "@/test/mixes";
import { yOfDb } from "@/scene/geometry";
import { gripOf, hitTest } from "@/scene/hit";
import { PLAIN, drawn, stage } from "@/test/stage";

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
