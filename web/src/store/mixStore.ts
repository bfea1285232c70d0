import { createStore, type StoreApi } from "zustand/vanilla";
import { ApiError } from "@/api/client";
import type {
  Aim,
  Chosen,
  Clip,
  Cue,
  DuckingPlan,
  Edit,
  Faders,
  LanePart,
  Figures,
  Levels,
  Marker,
  Mix,
  MixSource,
  OpenedMix,
  PastMix,
  Picture,
  Role,
  Rule,
  Step,
  Stretch,
  Track,
} from "@/api/types";
import { isStillThere } from "./chosen";

/** What the store needs of the server; the client has it, and so have tests. */
export interface MixPort {
  mix(project: string): Promise<OpenedMix>;
  edit(project: string, revision: number, edit: Edit, instead?: boolean): Promise<Step>;
  takeUp(snapshot: string): Promise<Step>;
  undo(project: string): Promise<Step>;
  redo(project: string): Promise<Step>;
  goTo(project: string, revision: number): Promise<Step>;
}

const USUAL_ZONES = {
  speech: { low: -26, high: -14 },
  music: { high: -14 },
  ambience: { high: -14 },
  effects: { high: -14 },
};

export const USUAL_FADERS: Faders = { programme: 0, speech: 0, music: 0, ambience: 0, effects: 0 };

/** What a new project aims for. */
export const USUAL_AIM: Aim = {
  clearance: 15,
  sensitivity: 10,
  loudness: -23,
  truePeak: -1,
  accepted: [],
  zones: USUAL_ZONES,
};

/** A range of time, [from, to), in samples; on some tracks, or across all of them. */
export interface Range {
  from: number;
  to: number;
  tracks: string[] | null;
}

export interface Notice {
  kind: "error" | "done";
  text: string;
}

/** The state of the mix itself, as against what is selected or played. */
interface Content {
  rate: number;
  frameRate: string;
  length: number;
  aim: Aim;
  captions: Cue[];
  faders: Faders;
  rules: Rule[];
  sources: Record<string, MixSource>;
  tracks: Track[];
  clips: Record<string, Clip>;
  markers: Marker[];
  pictures: Picture[];
  /** Which picture shows when. */
  strip: Picture[];
}

/** Another state that is shown and heard in place of the present one, which is kept aside. */
export interface Hearing {
  revision: number;
  name: string;
  present: Content;
}

/** A change to a range that was the newest edit, so that its handles can still adjust it. */
export interface Adjustable {
  revision: number;
  edit: Extract<Edit, { edit: "dip-range" | "set-range" | "reset-range" }>;
}

/** What the next change to a range takes when nothing else is said. */
export interface RangeSettings {
  /** Length of the ramps in samples. */
  ramp: number;
  /** Whether they lie within the range. */
  inside: boolean;
  /** Amount of a dip in dB. */
  by: number;
  /** Above this a moment is a peak to tame, dBFS. */
  ceiling: number;
}

export type RideMode = "read" | "write" | "touch" | "latch";
export type Listening = "all" | "speech" | "rest";
export type Speed = 0.5 | 1 | 1.5;

export interface MixState extends Content {
  project: { id: string; name: string; role: Role };
  revision: number;
  label: string;
  /** The revision that undo leads to. */
  before: number | null;
  canUndo: boolean;
  canRedo: boolean;
  /** Edits that the server has not answered yet. */
  pending: number;
  notice: Notice | null;
  /** Whether the last edit did not reach the server. */
  offline: boolean;
  selected: string[];
  /** Chosen keyframes, in as many clips as they are. */
  chosen: Chosen[];
  range: Range | null;
  adjustable: Adjustable | null;
  settings: RangeSettings;
  clipboard: Levels | null;
  /** The state to compare the present with, A; null for the one before the last edit. */
  against: { revision: number; name: string } | null;
  /** Whether the louder of the two is turned down. */
  matched: boolean;
  hearing: Hearing | null;
  /** What is turned down while listening to another state, in dB, so that the louder one does not seem the better one. */
  trim: number;
  solo: string[];
  listening: Listening;
  looping: boolean;
  /** Seconds played before the loop begins. */
  preRoll: number;
  speed: Speed;
  playhead: number;
  playing: boolean;
  /** What the state shown will measure at; of an earlier one while the server is at work. */
  figures: Figures | null;
  /** The buried stretch at hand, by where it begins. */
  stretch: number | null;
  /** Ducking lanes that a rule would make, by track, while it is tried: they are heard and shown in place of those that are kept. */
  duckTry: Record<string, Stretch[]> | null;
  /** The rule that is being tried, and what it would do. */
  duckDraft: Rule | null;
  duckPlan: DuckingPlan | null;
  /** Which lane of a track is edited in place of its clips' wires. */
  activeLane: Record<string, LanePart>;
  /** How each track is ridden; read where nothing is said. Off is part of the mix. */
  modes: Record<string, RideMode>;
  /** Tracks whose faders move together. */
  linked: string[];
  /** Whether rides write within the selected range only. */
  punch: boolean;
  /** Faders that a hand holds, dB by track. */
  grips: Record<string, number>;
  /** Tracks that are being written at this moment. */
  writing: string[];
  /** When a ride that waits to begin does so, ms on the clock of the page. */
  countIn: number | null;
  /** The ride that was the newest edit, so that its thinning can still be changed. */
  ridden: { revision: number; edit: Extract<Edit, { edit: "ride" }> } | null;
  /** Tracks whose wires are put out of sight, and heights of lanes that were dragged: a matter of this screen, not of the mix. */
  hiddenWires: string[];
  heights: Record<string, number>;

