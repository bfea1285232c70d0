import { createStore, type StoreApi } from "zustand/vanilla";
import { ApiError } from "@/api/client";
import type {
  Aim,
  Clip,
  Cue,
  Edit,
  Faders,
  Marker,
  Mix,
  MixSource,
  OpenedMix,
  PastMix,
  Picture,
  Role,
  Rule,
  Step,
  Track,
} from "@/api/types";
import { isStillThere } from "./chosen";
import { type Adjustable, freshScreen, type RangeSettings, type ScreenState } from "./screen";

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

export interface MixState extends Content, ScreenState {
  project: { id: string; name: string; role: Role };
  revision: number;
  label: string;
  /** The revision that undo leads to. */
  before: number | null;
  canUndo: boolean;
  canRedo: boolean;
  /** Edits that the server has not answered yet. */
  pending: number;
  /** Whether the last edit did not reach the server. */
  offline: boolean;
  hearing: Hearing | null;

  edit(edit: Edit, instead?: boolean): Promise<boolean>;
  undo(): Promise<boolean>;
  redo(): Promise<boolean>;
  goTo(revision: number): Promise<boolean>;
  takeUp(snapshot: string): Promise<boolean>;
  /** Shows and sounds another state; null goes back to the present. */
  hear(past: (PastMix & { name: string }) | null): void;
  set(part: Partial<ScreenState>): void;
  select(clip: string | null, keyframe?: number | null): void;
}

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
      offline: false,
      ...freshScreen(opened.mix.rate),
      hearing: null,
      edit: (edit, instead = false) => {
        const { range } = get();
        return run(() => port.edit(get().project.id, get().revision, edit, instead)).then((done) => {
          if (done && (edit.edit === "dip-range" || edit.edit === "set-range" || edit.edit === "reset-range"))
            set((s) => ({
              adjustable: { revision: s.revision, edit, range },
              settings: settingsAfter(s.settings, edit, instead),
            }));
          return done;
        });
      },
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
function settingsAfter(settings: RangeSettings, edit: Adjustable["edit"], instead: boolean): RangeSettings {
  return {
    ...settings,
    // Ramps that came by themselves set no custom; those drawn longer or shorter by hand do.
    ...(instead && typeof edit.ramp === "number" && edit.ramp !== settings.ramp
      ? { ramp: edit.ramp, rampChosen: true }
      : {}),
    by: edit.edit === "dip-range" && typeof edit.by === "number" && edit.by < 0 ? edit.by : settings.by,
  };
}

function contentFrom(mix: Mix): Content {
  const sources = Object.fromEntries(mix.sources.map((s) => [s.id, s]));
  return { ...mix, sources, clips: Object.fromEntries(mix.clips.map((c) => [c.id, c])) };
}

const CONTENT = [
  "rate",
  "frameRate",
  "length",
  "aim",
  "captions",
  "faders",
  "rules",
  "sources",
  "tracks",
  "clips",
  "markers",
  "pictures",
  "strip",
] as const satisfies (keyof Content)[];

function contentOf(state: Content): Content {
  return Object.fromEntries(CONTENT.map((key) => [key, state[key]])) as unknown as Content;
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
