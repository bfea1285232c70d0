import type {
  Aim,
  Clip,
  Cue,
  Clarity,
  Figures,
  Hue,
  Keyframe,
  Lane as LaneKind,
  Marker,
  Picture,
  Side,
  Stem,
  Stretch,
  Track,
  WireId,
} from "@/api/schema";
import { decibelsOf, unlinkedGain } from "@/lib/format";
import { scheduleOf } from "@/preview/curve";
import { levelLane } from "@/preview/lanes";
import { decibelsAt, stretchIndexAt } from "@/preview/schedule";
import type { MixState } from "@/store/mixStore";
import { givingWay, type HeightScale, looseChange, type Range } from "@/store/screen";
import { curveOf, laneCurve, sideOf, wireIn, wireOf } from "@/store/wires";
import { type Lane, type Layout, type View, xOf } from "./geometry";
import type { GainRow } from "./soundGain";

/** A level wire as it is drawn: that of a clip, of one channel of an opened clip, or a lane of a track. */
export interface DrawnWire {
  id: WireId;
  curve: Keyframe[];
  schedule: Stretch[];
  /** Samples by which its own time is ahead of the timeline's, and the part of it that counts. */
  ahead: number;
  from: number;
  to: number;
  /** What is added to the schedule: the gain of the clip. That of a channel is in its schedule already. */
  addDb: number;
  /** What is added to the level of each keyframe. */
  gainDb: number;
  /** Difference in dB that a drag adds at a position of its own. */
  extra: ((position: number) => number) | null;
}

/** The level or ducking lane of a track as it is drawn. */
export interface DrawnLane {
  lane: Lane;
  kind: LaneKind;
  wire: DrawnWire;
  /** Whether it is edited in place of the wires of its clips. */
  active: boolean;
}

/** A clip as it is drawn: as stored, or as a drag shows it before the server has answered. */
export interface DrawnClip {
  clip: Clip;
  lane: Lane;
  wires: DrawnWire[];
  /** Fader of the track, gain of the clip and of its source in dB: heard all along. */
  levelDb: number;
  /** Lanes of its track that it follows. */
  rows: GainRow[];
  /** Difference in dB that a drag adds at a source position. */
  extra: ((position: number) => number) | null;
  selected: boolean;
  wiresHidden: boolean;
  /** Where a later clip begins to lie over it, in timeline samples; its own end where none does. */
  coveredFrom: number;
}

export interface Scene {
  view: View;
  layout: Layout;
  width: number;
  rate: number;
  frameRate: string;
  clips: DrawnClip[];
  lanes: DrawnLane[];
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
  clarity: Clarity | null;
  judged: MixState["judged"];
  aim: Aim;
  captions: Cue[];
  /** Where the buried stretch at hand begins. */
  stretch: number | null;
  /** Whether a rule of ducking is tried, whose stretches are shown in place of buried ones. */
  trying: boolean;
  duckTry: MixState["duckTry"];
  activeLane: MixState["activeLane"];
  /** How the height of sound follows its level. */
  heights: HeightScale;
}

/** The parts of the state that are drawn as they stand. */
export const DRAWN = [
  "clips",
  "tracks",
  "sources",
  "selected",
  "chosen",
  "range",
  "length",
  "rate",
  "frameRate",
  "markers",
  "strip",
  "adjustable",
  "revision",
  "hiddenWires",
  "solo",
  "figures",
  "clarity",
  "judged",
  "aim",
  "captions",
  "stretch",
  "duckTry",
  "duckPlan",
  "activeLane",
  "closed",
  "heightScale",
] as const satisfies (keyof MixState)[];

/** What is drawn of the state; the playhead too, where it stands still. */
export type Drawn = Pick<MixState, (typeof DRAWN)[number] | "playhead">;

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
  /** Tracks with another pan or mute lane. */
  tracks?: Record<string, Track>;
  /** The lane that is edited, by track: with other keyframes, or dB on top of it. */
  lanes?: Record<string, { curve?: Keyframe[]; schedule?: Stretch[]; extra?: (position: number) => number }>;
}

