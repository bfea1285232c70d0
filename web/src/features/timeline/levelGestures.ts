import type { Chosen, Clip, Edit, Keyframe, Ramp, Side } from "@/api/types";
import { decibelsOf, formatDb } from "@/lib/format";
import { curveOf, isChosen, moved, one } from "@/store/chosen";
import type { MixState, Range } from "@/store/mixStore";
import { dragDb } from "./geometry";
import { type Gesture, levelReadout, time, Travel } from "./gesture";
import type { Target } from "./hit";
import { clipsInRange } from "./levels";
import { type Preview, roughDip, roughSchedule, type Scene, withCurve } from "./scene";
import type { Start } from "./startGesture";

type On<K extends Target["kind"]> = Extract<Target, { kind: K }>;

/** All chosen keyframes move together; they stop where the first of them meets a neighbour or an end of its clip. */
export function moveKeyframes(scene: Scene, state: MixState, target: On<"keyframe">, start: Start): Gesture {
  const { clip, lane, keyframe, channel } = target;
  const travel = new Travel(start.y);
  const chosen = isChosen(state.chosen, clip.id, keyframe.at, channel)
    ? state.chosen
    : [one(clip.id, [keyframe.at], channel)];
  const gain = decibelsOf(channel ? (clip.channels?.[channel]?.gain ?? 0) : clip.gain);
  const level = decibelsOf(keyframe.level);
  const [earliest, latest] = bounds(state, chosen);
  const headroom = 24 - Math.max(...levelsOf(state, chosen));
  let later = 0;
  let to = level;
  return {
    move(toX, toY, modifiers) {
      const dy = travel.to(toY, modifiers.fine);
      const horizontal = modifiers.axis && Math.abs(toX - start.x) > Math.abs(toY - start.y);
      const vertical = modifiers.axis && !horizontal;
      const way = vertical ? 0 : Math.round((toX - start.x) * scene.view.perPx * (modifiers.fine ? 0.1 : 1));
      later = Math.min(Math.max(way, earliest), latest);
      const dragged = horizontal ? level : rounded(dragDb(lane, level + gain, dy, channel) - gain);
      to = Number.isFinite(level) ? Math.min(dragged, level + headroom) : Math.min(dragged, 24);
      const at = keyframe.at + later - clip.in + clip.at;
      return {
        preview: { clips: previews(state, chosen, later, to - level, to), chosen: moved(chosen, later) },
        readout: `${time(state, at)} · ${levelReadout(level, to)}`,
      };
    },
    commit: () => {
      if (later === 0 && to === level) return {};
      const edit: Edit =
        Number.isFinite(to) && Number.isFinite(level)
          ? { edit: "move-keyframes", chosen, later, by: to - level }
          : {
              edit: "set-keyframe",
              ...wireOf(clip, channel),
              keyframe: keyframe.at,
              at: keyframe.at + later - clip.in + clip.at,
              level: levelToSend(to),
            };
      return { edit, chosen: moved(chosen, later) };
    },
  };
}

/** How far the chosen keyframes can go earlier and later, in samples. */
function bounds(state: MixState, chosen: Chosen[]): [number, number] {
  let earliest = -Infinity;
  let latest = Infinity;
  for (const { clip: id, channel, keyframes } of chosen) {
    const clip = state.clips[id];
    if (!clip) continue;
    const curve = curveOf(clip, channel);
    const taken = new Set(keyframes);
    curve.forEach((k, i) => {
      if (!taken.has(k.at)) return;
      const before = curve[i - 1];
      const after = curve[i + 1];
      const low = before && !taken.has(before.at) ? before.at + 1 : 0;
      const high = after && !taken.has(after.at) ? after.at - 1 : Infinity;
      earliest = Math.max(earliest, Math.max(low, k.at >= clip.in ? clip.in : 0) - k.at);
      const end = clip.in + clip.length;
      latest = Math.min(latest, Math.min(high, k.at <= end ? end : Infinity) - k.at);
    });
  }
  return [Math.min(0, earliest), Math.max(0, latest)];
}

function levelsOf(state: MixState, chosen: Chosen[]): number[] {
  const levels = chosen.flatMap(({ clip: id, channel, keyframes }) => {
    const clip = state.clips[id];
    const taken = new Set(keyframes);
    return clip
      ? curveOf(clip, channel)
          .filter((k) => taken.has(k.at))
          .map((k) => decibelsOf(k.level))
      : [];
  });
  return levels.length ? levels : [0];
}

