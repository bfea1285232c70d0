import type { Chosen, Clip, Edit, Keyframe, Ramp, Side } from "@/api/schema";
import { decibelsOf, formatDb } from "@/lib/format";
import { isChosen, moved } from "@/store/chosen";
import type { MixState } from "@/store/mixStore";
import { looseChange, rampsFor, type Range } from "@/store/screen";
import { sameWire, sideOf, type Wire, wireIn } from "@/store/wires";
import { dragDb, snapDb, soundArea } from "@/scene/geometry";
import { type Gesture, levelReadout, OUTSIDE, time, Travel } from "./gesture";
import type { Target } from "@/scene/hit";
import { wiresInRange } from "@/scene/levels";
import { keyframeBounds } from "@/preview/bounds";
import { CORE } from "@/preview/constants";
import { dipAdds, withinDip } from "@/preview/dip";
import { type Preview, roughSchedule, type Scene, withCurves } from "@/scene/scene";
import type { Start } from "./startGesture";

type On<K extends Target["kind"]> = Extract<Target, { kind: K }>;

/** All chosen keyframes move together; they stop where the first of them meets a neighbour or an end of its clip. */
export function moveKeyframes(
  scene: Scene,
  state: MixState,
  target: On<"keyframe">,
  start: Start,
): Gesture | null {
  const { lane, keyframe } = target;
  const wire = wireIn(state, target.wire);
  if (!wire) return null;
  const travel = new Travel(start.y);
  const chosen = isChosen(state.chosen, wire.id, keyframe.at)
    ? state.chosen
    : [{ ...wire.id, keyframes: [keyframe.at] }];
  const wires = taken(state, chosen);
  const level = decibelsOf(keyframe.level);
  const [earliest, latest] = keyframeBounds(wires.map((w) => ({ ...w.wire, keyframes: w.keyframes })));
  const headroom = Math.min(...wires.map((w) => w.wire.most - Math.max(...levelsOf(w))));
  let later = 0;
  let to = level;
  let gone = false;
  const area = soundArea(lane, sideOf(wire.id));
  const beside = besideLevels(wire, wires.find((w) => sameWire(w.wire.id, wire.id))?.keyframes ?? new Set());
  const count = wires.reduce((sum, w) => sum + w.keyframes.size, 0);
  return {
    move(toX, toY, modifiers) {
      gone = toY < area.top - OUTSIDE || toY > area.bottom + OUTSIDE;
      if (gone)
        return {
          preview: { ...without(state, wires), chosen: [] },
          readout: `Let go to remove ${count === 1 ? "this keyframe" : `these ${count} keyframes`}`,
        };
      const dy = travel.to(toY, modifiers.fine);
      const horizontal = modifiers.axis && Math.abs(toX - start.x) > Math.abs(toY - start.y);
      const vertical = modifiers.axis && !horizontal;
      const way = vertical ? 0 : Math.round((toX - start.x) * scene.view.perPx * (modifiers.fine ? 0.1 : 1));
      later = Math.min(Math.max(way, earliest), latest);
      const side = sideOf(wire.id);
      const free = modifiers.free || modifiers.fine;
      const wanted = dragDb(lane, level + wire.gainDb, dy, side);
      const snapped = free ? wanted : snapDb(lane, wanted, beside, side);
      const dragged = horizontal ? level : rounded(snapped - wire.gainDb);
      to = Number.isFinite(level) ? Math.min(dragged, level + headroom) : Math.min(dragged, wire.most);
      return {
        preview: { ...shown(state, wires, later, to - level, to), chosen: moved(chosen, later) },
        readout: `${time(state, keyframe.at + later - wire.ahead)} · ${levelReadout(level, to)}`,
      };
    },
    commit: () => {
      if (gone) return { edit: { edit: "remove-keyframes", chosen }, chosen: [] };
      if (later === 0 && to === level) return {};
      const edit: Edit =
        Number.isFinite(to) && Number.isFinite(level)
          ? { edit: "move-keyframes", chosen, later, by: to - level }
          : {
              edit: "set-keyframe",
              ...wire.id,
              keyframe: keyframe.at,
              at: keyframe.at + later - wire.ahead,
              level: levelToSend(to),
            };
      return { edit, chosen: moved(chosen, later) };
    },
  };
}

/** A wire, and which of its keyframes a drag takes. */
interface Taken {
  wire: Wire;
  keyframes: Set<number>;
}

