import { createStore, type StoreApi } from "zustand/vanilla";
import { ApiError } from "@/api/client";
import type { Clip, Edit, MixSource, OpenedMix, Role, Step, Track } from "@/api/types";

/** What the store needs of the server; the client has it, and so have tests. */
export interface MixPort {
  mix(project: string): Promise<OpenedMix>;
  edit(project: string, revision: number, edit: Edit): Promise<Step>;
  undo(project: string): Promise<Step>;
  redo(project: string): Promise<Step>;
  goTo(project: string, revision: number): Promise<Step>;
}

/** A range of time, [from, to), in samples; on one track, or across all of them. */
export interface Range {
  from: number;
  to: number;
  track: string | null;
}

export interface Notice {
  kind: "error" | "done";
  text: string;
}

export interface MixState {
  project: { id: string; name: string; role: Role };
  rate: number;
  frameRate: string;
  length: number;
  sources: Record<string, MixSource>;
  tracks: Track[];
  clips: Record<string, Clip>;
  revision: number;
  label: string;
  canUndo: boolean;
  canRedo: boolean;
  /** Edits that the server has not answered yet. */
  pending: number;
  notice: Notice | null;
  selected: string[];
  /** The chosen keyframe of the selected clip, by its source position. */
  keyframe: number | null;
  range: Range | null;
  solo: string[];
  playhead: number;
  playing: boolean;

  edit(edit: Edit): Promise<boolean>;
  undo(): Promise<boolean>;
  redo(): Promise<boolean>;
  goTo(revision: number): Promise<boolean>;
  set(
    part: Partial<
      Pick<MixState, "selected" | "keyframe" | "range" | "solo" | "playhead" | "playing" | "notice">
    >,
  ): void;
  select(clip: string | null, keyframe?: number | null): void;
}

export type MixStore = StoreApi<MixState>;

export function createMixStore(port: MixPort, opened: OpenedMix): MixStore {
  let queue: Promise<unknown> = Promise.resolve();

  return createStore<MixState>()((set, get) => {
    /** One after the other, so that each names the revision that the one before has made. */
    const run = (ask: () => Promise<Step>): Promise<boolean> => {
      set((s) => ({ pending: s.pending + 1 }));
      const turn = queue.then(async () => {
        try {
          const step = await ask();
          set((s) => ({ ...afterStep(s, step), notice: null }));
          return true;
        } catch (error) {
          set({ notice: { kind: "error", text: error instanceof Error ? error.message : String(error) } });
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
      selected: [],
      keyframe: null,
      range: null,
      solo: [],
      playhead: 0,
      playing: false,
      edit: (edit) => run(() => port.edit(get().project.id, get().revision, edit)),
      undo: () => run(() => port.undo(get().project.id)),
      redo: () => run(() => port.redo(get().project.id)),
      goTo: (revision) => run(() => port.goTo(get().project.id, revision)),
      set: (part) => set(part),
      select: (clip, keyframe = null) => set({ selected: clip === null ? [] : [clip], keyframe }),
    };
  });
}

function stateOf(opened: OpenedMix) {
  const { project, mix, ...state } = opened;
  return {
    project,
    ...state,
    rate: mix.rate,
    frameRate: mix.frameRate,
    length: mix.length,
    sources: Object.fromEntries(mix.sources.map((s) => [s.id, s])),
    tracks: mix.tracks,
    clips: Object.fromEntries(mix.clips.map((c) => [c.id, c])),
  };
}

function afterStep(state: MixState, step: Step): Partial<MixState> {
  const { changes, ...head } = step;
  const removed = new Set(changes.removedClips);
  const clips = Object.fromEntries(Object.entries(state.clips).filter(([id]) => !removed.has(id)));
  for (const clip of changes.changedClips) clips[clip.id] = clip;
  const selected = state.selected.filter((id) => clips[id]);
  const chosen = selected[0] === undefined ? undefined : clips[selected[0]];
  return {
    ...head,
    frameRate: changes.frameRate,
    length: changes.length,
    sources: Object.fromEntries(changes.sources.map((s) => [s.id, s])),
    tracks: keepSame(state.tracks, changes.tracks),
    clips,
    selected,
    keyframe: chosen?.curve.some((k) => k.at === state.keyframe) ? state.keyframe : null,
  };
}

/** The old track objects where nothing changed, so that what shows them need not draw again. */
function keepSame(before: Track[], after: Track[]): Track[] {
  const old = new Map(before.map((t) => [t.id, t]));
  return after.map((track) => {
    const same = old.get(track.id);
    return same && JSON.stringify(same) === JSON.stringify(track) ? same : track;
  });
}

/** The ids of the clips on a track, in the order of time. */
export function clipsOf(clips: Record<string, Clip>, track: string): Clip[] {
  return Object.values(clips)
    .filter((c) => c.track === track)
    .sort((a, b) => a.at - b.at);
}