  edit(edit: Edit, instead?: boolean): Promise<boolean>;
  undo(): Promise<boolean>;
  redo(): Promise<boolean>;
  goTo(revision: number): Promise<boolean>;
  takeUp(snapshot: string): Promise<boolean>;
  /** Shows and sounds another state; null goes back to the present. */
  hear(past: (PastMix & { name: string }) | null): void;
  set(part: Partial<Settable>): void;
  select(clip: string | null, keyframe?: number | null): void;
}

type Settable = Pick<
  MixState,
  | "selected"
  | "chosen"
  | "range"
  | "adjustable"
  | "settings"
  | "clipboard"
  | "against"
  | "matched"
  | "trim"
  | "solo"
  | "listening"
  | "looping"
  | "preRoll"
  | "speed"
  | "playhead"
  | "playing"
  | "notice"
  | "figures"
  | "stretch"
  | "duckTry"
  | "duckDraft"
  | "duckPlan"
  | "activeLane"
  | "modes"
  | "linked"
  | "punch"
  | "grips"
  | "writing"
  | "countIn"
  | "ridden"
  | "hiddenWires"
  | "heights"
>;

export type MixStore = StoreApi<MixState>;

export function createMixStore(port: MixPort, opened: OpenedMix): MixStore {
  let queue: Promise<unknown> = Promise.resolve();

  return createStore<MixState>()((set, get) => {
    /** One after the other, so that each names the revision that the one before has made. */
    const run = (ask: () => Promise<Step>): Promise<boolean> => {
      if (get().hearing) {
        const text = `You are hearing “${get().hearing?.name}”. Switch back to the present to edit.`;
        set({ notice: { kind: "error", text } });
        return Promise.resolve(false);
      }
      set((s) => ({ pending: s.pending + 1 }));
      const turn = queue.then(async () => {
        try {
          const step = await ask();
          set((s) => ({ ...afterStep(s, step), notice: null, offline: false }));
          return true;
        } catch (error) {
          const text = error instanceof Error ? error.message : String(error);
          const status = error instanceof ApiError ? error.problem.status : 0;
          set({ notice: { kind: "error", text }, offline: status === 0 || status >= 500 });
          if (error instanceof ApiError && error.problem.status === 409)
            set(stateOf(await port.mix(get().project.id)));
          return false;
        } finally {
          set((s) => ({ pending: s.pending - 1 }));
        }
      });
      queue = turn;
      return turn;
    };

    return {
      ...stateOf(opened),
      pending: 0,
      notice: null,
      offline: false,
      selected: [],
      chosen: [],
      range: null,
      adjustable: null,
      settings: { ramp: Math.round(0.4 * opened.mix.rate), inside: false, by: -11, ceiling: -6 },
      clipboard: null,
      against: null,
      matched: true,
      hearing: null,
      trim: 0,
      solo: [],
      listening: "all",
      looping: false,
      preRoll: 1,
      speed: 1,
      playhead: 0,
      playing: false,
      figures: null,
      stretch: null,
      duckTry: null,
      duckDraft: null,
      duckPlan: null,
      activeLane: {},
      modes: {},
      linked: [],
      punch: false,
      grips: {},
      writing: [],
      countIn: null,
      ridden: null,
      hiddenWires: [],
      heights: {},
      edit: (edit, instead = false) =>
        run(() => port.edit(get().project.id, get().revision, edit, instead)).then((done) => {
          if (done && (edit.edit === "dip-range" || edit.edit === "set-range" || edit.edit === "reset-range"))
            set((s) => ({
              adjustable: { revision: s.revision, edit },
              settings: settingsAfter(s.settings, edit),
            }));
          return done;
        }),
      undo: () => run(() => port.undo(get().project.id)),
      redo: () => run(() => port.redo(get().project.id)),
      goTo: (revision) => run(() => port.goTo(get().project.id, revision)),
      takeUp: (snapshot) => run(() => port.takeUp(snapshot)),
      hear: (past) =>
        set((s) => {
          const present = s.hearing?.present ?? contentOf(s);
          if (!past) return { ...present, hearing: null };
          const hearing = { revision: past.revision, name: past.name, present };
          return { ...withSameClips(contentFrom(past.mix), present), hearing };
        }),
      set: (part) => set(part),
      select: (clip, keyframe = null) =>
        set({
          selected: clip === null ? [] : [clip],
          chosen: clip === null || keyframe === null ? [] : [{ clip, keyframes: [keyframe] }],
        }),
    };
  });
}