function taken(state: MixState, chosen: Chosen[]): Taken[] {
  return chosen.flatMap((c) => {
    const wire = wireIn(state, c);
    return wire ? [{ wire, keyframes: new Set(c.keyframes) }] : [];
  });
}

/** Levels that a drag comes to rest on: 0 dB, and those of the keyframes on either side of what is dragged. dB, gain included. */
function besideLevels(wire: Wire, dragged: Set<number>): number[] {
  const levels = [0];
  wire.curve.forEach((k, i) => {
    const next = dragged.has(wire.curve[i - 1]?.at ?? -1) || dragged.has(wire.curve[i + 1]?.at ?? -1);
    if (!dragged.has(k.at) && next) levels.push(decibelsOf(k.level) + wire.gainDb);
  });
  return levels;
}

function levelsOf({ wire, keyframes }: Taken): number[] {
  return wire.curve.filter((k) => keyframes.has(k.at)).map((k) => decibelsOf(k.level));
}

function shown(state: MixState, wires: Taken[], later: number, by: number, to: number): Preview {
  return withCurves(
    state,
    wires.map(({ wire, keyframes }) => ({
      id: wire.id,
      curve: wire.curve.map((k) =>
        keyframes.has(k.at) ? { ...k, at: k.at + later, level: shifted(k, by, to) } : k,
      ),
    })),
  );
}

function without(state: MixState, wires: Taken[]): Preview {
  return withCurves(
    state,
    wires.map(({ wire, keyframes }) => ({
      id: wire.id,
      curve: wire.curve.filter((k) => !keyframes.has(k.at)),
    })),
  );
}

function shifted(keyframe: Keyframe, by: number, to: number): Keyframe["level"] {
  const level = Number.isFinite(by) ? decibelsOf(keyframe.level) + by : to;
  return Number.isFinite(level) ? level : "silence";
}

/** Drags a grip of a smooth ramp: how long it takes to leave its keyframe, or to arrive at the next. */
export function shapeRamp(scene: Scene, state: MixState, target: On<"ease">, x: number): Gesture {
  const { wire: id, keyframe, next, end } = target;
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
      const curve = (wireIn(state, id)?.curve ?? []).map((k) =>
        k.at === keyframe.at ? { ...k, ramp: ramp() } : k,
      );
      return {
        preview: withCurves(state, [{ id, curve }], false),
        readout: `leaves over ${Math.round(easeOut * 100)} %, arrives over ${Math.round(easeIn * 100)} %`,
      };
    },
    commit: () => ({
      edit: { edit: "set-keyframe", ...id, keyframe: keyframe.at, ramp: ramp() },
    }),
  };
}

/** On a wire without keyframes it is the gain, or the fader; between two keyframes it is that stretch, and only that. */
export function dragWire(scene: Scene, state: MixState, target: On<"wire">, start: Start): Gesture | null {
  const { lane } = target;
  const wire = wireIn(state, target.wire);
  if (!wire) return null;
  const { id } = wire;
  const travel = new Travel(start.y);
  const position = Math.round(scene.view.start + start.x * scene.view.perPx) + wire.ahead;
  const ends = stretchEnds(wire.curve, position);
  if (ends.length === 0) return dragRest(state, wire, target, travel);
  const levels = ends.map((k) => decibelsOf(k.level));
  const reference = wire.gainDb + Math.max(...levels);
  const chosen: Chosen[] = [{ ...id, keyframes: ends.map((k) => k.at) }];
  const wires = taken(state, chosen);
  const beside = besideLevels(wire, new Set(ends.map((k) => k.at)));
  let by = 0;
  return {
    move(_x, toY, { fine, free }) {
      const wanted = dragDb(lane, reference, travel.to(toY, fine), sideOf(id));
      const snapped = fine || free ? wanted : snapDb(lane, wanted, beside, sideOf(id));
      // A stretch stays on its lane; to be silent is asked for by name.
      const dragged = Math.max(STRETCH_FLOOR, snapped);
      const to = rounded(Math.min(wire.gainDb + wire.most, dragged));
      by = to - reference;
      return { preview: shown(state, wires, 0, by, to), readout: levelReadout(reference, to) };
    },
    commit: () => {
      if (by === 0 || Number.isNaN(by)) return {};
      return { edit: { edit: "move-keyframes", chosen, later: 0, by: Math.max(by, -144) } };
    },
  };
}

/** dB that the louder end of a dragged stretch can go down to. */
const STRETCH_FLOOR = -60;

