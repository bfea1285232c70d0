import { createStore, type StoreApi } from "zustand/vanilla";
import type { Aim, Clip, Edit, Faders, OpenedMix, PastMix, Person, Role } from "@/api/schema";
import { newId } from "@/lib/ids";
import { CORE } from "@/preview/constants";
import type { Asked } from "@/api/asked";
import { type Content, contentFrom, contentOf, withSame } from "./content";
import { type Adjustable, freshScreen, type RangeSettings, type ScreenState } from "./screen";
import { type Keeping, type MixPort, onScreen, syncWith } from "./sync";

export const USUAL_FADERS: Faders = { programme: 0, speech: 0, music: 0, ambience: 0, effects: 0 };

/** What a new project aims for. */
export const USUAL_AIM: Aim = { ...CORE.aim.usual, accepted: [], zones: CORE.aim.zones };

/** Another state that is shown and heard in place of the present one, which is kept aside. */
interface Hearing {
  revision: number;
  name: string;
  present: Content;
}

interface EditOptions {
  /** Whether it takes the place of the newest edit. */
  instead?: boolean;
  /** A key of the caller's own, who keeps the edit until it is done. */
  key?: string;
}

export interface MixState extends Content, ScreenState {
  me: Person;
  project: { id: string; name: string; role: Role };
  /** The state that is shown; nothing else ever stands here. */
  revision: number;
  label: string;
  /** Whose edit made it. */
  author: Person;
  /** The revision that undo leads to. */
  before: number | null;
  canUndo: boolean;
  canRedo: boolean;
  /** Steps that the server has not answered yet. */
  pending: number;
  /** The same in words, while something stands in their way; and what that is. */
  unsent: string[];
  trouble: string | null;
  hearing: Hearing | null;

  edit(edit: Edit, options?: EditOptions): Promise<boolean>;
  /** @param evenOthers whether somebody else's edit may be taken back; else it is asked first */
  undo(evenOthers?: boolean): Promise<boolean>;
  redo(): Promise<boolean>;
  goTo(revision: number): Promise<boolean>;
  takeUp(snapshot: string): Promise<boolean>;
  /** Sends what a page that has gone has left. */
  resume(left: Asked[]): void;
  /** Brings the screen to the present, where somebody else has made another one. */
  catchUp(): void;
  tryNow(): void;
  giveUp(): void;
  /** Resolves when the server has answered every step. */
  settled(): Promise<void>;
  /** Shows and sounds another state; null goes back to the present. Wait until all is settled before. */
  hear(past: (PastMix & { name: string }) | null): void;
  set(part: Partial<ScreenState>): void;
  select(clip: string | null, keyframe?: number | null): void;
}

export type MixStore = StoreApi<MixState>;

export function createMixStore(port: MixPort, opened: OpenedMix, keeping?: Keeping): MixStore {
  return createStore<MixState>()((set, get) => {
    const { ask, queue, keptElsewhere } = syncWith(port, get, set, keeping);
    const key = () => newId("step");

    return {
      ...headOf(opened),
      ...contentFrom(opened.mix),
      pending: 0,
      unsent: [],
      trouble: null,
      ...freshScreen(opened.mix.rate),
      hearing: null,
      edit: (edit, { instead = false, key: given } = {}) => {
        const { range } = get();
        const asked: Asked = { key: given ?? key(), kind: "edit", edit, instead };
        if (given) keptElsewhere.add(given);
        return ask(asked).then((done) => {
          if (done && (edit.edit === "dip-range" || edit.edit === "set-range" || edit.edit === "reset-range"))
            set((s) => ({
              adjustable: { revision: s.revision, edit, range },
              settings: settingsAfter(s.settings, edit, instead),
            }));
          return done;
        });
      },
      undo: (evenOthers = false) => {
        const { author, me, label, pending, canUndo } = get();
        // What is still on its way is one's own, and will be the newest.
        if (canUndo && !evenOthers && pending === 0 && author.id !== me.id) {
          set({ question: { name: author.name, label } });
          return Promise.resolve(false);
        }
        return ask({ key: key(), kind: "undo", evenOthers });
      },
      redo: () => ask({ key: key(), kind: "redo" }),
      // Who hears a state and chooses one need not switch back first.
      goTo: (revision) => {
        if (get().hearing) get().hear(null);
        return ask({ key: key(), kind: "goTo", revision });
      },
      takeUp: (snapshot) => {
        if (get().hearing) get().hear(null);
        return ask({ key: key(), kind: "takeUp", snapshot });
      },
      resume: (left) => {
        for (const asked of left) void queue.add(asked);
        const text = `${left.length} edits that were not sent before are sent now.`;
        if (left.length > 1) set({ notice: { kind: "done", text } });
      },
      catchUp: () => queue.catchUp(),
      tryNow: () => queue.tryNow(),
      giveUp: () => queue.giveUp(),
      settled: () => queue.idle(),
      hear: (past) =>
        set((s) => {
          const present = s.hearing?.present ?? contentOf(s);
          if (!past) return { ...onScreen(s, present), hearing: null };
          const hearing = { revision: past.revision, name: past.name, present };
          return { ...withSame(contentFrom(past.mix), present), hearing };
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

function headOf({ mix, ...head }: OpenedMix) {
  return head;
}

/** The ids of the clips on a track, in the order of time. */
export function clipsOf(clips: Record<string, Clip>, track: string): Clip[] {
  return Object.values(clips)
    .filter((c) => c.track === track)
    .sort((a, b) => a.at - b.at);
}
