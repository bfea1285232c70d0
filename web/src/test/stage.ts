import { opened, SECOND, storeOf } from "@/test/mixes";
import { layOut, type View, xOf, yOfDb } from "@/scene/geometry";
import { type Modifiers } from "@/timeline/gesture";
import { hitTest, type Target } from "@/scene/hit";
import { buildScene, type Scene } from "@/scene/scene";
import { startGesture } from "@/timeline/startGesture";

const VIEW: View = { start: 0, perPx: (20 * SECOND) / 800 };
export const PLAIN: Modifiers = { axis: false, fine: false, free: true };

/** A drawn mix that gestures are begun on, for their tests. */
export function stage(part: Parameters<typeof storeOf>[0] = {}) {
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

export function drawn(scene: Scene, clip: string) {
  const found = scene.clips.find((d) => d.clip.id === clip);
  if (!found) throw new Error(clip);
  return found;
}

/** The two tracks with every lane there is, music with all of them. */
export function withLanes() {
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