/** The next dip is as deep and as soft as the last one. */
function settingsAfter(settings: RangeSettings, edit: Adjustable["edit"]): RangeSettings {
  return {
    ...settings,
    ramp: typeof edit.ramp === "number" ? edit.ramp : settings.ramp,
    inside: edit.inside ?? false,
    by: edit.edit === "dip-range" && typeof edit.by === "number" && edit.by < 0 ? edit.by : settings.by,
  };
}

function contentFrom(mix: Mix): Content {
  return {
    rate: mix.rate,
    frameRate: mix.frameRate,
    length: mix.length,
    aim: mix.aim,
    captions: mix.captions,
    faders: mix.faders,
    rules: mix.rules,
    sources: Object.fromEntries(mix.sources.map((s) => [s.id, s])),
    tracks: mix.tracks,
    clips: Object.fromEntries(mix.clips.map((c) => [c.id, c])),
    markers: mix.markers,
    pictures: mix.pictures,
    strip: mix.strip,
  };
}

function contentOf(state: Content): Content {
  const {
    rate,
    frameRate,
    length,
    aim,
    captions,
    faders,
    rules,
    sources,
    tracks,
    clips,
    markers,
    pictures,
    strip,
  } = state;
  return {
    rate,
    frameRate,
    length,
    aim,
    captions,
    faders,
    rules,
    sources,
    tracks,
    clips,
    markers,
    pictures,
    strip,
  };
}

/** The clips of the other state itself where they are the same, so that they go on sounding untouched. */
function withSameClips(content: Content, other: Content): Content {
  const clips = Object.fromEntries(
    Object.entries(content.clips).map(([id, clip]) => {
      const same = other.clips[id];
      return [id, same && JSON.stringify(same) === JSON.stringify(clip) ? same : clip];
    }),
  );
  return { ...content, clips, tracks: keepSame(other.tracks, content.tracks) };
}

function stateOf(opened: OpenedMix) {
  const { project, mix, ...state } = opened;
  return { project, ...state, ...contentFrom(mix), hearing: null };
}

function afterStep(state: MixState, step: Step): Partial<MixState> {
  const { changes, ...head } = step;
  const removed = new Set(changes.removedClips);
  const clips = Object.fromEntries(Object.entries(state.clips).filter(([id]) => !removed.has(id)));
  for (const clip of changes.changedClips) clips[clip.id] = clip;
  for (const placed of changes.placedClips) {
    const clip = clips[placed.id];
    if (clip) clips[placed.id] = { ...clip, ...placed };
  }
  return {
    ...head,
    frameRate: changes.frameRate,
    length: changes.length,
    aim: keepEqual(state.aim, changes.aim),
    captions: keepEqual(state.captions, changes.captions),
    faders: keepEqual(state.faders, changes.faders),
    rules: keepEqual(state.rules, changes.rules),
    sources: Object.fromEntries(changes.sources.map((s) => [s.id, s])),
    tracks: keepSame(state.tracks, changes.tracks),
    markers: changes.markers,
    pictures: changes.pictures,
    strip: changes.strip,
    clips,
    selected: state.selected.every((id) => clips[id])
      ? state.selected
      : state.selected.filter((id) => clips[id]),
    chosen: state.chosen
      .map((c) => isStillThere(c, { clips, tracks: changes.tracks }))
      .filter((c) => c !== null),
    adjustable: null,
  };
}

/** The old object where it says the same, so that what shows it need not draw again. */
function keepEqual<T>(before: T, after: T): T {
  return JSON.stringify(before) === JSON.stringify(after) ? before : after;
}

/** The old track objects where nothing changed, so that what shows them need not draw again. */
function keepSame(before: Track[], after: Track[]): Track[] {
  const old = new Map(before.map((t) => [t.id, t]));
  return after.map((track) => {
    const same = old.get(track.id);
    return same ? keepEqual(same, track) : track;
  });
}

/** The ids of the clips on a track, in the order of time. */
export function clipsOf(clips: Record<string, Clip>, track: string): Clip[] {
  return Object.values(clips)
    .filter((c) => c.track === track)
    .sort((a, b) => a.at - b.at);
}
