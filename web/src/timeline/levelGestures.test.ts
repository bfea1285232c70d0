import { describe, expect, it } from "vitest";
import { opened, SECOND } from "@/test/mixes";
import { yOfDb } from "@/scene/geometry";
import { easesOf, hitTest } from "@/scene/hit";
import type { Adjustable } from "@/store/screen";
import { PLAIN, drawn, stage } from "@/test/stage";

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