export function buildScene(
  state: Drawn,
  stored: Layout,
  view: View,
  width: number,
  preview: Preview | null,
): Scene {
  const layout = withTracks(stored, preview?.tracks);
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
      wires: wiresOf(clip, shown, state.closed.includes(clip.id)),
      levelDb:
        (levelLane(lane.track).length ? 0 : decibelsOf(lane.track.fader)) +
        decibelsOf(clip.level) +
        unlinkedGain(state.sources[clip.source]),
      rows: rowsOver(clip, lane.track, (state.duckTry?.[lane.track.id] ?? givingWay(lane.track)).all),
      extra: shown?.extra ?? null,
      selected: state.selected.includes(clip.id),
      wiresHidden: state.hiddenWires.includes(clip.track),
      coveredFrom: clip.at + clip.length,
    });
  }
  clips.sort((a, b) => a.clip.at - b.clip.at);
  uncovered(clips);
  const adjustable = looseChange(state);
  return {
    view,
    layout,
    width,
    rate: state.rate,
    frameRate: state.frameRate,
    clips,
    lanes: lanesIn(state, layout, preview),
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
    clarity: state.clarity,
    judged: state.judged,
    aim: state.aim,
    captions: state.captions,
    stretch: state.stretch,
    trying: state.duckPlan !== null,
    duckTry: state.duckTry,
    activeLane: state.activeLane,
    heights: state.heightScale,
  };
}

/** Levels hold the mutes too; those alone make no level lane. */
function storedLevels(track: Track, kind: DrawnLane["kind"]): Stretch[] {
  if (kind !== "level") return (kind === "band" ? track.bandLevels : track.duckingLevels) ?? [];
  return laneCurve(track, kind).length > 0 ? (track.levels ?? []) : [];
}

/** Says of each clip, in order, where the next one of its lane begins to lie over it. */
function uncovered(clips: DrawnClip[]): void {
  const last = new Map<Lane, DrawnClip>();
  for (const drawn of clips) {
    const before = last.get(drawn.lane);
    if (before) before.coveredFrom = Math.min(before.coveredFrom, drawn.clip.at);
    last.set(drawn.lane, drawn);
  }
}

function withTracks(layout: Layout, tracks: Record<string, Track> | undefined): Layout {
  if (!tracks) return layout;
  return {
    ...layout,
    lanes: layout.lanes.map((lane) => ({ ...lane, track: tracks[lane.track.id] ?? lane.track })),
  };
}

function lanesIn(state: Drawn, layout: Layout, preview: Preview | null): DrawnLane[] {
  return layout.lanes.flatMap((lane) =>
    (["ducking", "band", "level"] as const).flatMap((kind): DrawnLane[] => {
      const { track } = lane;
      const active = state.activeLane[track.id] === kind;
      const trial = kind === "level" ? undefined : state.duckTry?.[track.id];
      const tried = trial && ((kind === "band" ? trial.band : trial.all) ?? []);
      const stored = tried ?? storedLevels(track, kind);
      if (stored.length === 0 && !active) return [];
      const shown = active ? preview?.lanes?.[track.id] : undefined;
      const rest = kind === "level" ? decibelsOf(track.fader) : 0;
      const schedule =
        shown?.schedule ??
        (stored.length
          ? stored
          : [{ from: 0, to: Math.max(1, state.length), db: [Math.max(-144, rest), 0] }]);
      const wire: DrawnWire = {
        id: { track: track.id, lane: kind },
        curve: tried ? [] : (shown?.curve ?? laneCurve(track, kind)),
        schedule,
        ahead: 0,
        from: 0,
        to: Infinity,
        addDb: 0,
        gainDb: 0,
        extra: shown?.extra ?? null,
      };
      return [{ lane, kind, wire, active }];
    }),
  );
}

function rowsOver(clip: Clip, track: Track, ducking: Stretch[] | undefined): GainRow[] {
  const rows = [track.levels, clip.ducked === false ? undefined : ducking];
  return rows.flatMap((schedule) => (schedule?.length ? [{ schedule, shift: clip.at - clip.in }] : []));
}