function previews(
  state: MixState,
  chosen: Chosen[],
  later: number,
  by: number,
  to: number,
): Preview["clips"] {
  const clips: Preview["clips"] = {};
  for (const { clip: id, channel, keyframes } of chosen) {
    const clip = state.clips[id];
    if (!clip) continue;
    const taken = new Set(keyframes);
    const curve = curveOf(clip, channel).map((k) =>
      taken.has(k.at) ? { ...k, at: k.at + later, level: shifted(k, by, to) } : k,
    );
    const shown = withCurve(clip, curve, channel);
    clips[id] = {
      clip: shown,
      schedule: roughSchedule(shown, channel),
      ...(channel ? { channel } : {}),
    };
  }
  return clips;
}

function shifted(keyframe: Keyframe, by: number, to: number): Keyframe["level"] {
  const level = Number.isFinite(by) ? decibelsOf(keyframe.level) + by : to;
  return Number.isFinite(level) ? level : "silence";
}

/** Drags a grip of a smooth ramp: how long it takes to leave its keyframe, or to arrive at the next. */
export function shapeRamp(scene: Scene, target: On<"ease">, x: number): Gesture {
  const { clip, keyframe, next, end, channel } = target;
  const shape: { easeOut?: number; easeIn?: number } = typeof keyframe.ramp === "string" ? {} : keyframe.ramp;
  const { easeOut: oldOut = 0.5, easeIn: oldIn = 0.5 } = shape;
  let [easeOut, easeIn] = [oldOut, oldIn];
  const ramp = (): Ramp => ({ kind: "smooth", easeOut, easeIn });
  return {
    move(toX) {
      const by = ((toX - x) * scene.view.perPx) / (next.at - keyframe.at);
      if (end === "out") {
        easeOut = percent(Math.min(1, Math.max(0, oldOut + by)));
        easeIn = Math.min(oldIn, percent(1 - easeOut));
      } else {
        easeIn = percent(Math.min(1, Math.max(0, oldIn - by)));
        easeOut = Math.min(oldOut, percent(1 - easeIn));
      }
      const curve = curveOf(clip, channel).map((k) => (k.at === keyframe.at ? { ...k, ramp: ramp() } : k));
      return {
        preview: { clips: { [clip.id]: { clip: withCurve(clip, curve, channel) } } },
        readout: `leaves over ${Math.round(easeOut * 100)} %, arrives over ${Math.round(easeIn * 100)} %`,
      };
    },
    commit: () => ({
      edit: { edit: "set-keyframe", ...wireOf(clip, channel), keyframe: keyframe.at, ramp: ramp() },
    }),
  };
}

/** On a wire without keyframes it is the gain; between two keyframes it is that stretch, and only that. */
export function dragWire(scene: Scene, state: MixState, target: On<"wire">, start: Start): Gesture {
  const { clip, lane, channel } = target;
  const travel = new Travel(start.y);
  const position = Math.round(scene.view.start + start.x * scene.view.perPx) - clip.at + clip.in;
  const curve = curveOf(clip, channel);
  const ends = stretchEnds(curve, position);
  const gain = decibelsOf(channel ? (clip.channels?.[channel]?.gain ?? 0) : clip.gain);
  const levels = ends.map((k) => decibelsOf(k.level));
  const reference = ends.length > 0 ? gain + Math.max(...levels) : gain;
  const highest = ends.length > 0 ? 24 - Math.max(...levels) : 24 - gain;
  const several =
    ends.length === 0 && !channel && state.selected.includes(clip.id) ? state.selected : [clip.id];
  const chosen = [
    one(
      clip.id,
      ends.map((k) => k.at),
      channel,
    ),
  ];
  let by = 0;
  let to = reference;
  return {
    move(_x, toY, modifiers) {
      to = rounded(
        Math.min(reference + highest, dragDb(lane, reference, travel.to(toY, modifiers.fine), channel)),
      );
      by = to - reference;
      const readout = levelReadout(reference, to) + (several.length > 1 ? ` · ${several.length} clips` : "");
      const clips =
        ends.length > 0
          ? previews(state, chosen, 0, by, to)
          : Object.fromEntries(several.map((id) => [id, gained(state, id, by, to, channel)]));
      return { preview: { clips }, readout };
    },
    commit: () => {
      if (by === 0 || Number.isNaN(by)) return {};
      if (ends.length > 0)
        return { edit: { edit: "move-keyframes", chosen, later: 0, by: Math.max(by, -144) } };
      if (channel) return { edit: { edit: "set-channel", clip: clip.id, channel, gain: levelToSend(to) } };
      if (several.length > 1 && Number.isFinite(by))
        return { edit: { edit: "change-clip-gain", clips: several, by: Math.max(by, -144) } };
      return { edit: { edit: "set-clip-gain", clips: several, gain: levelToSend(to) } };
    },
  };
}

