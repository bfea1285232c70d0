import type { Clip, Edit, Keyframe } from "@/api/types";
import { decibelsOf, formatDb } from "@/lib/format";
import { decibelsAt, stretchIndexAt } from "@/lib/schedule";
import { formatTimecode } from "@/lib/timecode";
import type { MixState, Range } from "@/store/mixStore";
import { dragDb, type Lane, laneAt, sampleAt, snapTo } from "./geometry";
import type { Target } from "./hit";
import { type Preview, roughDip, roughSchedule, type Scene } from "./scene";

export interface Modifiers {
  /** Keep to the axis moved along first. */
  axis: boolean;
  /** A tenth of the way. */
  fine: boolean;
  /** Hold snapping off. */
  free: boolean;
}

export interface Shown {
  preview: Preview;
  /** "−4.5 → −8.2 dB (−3.7)" */
  readout: string;
}

/** A drag from its first pixel to its last: many previews, and at the end one edit, or a change of what is selected. */
export interface Gesture {
  move(x: number, y: number, modifiers: Modifiers): Shown;
  commit(): { edit?: Edit; range?: Range | null; keyframe?: number };
}

export const SNAP_PX = 8;

export function startGesture(
  target: Target,
  scene: Scene,
  state: MixState,
  x: number,
  y: number,
  ramp: number,
): Gesture | null {
  const canEdit = state.project.role !== "viewer";
  switch (target.kind) {
    case "horizon":
    case "lane":
    case "body":
      return selectRange(scene, state, x, target.kind === "horizon" ? null : target.lane.track.id);
    case "range-edge":
      return state.range && resizeRange(scene, state, state.range, target.edge);
    case "name":
      return canEdit ? moveClip(scene, state, target.clip, x) : null;
    case "trim":
      return canEdit ? trimClip(scene, state, target.clip, target.edge) : null;
    case "keyframe":
      return canEdit ? moveKeyframe(scene, state, target.clip, target.lane, target.keyframe, x, y) : null;
    case "wire":
      return canEdit ? dragWire(scene, state, target.clip, target.lane, x, y) : null;
    case "dip":
      return canEdit && state.range
        ? dipRange(state, state.range, target.clip, target.lane, target.db, y, ramp)
        : null;
  }
}

/** A typed or dragged level as "from → to (difference)". */
export function levelReadout(from: number, to: number): string {
  const difference = to - from;
  return `${formatDb(from)} → ${formatDb(to)}${Number.isFinite(to) ? " dB" : ""}${Number.isFinite(difference) ? ` (${formatDb(difference)})` : ""}`;
}

function time(state: MixState, sample: number): string {
  return formatTimecode(sample, state.rate, state.frameRate);
}

/** Where things may snap to: ends of clips, the playhead, the range and the very start. */
export function snapTargets(state: MixState, but: string | null): number[] {
  const targets = [0, state.playhead];
  for (const clip of Object.values(state.clips))
    if (clip.id !== but) targets.push(clip.at, clip.at + clip.length);
  if (state.range) targets.push(state.range.from, state.range.to);
  return targets;
}

/** Vertical way travelled, slower while the fine modifier is held. */
class Travel {
  private last: number;
  private sum = 0;

  constructor(start: number) {
    this.last = start;
  }

  to(y: number, fine: boolean): number {
    this.sum += (y - this.last) * (fine ? 0.1 : 1);
    this.last = y;
    return this.sum;
  }
}

function selectRange(scene: Scene, state: MixState, x: number, track: string | null): Gesture {
  const reach = SNAP_PX * scene.view.perPx;
  const targets = snapTargets({ ...state, range: null }, null);
  const start = Math.max(0, sampleAt(scene.view, x));
  let range: Range | null = null;
  return {
    move(to, _y, modifiers) {
      const snap = (sample: number) => (modifiers.free ? sample : snapTo(sample, targets, reach));
      const ends = [snap(start), snap(Math.max(0, sampleAt(scene.view, to)))].sort((a, b) => a - b) as [
        number,
        number,
      ];
      range = ends[1] > ends[0] ? { from: ends[0], to: ends[1], track } : null;
      return {
        preview: { clips: {}, range },
        readout: range ? `${time(state, range.from)} – ${time(state, range.to)}` : "",
      };
    },
    commit: () => ({ range }),
  };
}

function resizeRange(scene: Scene, state: MixState, old: Range, edge: "from" | "to"): Gesture {
  const targets = snapTargets({ ...state, range: null }, null);
  let range = old;
  return {
    move(x, _y, modifiers) {
      const at = Math.max(0, sampleAt(scene.view, x));
      const snapped = modifiers.free ? at : snapTo(at, targets, SNAP_PX * scene.view.perPx);
      range =
        edge === "from"
          ? { ...old, from: Math.min(snapped, old.to - 1) }
          : { ...old, to: Math.max(snapped, old.from + 1) };
      return {
        preview: { clips: {}, range },
        readout: `${time(state, range.from)} – ${time(state, range.to)}`,
      };
    },
    commit: () => ({ range }),
  };
}

function moveClip(scene: Scene, state: MixState, clip: Clip, x: number): Gesture {
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

function trimClip(scene: Scene, state: MixState, clip: Clip, edge: "from" | "to"): Gesture {
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

function moveKeyframe(
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
function dragWire(scene: Scene, state: MixState, clip: Clip, lane: Lane, x: number, y: number): Gesture {
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

function dipRange(
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

/** The clips that a dip works on: the given one, and every other under a range on its track. */
export function clipsInRange(state: MixState, range: Range, clip: Clip): string[] {
  const ids = Object.values(state.clips)
    .filter((c) => c.track === clip.track && c.at < range.to && c.at + c.length > range.from)
    .map((c) => c.id);
  return range.track === null ? [clip.id] : ids;
}

function sourceDb(state: MixState, clip: Clip): number {
  return decibelsOf(state.sources[clip.source]?.gain ?? 0);
}

function rounded(db: number): number {
  return Number.isFinite(db) ? Math.round(db * 100) / 100 : db;
}

function levelToSend(db: number): number | string {
  return Number.isFinite(db) ? db : "silence";
}

/** Level of a stored clip at a timeline position, for a number that people read. */
export function storedLevelAt(state: MixState, clip: Clip, position: number): number {
  const source = position - clip.at + clip.in;
  const stretch = clip.schedule[stretchIndexAt(clip.schedule, source)];
  if (!stretch) return decibelsOf(clip.gain);
  return decibelsAt(stretch, Math.min(Math.max(source, stretch.from), stretch.to)) - sourceDb(state, clip);
}