function wiresOf(clip: Clip, shown: Preview["clips"][string] | undefined, closed: boolean): DrawnWire[] {
  const { schedule, channel, extra } = shown ?? {};
  const gainDb = decibelsOf(clip.gain);
  const placed = { ahead: clip.in - clip.at, from: clip.in, to: clip.in + clip.length };
  const own: DrawnWire = {
    id: wireOf(clip),
    curve: clip.curve,
    schedule: schedule && !channel ? schedule : clip.schedule,
    ...placed,
    addDb: gainDb,
    gainDb,
    extra: extra ?? null,
  };
  if (!clip.channelSchedules || closed) return [own];
  const sides = (["left", "right"] as const).map((side) => ({
    id: wireOf(clip, side),
    curve: curveOf(clip, side),
    schedule: (schedule && channel === side ? schedule : clip.channelSchedules?.[side]) ?? [],
    ...placed,
    addDb: 0,
    gainDb: decibelsOf(clip.channels?.[side]?.gain ?? 0),
    extra: null,
  }));
  return [own, ...sides];
}

/** The wires that can be taken hold of: those of the channels where a clip is opened, else its own; none where a lane is edited. */
export function grippable(scene: Scene, drawn: DrawnClip): DrawnWire[] {
  if (drawn.wiresHidden || scene.activeLane[drawn.clip.track]) return [];
  return drawn.wires.length > 1 ? drawn.wires.slice(1) : drawn.wires;
}

/** The lane of a track that is edited in place of the wires of its clips. */
export function editedLane(scene: Scene, track: string): DrawnLane | undefined {
  return scene.lanes.find((drawn) => drawn.active && drawn.lane.track.id === track);
}

/** Level of a wire in dB at a position of its own. */
export function wireDb(wire: DrawnWire, stretch: Stretch, position: number): number {
  return decibelsAt(stretch, position) + wire.addDb + (wire.extra?.(position) ?? 0);
}

/** Level of a wire in dB at a timeline position. */
export function wireDbAt(wire: DrawnWire, sample: number): number {
  const position = Math.min(Math.max(sample + wire.ahead, wire.from), wire.to - 1);
  const stretch = wire.schedule[stretchIndexAt(wire.schedule, position)];
  return stretch ? wireDb(wire, stretch, Math.min(position, stretch.to)) : 0;
}

/** A straight-line stand-in for a schedule while its keyframes are dragged; the server's own replaces it. */
export function roughSchedule(clip: Clip, channel?: Side): Stretch[] {
  const around = channel ? decibelsOf(clip.channels?.[channel]?.gain ?? 0) : 0;
  return scheduleOf(curveOf(clip, channel), around, clip.in, clip.in + clip.length);
}

/** A clip with other keyframes on one of its wires, as a drag shows it. */
function withCurve(clip: Clip, curve: Keyframe[], channel?: Side): Clip {
  const level = channel && clip.channels?.[channel];
  if (!channel || !level || !clip.channels) return { ...clip, curve };
  return { ...clip, channels: { ...clip.channels, [channel]: { ...level, curve } } };
}

/**
 * What a drag shows when wires have other keyframes.
 *
 * @param moved whether they stand elsewhere, so that the stored shape does not fit any more
 */
export function withCurves(state: Drawn, curves: { id: WireId; curve: Keyframe[] }[], moved = true): Preview {
  const preview: Preview = { clips: {}, lanes: {} };
  for (const { id, curve } of curves) {
    const wire = wireIn(state, id);
    if (!wire) continue;
    if ("track" in id) {
      const end = Math.max(state.length, (curve.at(-1)?.at ?? 0) + 1);
      preview.lanes = {
        ...preview.lanes,
        [id.track]: { curve, ...(moved ? { schedule: scheduleOf(curve, 0, 0, end) } : {}) },
      };
      continue;
    }
    const clip = state.clips[id.clip];
    const channel = sideOf(id);
    if (!clip) continue;
    const shown = withCurve(clip, curve, channel);
    preview.clips[clip.id] = {
      clip: shown,
      ...(moved ? { schedule: roughSchedule(shown, channel) } : {}),
      ...(channel ? { channel } : {}),
    };
  }
  return preview;
}

/** The ink of a track. */
export function inkOf(track: Track): Stem | Hue {
  return track.hue ?? track.stem;
}
