import type { Clip, Keyframe } from "@/api/types";
import { decibelsOf, formatDb } from "@/lib/format";
import type { MixState, Range } from "@/store/mixStore";
import { dragDb, type Lane, sampleAt } from "./geometry";
import { type Gesture, levelReadout, time, Travel } from "./gesture";
import { clipsInRange, sourceDb } from "./levels";
import { roughDip, roughSchedule, type Scene } from "./scene";

export function moveKeyframe(
  scene: Scene,
  state: MixState,
  clip: Clip,
  lane: Lane,
  keyframe: Keyframe,
  x: number,
  y: number,
): Gesture {
  const travel = new Travel(y);
  const gain = decibelsOf(clip.gain);
  const level = decibelsOf(keyframe.level);
  const i = clip.curve.indexOf(keyframe);
  const lowest = Math.max(clip.in, (clip.curve[i - 1]?.at ?? -1) + 1);
  const highest = Math.min(clip.in + clip.length, (clip.curve[i + 1]?.at ?? Infinity) - 1);
  let later = 0;
  let to = level;
  return {
    move(toX, toY, modifiers) {
      const dy = travel.to(toY, modifiers.fine);
      const horizontal = modifiers.axis && Math.abs(toX - x) > Math.abs(toY - y);
      const vertical = modifiers.axis && !horizontal;
      const moved =
        keyframe.at + (vertical ? 0 : Math.round((toX - x) * scene.view.perPx * (modifiers.fine ? 0.1 : 1)));
      later = Math.min(Math.max(moved, lowest), highest) - keyframe.at;
      to = horizontal ? level : rounded(Math.min(24, dragDb(lane, level + gain, dy) - gain));
      const curve = clip.curve.map((k, n) =>
        n === i ? { ...k, at: k.at + later, level: to === -Infinity ? ("silence" as const) : to } : k,
      );
      const shown = { ...clip, curve };
      const at = keyframe.at + later - clip.in + clip.at;
      return {
        preview: {
          clips: { [clip.id]: { clip: shown, schedule: roughSchedule(shown, sourceDb(state, clip)) } },
          keyframe: keyframe.at + later,
        },
        readout: `${time(state, at)} · ${levelReadout(level, to)}`,
      };
    },
    commit: () => {
      if (later === 0 && to === level) return {};
      if (Number.isFinite(to) && Number.isFinite(level)) {
        return {
          edit: { edit: "move-keyframes", clip: clip.id, keyframes: [keyframe.at], later, by: to - level },
          keyframe: keyframe.at + later,
        };
      }
      const at = keyframe.at + later - clip.in + clip.at;
      return {
        edit: { edit: "set-keyframe", clip: clip.id, keyframe: keyframe.at, at, level: levelToSend(to) },
        keyframe: keyframe.at + later,
      };
    },
  };
}

/** On a clip without keyframes the wire is its gain; between two keyframes it is that stretch, and only that. */
export function dragWire(
  scene: Scene,
  state: MixState,
  clip: Clip,
  lane: Lane,
  x: number,
  y: number,
): Gesture {
  const travel = new Travel(y);
  const position = sampleAt(scene.view, x) - clip.at + clip.in;
  const ends = stretchEnds(clip, position);
  const gain = decibelsOf(clip.gain);
  const levels = ends.map((k) => decibelsOf(k.level));
  const reference = ends.length > 0 ? gain + Math.max(...levels) : gain;
  const highest = ends.length > 0 ? 24 - Math.max(...levels) : 24 - gain;
  let by = 0;
  let to = reference;
  return {
    move(_x, toY, modifiers) {
      to = rounded(Math.min(reference + highest, dragDb(lane, reference, travel.to(toY, modifiers.fine))));
      by = to - reference;
      const readout = levelReadout(reference, to);
      if (ends.length === 0) {
        const shown = { ...clip, gain: to === -Infinity ? ("silence" as const) : to };
        return {
          preview: {
            clips: { [clip.id]: { clip: shown, schedule: roughSchedule(shown, sourceDb(state, clip)) } },
          },
          readout,
        };
      }
      const moved = clip.curve.map((k) => (ends.includes(k) ? { ...k, level: shiftedLevel(k, by) } : k));
      const shown = { ...clip, curve: moved };
      return {
        preview: {
          clips: { [clip.id]: { clip: shown, schedule: roughSchedule(shown, sourceDb(state, clip)) } },
        },
        readout,
      };
    },
    commit: () => {
      if (by === 0 || Number.isNaN(by)) return {};
      if (ends.length === 0)
        return { edit: { edit: "set-clip-gain", clips: [clip.id], gain: levelToSend(to) } };
      return {
        edit: {
          edit: "move-keyframes",
          clip: clip.id,
          keyframes: ends.map((k) => k.at),
          later: 0,
          by: Math.max(by, -144),
        },
      };
    },
  };
}

function shiftedLevel(keyframe: Keyframe, by: number): Keyframe["level"] {
  const level = decibelsOf(keyframe.level) + by;
  return Number.isFinite(level) ? level : "silence";
}

function stretchEnds(clip: Clip, position: number): Keyframe[] {
  const next = clip.curve.findIndex((k) => k.at > position);
  const after = next < 0 ? undefined : clip.curve[next];
  const before = clip.curve[(next < 0 ? clip.curve.length : next) - 1];
  return [before, after].filter((k) => k !== undefined);
}

export function dipRange(
  state: MixState,
  range: Range,
  clip: Clip,
  lane: Lane,
  db: number,
  y: number,
  ramp: number,
): Gesture {
  const travel = new Travel(y);
  const ids = clipsInRange(state, range, clip);
  let by = 0;
  return {
    move(_x, toY, modifiers) {
      const to = Math.max(
        -96 + Math.max(db, -60),
        dragDb(lane, Math.max(db, -60), travel.to(toY, modifiers.fine)),
      );
      by = Math.round((to - Math.max(db, -60)) * (modifiers.fine ? 100 : 10)) / (modifiers.fine ? 100 : 10);
      const clips = Object.fromEntries(
        ids.map((id) => {
          const c = state.clips[id] ?? clip;
          const shift = c.in - c.at;
          return [id, { extra: roughDip(range.from + shift, range.to + shift, ramp, by) }];
        }),
      );
      return {
        preview: { clips },
        readout: `${by < 0 ? "Dip" : "Lift"} ${formatDb(by)} dB · ${levelReadout(db, db + by)}`,
      };
    },
    commit: () =>
      by === 0 ? {} : { edit: { edit: "dip-range", clips: ids, from: range.from, to: range.to, by, ramp } },
  };
}

function rounded(db: number): number {
  return Number.isFinite(db) ? Math.round(db * 100) / 100 : db;
}

function levelToSend(db: number): number | string {
  return Number.isFinite(db) ? db : "silence";
}
