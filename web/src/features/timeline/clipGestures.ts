import type { Clip } from "@/api/types";
import type { MixState } from "@/store/mixStore";
import { laneAt, sampleAt, snapTo } from "./geometry";
import { type Gesture, SNAP_PX, snapTargets, time } from "./gesture";
import type { Scene } from "./scene";

export function moveClip(scene: Scene, state: MixState, clip: Clip, x: number): Gesture {
  const targets = snapTargets(state, clip.id);
  const reach = SNAP_PX * scene.view.perPx;
  let moved = clip;
  return {
    move(to, y, modifiers) {
      const lane = laneAt(scene.layout, y);
      let at = Math.max(0, clip.at + Math.round((to - x) * scene.view.perPx));
      if (!modifiers.free) {
        const byStart = snapTo(at, targets, reach);
        const byEnd = snapTo(at + clip.length, targets, reach) - clip.length;
        at = Math.max(0, Math.abs(byStart - at) > 0 ? byStart : byEnd);
      }
      if (modifiers.axis) at = clip.at;
      moved = { ...clip, at, track: lane?.track.id ?? clip.track };
      const where = lane && lane.track.id !== clip.track ? ` on ${lane.track.name}` : "";
      return {
        preview: { clips: { [clip.id]: { clip: moved } } },
        readout: `${time(state, clip.at)} → ${time(state, at)}${where}`,
      };
    },
    commit: () =>
      moved.at === clip.at && moved.track === clip.track
        ? {}
        : { edit: { edit: "move-clip", clip: clip.id, track: moved.track, at: moved.at } },
  };
}

export function trimClip(scene: Scene, state: MixState, clip: Clip, edge: "from" | "to"): Gesture {
  const targets = snapTargets(state, clip.id);
  const earliest = Math.max(0, clip.at - clip.in);
  const latest = clip.at - clip.in + (state.sources[clip.source]?.length ?? clip.in + clip.length);
  let trimmed = clip;
  return {
    move(x, _y, modifiers) {
      const at = sampleAt(scene.view, x);
      const snapped = modifiers.free ? at : snapTo(at, targets, SNAP_PX * scene.view.perPx);
      if (edge === "from") {
        const from = Math.min(Math.max(snapped, earliest), clip.at + clip.length - 1);
        trimmed = { ...clip, at: from, in: clip.in + from - clip.at, length: clip.length - from + clip.at };
      } else {
        trimmed = { ...clip, length: Math.min(Math.max(snapped, clip.at + 1), latest) - clip.at };
      }
      const [was, is] =
        edge === "from" ? [clip.at, trimmed.at] : [clip.at + clip.length, trimmed.at + trimmed.length];
      const schedule = stretched(trimmed);
      return {
        preview: { clips: { [clip.id]: { clip: trimmed, schedule } } },
        readout: `${time(state, was)} → ${time(state, is)}`,
      };
    },
    commit: () =>
      trimmed.at === clip.at && trimmed.length === clip.length
        ? {}
        : { edit: { edit: "trim-clip", clip: clip.id, from: trimmed.at, to: trimmed.at + trimmed.length } },
  };
}

/** The stored schedule, its ends drawn out as far as the clip now reaches; the server knows what comes there. */
function stretched(clip: Clip): Clip["schedule"] {
  const last = clip.schedule.length - 1;
  const level = (i: number) => clip.schedule[i] ?? { from: 0, to: 1, db: [0, 0] };
  const first = level(0);
  const before =
    first.from > clip.in
      ? [
          {
            from: clip.in,
            to: first.from,
            ...(first.gain ? { gain: [first.gain[0] ?? 0, 0] } : { db: [first.db?.[0] ?? 0, 0] }),
          },
        ]
      : [];
  const end = level(last);
  const sum = (values: number[] | undefined) => (values ?? []).reduce((a, b) => a + b, 0);
  const after =
    end.to < clip.in + clip.length
      ? [
          {
            from: end.to,
            to: clip.in + clip.length,
            ...(end.gain ? { gain: [sum(end.gain), 0] } : { db: [sum(end.db), 0] }),
          },
        ]
      : [];
  return [...before, ...clip.schedule, ...after];
}