function gained(
  state: MixState,
  id: string,
  by: number,
  to: number,
  channel?: Side,
): Preview["clips"][string] {
  const clip = state.clips[id];
  if (!clip) return {};
  const old = decibelsOf(channel ? (clip.channels?.[channel]?.gain ?? 0) : clip.gain);
  const level = Number.isFinite(by) && Number.isFinite(old) ? old + by : to;
  const gain = Number.isFinite(level) ? level : ("silence" as const);
  const own = channel && clip.channels?.[channel];
  const shown =
    channel && own && clip.channels
      ? { ...clip, channels: { ...clip.channels, [channel]: { ...own, gain } } }
      : { ...clip, gain, level: raised(clip.level, level - old, level) };
  return channel ? { clip: shown, schedule: roughSchedule(shown, channel), channel } : { clip: shown };
}

/** What is heard when the gain is another: the level with the same difference. */
function raised(level: Clip["level"], by: number, gain: number): Clip["level"] {
  const next = Number.isFinite(by) ? decibelsOf(level) + by : gain;
  return Number.isFinite(next) ? next : "silence";
}

function stretchEnds(curve: Keyframe[], position: number): Keyframe[] {
  const next = curve.findIndex((k) => k.at > position);
  const after = next < 0 ? undefined : curve[next];
  const before = curve[(next < 0 ? curve.length : next) - 1];
  return [before, after].filter((k) => k !== undefined);
}

/** Right after a change to the same range, dragging goes on with it: one dip, made deeper, not two. */
export function dipRange(state: MixState, range: Range, target: On<"dip">, start: Start): Gesture {
  const { clip, lane, db, channel } = target;
  const travel = new Travel(start.y);
  const ids = clipsInRange(state, range);
  const last = state.adjustable?.revision === state.revision ? state.adjustable.edit : null;
  const goesOn =
    last?.edit === "dip-range" &&
    last.from === range.from &&
    last.to === range.to &&
    last.channel === channel;
  const before = goesOn && typeof last.by === "number" ? last.by : 0;
  const ramp = goesOn && typeof last.ramp === "number" ? last.ramp : start.ramp;
  const inside = goesOn ? (last.inside ?? false) : start.inside;
  const floor = Math.max(db, -60);
  let by = 0;
  return {
    move(_x, toY, modifiers) {
      const to = Math.max(-96 + floor, dragDb(lane, floor, travel.to(toY, modifiers.fine), channel));
      const steps = modifiers.fine ? 100 : 10;
      by = Math.round((to - floor) * steps) / steps;
      const clips = Object.fromEntries(
        ids.map((id) => {
          const c = state.clips[id] ?? clip;
          const shift = c.in - c.at;
          const [from, end] = inside ? [range.from + ramp, range.to - ramp] : [range.from, range.to];
          return [id, { extra: roughDip(from + shift, end + shift, ramp, by) }];
        }),
      );
      const whole = before + by;
      return {
        preview: { clips },
        readout: `${whole < 0 ? "Dip" : "Lift"} ${formatDb(whole)} dB · ${levelReadout(db, db + by)}`,
      };
    },
    commit: () => {
      if (by === 0) return {};
      const whole = Math.round((before + by) * 100) / 100;
      const edit: Edit = {
        edit: "dip-range",
        clips: ids,
        from: range.from,
        to: range.to,
        by: Math.max(-96, whole),
        ramp,
        ...(inside ? { inside } : {}),
        ...(channel ? { channel } : {}),
      };
      return { edit, instead: goesOn };
    },
  };
}

export function wireOf(clip: Clip, channel?: Side): { clip: string; channel?: Side } {
  return channel ? { clip: clip.id, channel } : { clip: clip.id };
}

function percent(part: number): number {
  return Math.round(part * 100) / 100;
}

function rounded(db: number): number {
  return Number.isFinite(db) ? Math.round(db * 100) / 100 : db;
}

function levelToSend(db: number): number | string {
  return Number.isFinite(db) ? db : "silence";
}
