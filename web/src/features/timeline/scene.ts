import type { Aim, Clip, Cue, Figures, Hue, Marker, Picture, Side, Stem, Stretch, Track } from "@/api/types";
import { decibelsOf } from "@/lib/format";
import { levelLane } from "@/lib/lanes";
import { gainAt } from "@/lib/schedule";
import { decibelsAt } from "@/lib/schedule";
import { curveOf } from "@/store/chosen";
import type { MixState, Range } from "@/store/mixStore";
import { type Lane, type Layout, type View, xOf } from "./geometry";

/** A level wire as it is drawn: that of a clip, or that of one channel of an opened clip. */
export interface DrawnWire {
  channel?: Side;
  schedule: Stretch[];
  /** What is added to the schedule: the gain of the clip. That of a channel is in its schedule already. */
  addDb: number;
  /** What is added to the level of each keyframe. */
  gainDb: number;
}

/** A clip as it is drawn: as stored, or as a drag shows it before the server has answered. */
export interface DrawnClip {
  clip: Clip;
  lane: Lane;
  wires: DrawnWire[];
  /** Fader of the track, gain of the clip and of its source in dB: heard all along. */
  levelDb: number;
  /** Gain of the lanes of its track at a position of its source; null where none moves. */
  lanes: ((position: number) => number) | null;
  /** Difference in dB that a drag adds at a source position. */
  extra: ((position: number) => number) | null;
  selected: boolean;
  wiresHidden: boolean;
}

export interface Scene {
  view: View;
  layout: Layout;
  width: number;
  rate: number;
  frameRate: string;
  clips: DrawnClip[];
  range: Range | null;
  /** Ramp length in samples at the range's ends, where these can still be adjusted. */
  ramp: number | null;
  inside: boolean;
  chosen: MixState["chosen"];
  markers: Marker[];
  strip: Picture[];
  lasso: { left: number; top: number; right: number; bottom: number } | null;
  length: number;
  playhead: number;
  solo: string[];
  figures: Figures | null;
  aim: Aim;
  captions: Cue[];
  /** Where the buried stretch at hand begins. */
  stretch: number | null;
  /** Whether a rule of ducking is tried, whose stretches are shown in place of buried ones. */
  trying: boolean;
  duckTry: MixState["duckTry"];
  activeLane: MixState["activeLane"];
  laneExtra: Record<string, (position: number) => number> | null;
}

/** What a drag shows instead of the stored state. */
export interface Preview {
  clips: Record<
    string,
    { clip?: Clip; schedule?: Stretch[]; channel?: Side; extra?: (position: number) => number }
  >;
  range?: Range | null;
  chosen?: MixState["chosen"];
  lasso?: Scene["lasso"];
  ramp?: number;
  markers?: Marker[];
  /** dB on top of the lane that is edited, by track. */
  lanes?: Record<string, (position: number) => number>;
}

export function buildScene(
  state: MixState,
  layout: Layout,
  view: View,
  width: number,
  preview: Preview | null,
): Scene {
  const lanes = new Map(layout.lanes.map((lane) => [lane.track.id, lane]));
  const clips: DrawnClip[] = [];
  for (const stored of Object.values(state.clips)) {
    const shown = preview?.clips[stored.id];
    const clip = shown?.clip ?? stored;
    const lane = lanes.get(clip.track);
    if (!lane || xOf(view, clip.at) > width || xOf(view, clip.at + clip.length) < 0) continue;
    clips.push({
      clip,
      lane,
      wires: wiresOf(clip, shown?.schedule, shown?.channel),
      levelDb: (levelLane(lane.track).length ? 0 : decibelsOf(lane.track.fader)) + decibelsOf(clip.level),
      lanes: lanesOver(clip, lane.track, state.duckTry?.[lane.track.id] ?? lane.track.duckingLevels),
      extra: shown?.extra ?? null,
      selected: state.selected.includes(clip.id),
      wiresHidden: state.hiddenWires.includes(clip.track),
    });
  }
  clips.sort((a, b) => a.clip.at - b.clip.at);
  const adjustable = state.adjustable?.revision === state.revision ? state.adjustable.edit : null;
  return {
    view,
    layout,
    width,
    rate: state.rate,
    frameRate: state.frameRate,
    clips,
    range: preview?.range === undefined ? state.range : preview.range,
    ramp: preview?.ramp ?? (adjustable && typeof adjustable.ramp === "number" ? adjustable.ramp : null),
    inside: adjustable?.inside ?? false,
    chosen: preview?.chosen ?? state.chosen,
    markers: preview?.markers ?? state.markers,
    strip: state.strip,
    lasso: preview?.lasso ?? null,
    length: state.length,
    playhead: state.playhead,
    solo: state.solo,
    figures: state.figures,
    aim: state.aim,
    captions: state.captions,
    stretch: state.stretch,
    trying: state.duckPlan !== null,
    duckTry: state.duckTry,
    activeLane: state.activeLane,
    laneExtra: preview?.lanes ?? null,
  };
}