/** A wire without keyframes: the gain of the selected clips, of a channel, or the fader of the track. */
function dragRest(
  state: MixState,
  { id, gainDb }: Wire,
  { lane }: On<"wire">,
  travel: Travel,
): Gesture | null {
  if ("track" in id && id.lane !== "level") return null;
  const rest = "track" in id ? decibelsOf(lane.track.fader) : gainDb;
  const most = "track" in id ? CORE.highest.fader : CORE.highest.clip;
  const several =
    "track" in id
      ? []
      : id.channel === undefined && state.selected.includes(id.clip)
        ? state.selected
        : [id.clip];
  let to = rest;
  return {
    move(_x, toY, { fine, free }) {
      const wanted = dragDb(lane, rest, travel.to(toY, fine), sideOf(id));
      to = rounded(Math.min(most, fine || free ? wanted : snapDb(lane, wanted, [0], sideOf(id))));
      const by = to - rest;
      const readout = levelReadout(rest, to) + (several.length > 1 ? ` · ${several.length} clips` : "");
      if ("track" in id)
        return { preview: { clips: {}, lanes: { [id.track]: { extra: () => by } } }, readout };
      const clips = several.map((clip) => [clip, gained(state, clip, by, to, id.channel)] as const);
      return { preview: { clips: Object.fromEntries(clips) }, readout };
    },
    commit: () => {
      const by = to - rest;
      const level = levelToSend(to);
      if (by === 0 || Number.isNaN(by)) return {};
      if ("track" in id) return { edit: { edit: "set-fader", track: id.track, fader: level } };
      const { clip, channel } = id;
      if (channel) return { edit: { edit: "set-channel", clip, channel, gain: level } };
      if (several.length > 1 && Number.isFinite(by))
        return { edit: { edit: "change-clip-gain", clips: several, by: Math.max(by, -144) } };
      return { edit: { edit: "set-clip-gain", clips: several, gain: level } };
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
  const { wire, lane, db } = target;
  const travel = new Travel(start.y);
  const over = wiresInRange(state, range, wire);
  const last = looseChange(state);
  const goesOn =
    last?.edit === "dip-range" &&
    last.from === range.from &&
    last.to === range.to &&
    placeOfEdit(last) === placeOfEdit(over);
  const before = goesOn && typeof last.by === "number" ? last.by : 0;
  const ramp = goesOn && typeof last.ramp === "number" ? last.ramp : start.ramp;
  const insideFor = (by: number) => (goesOn ? (last.inside ?? false) : rampsFor(state.settings, by).inside);
  const floor = Math.max(db, -60);
  let by = 0;
  return {
    move(_x, toY, modifiers) {
      const dragged = dragDb(lane, floor, travel.to(toY, modifiers.fine), sideOf(wire));
      const steps = modifiers.fine ? 100 : 10;
      const whole = withinDip(before + Math.round((dragged - floor) * steps) / steps);
      by = whole - before;
      return {
        preview: dipped(state, range, over, insideFor(whole) ? -ramp : 0, ramp, by),
        readout: `${whole < 0 ? "Dip" : "Lift"} ${formatDb(whole)} dB · ${levelReadout(db, db + by)}`,
      };
    },
    commit: () => {
      if (by === 0) return {};
      const whole = Math.round((before + by) * 100) / 100;
      const { from, to } = range;
      const edit: Edit = {
        edit: "dip-range",
        ...over,
        from,
        to,
        by: whole,
        ramp,
        ...(insideFor(whole) ? { inside: true } : {}),
      };
      return { edit, instead: goesOn };
    },
  };
}

type Over = ReturnType<typeof wiresInRange>;

/** Which kind of wire a change to a range works on, so that the next one can go on with it. */
function placeOfEdit(over: Over): string {
  return "track" in over ? `${over.track} ${over.lane}` : (over.channel ?? "clips");
}

/** @param out samples by which the full depth reaches beyond the range; negative where the ramps lie within it */
function dipped(state: MixState, range: Range, over: Over, out: number, ramp: number, by: number): Preview {
  const [from, to] = [range.from - out, range.to + out];
  if ("track" in over) return { clips: {}, lanes: { [over.track]: { extra: dipAdds(from, to, ramp, by) } } };
  const clips = over.clips.map((id) => {
    const ahead = wireIn(state, { clip: id })?.ahead ?? 0;
    return [id, { extra: dipAdds(from + ahead, to + ahead, ramp, by) }] as const;
  });
  return { clips: Object.fromEntries(clips) };
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
