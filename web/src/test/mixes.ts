import type { Clip, Figures, OpenedMix, Stretch } from "@/api/schema";
import type { MixPort } from "@/store/sync";
import { createMixStore, type MixState, type MixStore, USUAL_AIM, USUAL_FADERS } from "@/store/mixStore";

export const ADA = { id: "ada", name: "Ada" };
export const BEN = { id: "ben", name: "Ben" };

export const SECOND = 48000;

/** What a clip without fades, on both channels, has. */
export const PLAIN: Pick<Clip, "parts" | "fades"> = {
  parts: [{ routing: [1, 0, 0, 1] }],
  fades: [
    { length: 0, shape: "equal-power" },
    { length: 0, shape: "equal-power" },
  ],
};

const held = (from: number, to: number, db: number): Stretch => ({ from, to, db: [db, 0] });

/** A voice of six seconds from second 2, over a bed of twenty with a dip from 8 to 12. */
export function opened(): OpenedMix {
  const voice: Clip = {
    id: "voice",
    track: "speech",
    source: "s-voice",
    name: "Narrator",
    at: 2 * SECOND,
    in: SECOND,
    length: 6 * SECOND,
    gain: -3,
    curve: [],
    level: -3,
    schedule: [held(SECOND, 7 * SECOND, 0)],
    ...PLAIN,
  };
  const at = (seconds: number, level: number) => ({ at: seconds * SECOND, level, ramp: "line" as const });
  const bed: Clip = {
    id: "bed",
    track: "music",
    source: "s-bed",
    name: "Slow accordion",
    at: 0,
    in: 0,
    length: 20 * SECOND,
    gain: 0,
    curve: [at(7, 0), at(8, -11), at(12, -11), at(13, 0)],
    level: 0,
    schedule: [
      held(0, 7 * SECOND, 0),
      { from: 7 * SECOND, to: 8 * SECOND, db: [0, -11] },
      held(8 * SECOND, 12 * SECOND, -11),
      { from: 12 * SECOND, to: 13 * SECOND, db: [-11, 11] },
      held(13 * SECOND, 20 * SECOND, 0),
    ],
    ...PLAIN,
  };
  return {
    me: ADA,
    project: { id: "p", name: "Crossing", role: "owner" },
    mix: {
      rate: SECOND,
      frameRate: "25",
      length: 20 * SECOND,
      aim: USUAL_AIM,
      captions: [],
      faders: USUAL_FADERS,
      rules: [],
      sources: [
        { id: "s-voice", name: "narrator.wav", length: 10 * SECOND, channels: 1, gain: 0 },
        { id: "s-bed", name: "accordion.ogg", length: 30 * SECOND, channels: 2, gain: 0 },
      ],
      tracks: [
        { id: "speech", name: "Narrator", stem: "speech", fader: 0, pan: 0, muted: false },
        { id: "music", name: "Music", stem: "music", fader: 0, pan: 0, muted: false },
      ],
      clips: [voice, bed],
      markers: [],
      pictures: [],
      strip: [],
    },
    revision: 1,
    label: "New project",
    author: ADA,
    before: null,
    canUndo: false,
    canRedo: false,
  };
}

/** A store that answers nothing, for what only reads it. */
export function storeOf(part: Partial<MixState> = {}): MixStore {
  const none = () => Promise.reject(new Error("not asked for"));
  const port: MixPort = { mix: none, changes: none, step: none };
  const store = createMixStore(port, opened());
  store.setState(part);
  return store;
}

export const SILENT = { integrated: null, range: 0, maxMomentary: null, maxShortTerm: null, peak: null };
const LOUD = { integrated: -17.7, range: 8.4, maxMomentary: -12, maxShortTerm: -14.2, peak: -3.1 };

/** What a mix of a voice and a silent bed measures at, 5.3 LU louder than its target. */
export const figuresOf = (part: Partial<Figures> = {}): Figures => ({
  revision: 1,
  programme: LOUD,
  stems: { speech: LOUD, music: LOUD, ambience: SILENT, effects: SILENT },
  tracks: [
    { id: "speech", ...LOUD },
    { id: "music", ...SILENT },
  ],
  over: { exact: true, places: [] },
  verdict: { off: 5.3, met: false, mayPass: true },
  outside: [],
  astray: [],
  history: [],
  speech: [],
  clearance: [],
  clearPart: 0.613,
  buried: [],
  moreBuried: [],
  clearAll: null,
  outOfDate: [],
  ...part,
});