function lanesOver(clip: Clip, track: Track, ducking: Stretch[] | undefined): DrawnClip["lanes"] {
  const rows = [track.levels, clip.ducked === false ? undefined : ducking].filter((row) => row?.length);
  if (!rows.length) return null;
  const shift = clip.at - clip.in;
  return (position) => rows.reduce((gain, row) => gain * (row ? gainAt(row, position + shift) : 1), 1);
}

function wiresOf(clip: Clip, schedule?: Stretch[], channel?: Side): DrawnWire[] {
  const own: DrawnWire = {
    schedule: schedule && !channel ? schedule : clip.schedule,
    addDb: decibelsOf(clip.gain),
    gainDb: decibelsOf(clip.gain),
  };
  if (!clip.channelSchedules) return [own];
  const sides = (["left", "right"] as const).map((side) => ({
    channel: side,
    schedule: (schedule && channel === side ? schedule : clip.channelSchedules?.[side]) ?? [],
    addDb: 0,
    gainDb: decibelsOf(clip.channels?.[side]?.gain ?? 0),
  }));
  return [own, ...sides];
}

/** The wires that can be taken hold of: those of the channels where a clip is opened, else its own. */
export function grippable(drawn: DrawnClip): DrawnWire[] {
  return drawn.wires.length > 1 ? drawn.wires.slice(1) : drawn.wires;
}

/** Level of a wire in dB at a source position. */
export function wireDb(drawn: DrawnClip, wire: DrawnWire, stretch: Stretch, position: number): number {
  const extra = wire.channel ? 0 : (drawn.extra?.(position) ?? 0);
  return decibelsAt(stretch, position) + wire.addDb + extra;
}

/** A straight-line stand-in for a schedule while its keyframes are dragged; the server's own replaces it. */
export function roughSchedule(clip: Clip, channel?: Side): Stretch[] {
  const around = channel ? decibelsOf(clip.channels?.[channel]?.gain ?? 0) : 0;
  const points = curveOf(clip, channel).map((k) => ({
    at: k.at,
    db: Math.max(-144, decibelsOf(k.level) + around),
    hold: k.ramp === "hold",
  }));
  const end = clip.in + clip.length;
  const first = points[0];
  const last = points[points.length - 1];
  if (!first || !last) return [{ from: clip.in, to: end, db: [around, 0] }];
  const stretches: Stretch[] = [];
  if (first.at > clip.in) stretches.push({ from: clip.in, to: first.at, db: [first.db, 0] });
  for (let i = 1; i < points.length; i++) {
    const a = points[i - 1];
    const b = points[i];
    if (a && b && b.at > a.at) stretches.push({ from: a.at, to: b.at, db: [a.db, a.hold ? 0 : b.db - a.db] });
  }
  if (last.at < end) stretches.push({ from: last.at, to: end, db: [last.db, 0] });
  return stretches;
}

/** A clip with other keyframes on one of its wires, as a drag shows it. */
export function withCurve(clip: Clip, curve: Clip["curve"], channel?: Side): Clip {
  const level = channel && clip.channels?.[channel];
  if (!channel || !level || !clip.channels) return { ...clip, curve };
  return { ...clip, channels: { ...clip.channels, [channel]: { ...level, curve } } };
}

/** What a dip adds along a clip: nothing, down the ramp, all of it, up the ramp. Straight where the server's is smooth. */
export function roughDip(from: number, to: number, ramp: number, by: number): (position: number) => number {
  return (position) => {
    const into =
      ramp > 0 ? Math.min(1, Math.max(0, (position - from + ramp) / ramp)) : Number(position >= from);
    const out = ramp > 0 ? Math.min(1, Math.max(0, (to + ramp - position) / ramp)) : Number(position < to);
    return by * Math.min(into, out);
  };
}

/** The ink of a track. */
export function inkOf(track: Track): Stem | Hue {
  return track.hue ?? track.stem;
}
