import type {
  Chosen,
  Clip,
  DuckingPlan,
  Edit,
  Clarity,
  Figures,
  LanePart,
  Levels,
  Rule,
  Side,
  Someone,
  Step,
  Stretch,
  Track,
} from "@/api/schema";

/** A range of time, [from, to), in samples; on some tracks, or across all of them. */
export interface Range {
  from: number;
  to: number;
  tracks: string[] | null;
  /** Whether its ends were set one by one: then a click elsewhere leaves it alone. */
  marked?: boolean;
}

interface Notice {
  kind: "error" | "done";
  text: string;
}

/** A change to a range that was the newest edit, so that its handles can still adjust it. */
export interface Adjustable {
  revision: number;
  edit: Extract<Edit, { edit: "dip-range" | "set-range" | "reset-range" }>;
  /** The range that was selected when it was made; with another one selected, it is not adjusted any more. */
  range: Range | null;
}

/** What the next change to a range takes when nothing else is said. */
export interface RangeSettings {
  /** Length of the ramps in samples. */
  ramp: number;
  /** Whether that was chosen by hand; else a silenced word gets shorter ones. */
  rampChosen: boolean;
  /** Whether they lie within the range; null where that follows from what is done. */
  inside: boolean | null;
  /** Amount of a dip in dB. */
  by: number;
  /** Above this a moment is a peak to tame, dBFS. */
  ceiling: number;
}

export type RideMode = "read" | "write" | "touch" | "latch";
export type AfterPass = "touch" | "same" | "read";
export type Listening = "all" | "speech" | "rest";
export type Speed = 0.5 | 1 | 1.5;

/** What is left of a track's sound where it gives way, and of the band of speech in it. */
export interface GivingWay {
  all?: Stretch[] | undefined;
  band?: Stretch[] | undefined;
}

export const givingWay = (track: Track): GivingWay => ({
  all: track.duckingLevels,
  band: track.bandLevels,
});

/** How an amplitude becomes a height: as the ear hears it, or as it is. */
export type HeightScale = "decibels" | "linear";

/** What belongs to this screen and not to the mix: what is selected, how it is played, what is tried. */
export interface ScreenState {
  notice: Notice | null;
  /** What others have done, and when it came here, ms. */
  news: { others: Step["others"]; at: number } | null;
  /** Whose edit an undo would take back, while that is asked. */
  question: { name: string; label: string } | null;
  /** Who else has the project open, and what they hold. */
  people: Someone[];
  /** Counts up when comments change. */
  commentsVersion: number;
  /** The comment at hand; another object each time one is taken up, be it the same again. */
  comment: { id: string } | null;
  /** Why the server is not there, where it is not. */
  away: string | null;
  /** What a hand is on, as others see it: clip:… or fader:… */
  held: string | null;
  selected: string[];
  /** The channel worked on, of an opened clip. */
  side: { clip: string; side: Side } | null;
  /** Opened clips whose channels are not shown apart: a matter of this screen, their levels stay. */
  closed: string[];
  /** A recording that is being dragged from the list, and how long it is. */
  carried: { source: string; name: string; length: number } | null;
  /** A clip that is selected because it was placed, or because the focus went past it: nobody asked for its levels, or for its track. */
  placed: string | null;
  /** What a drag would make if it were let go now, so that it can be measured. */
  trying: Edit | null;
  /** The peak it would have, dBFS, as it was worked out last. */
  triedPeak: number | null;
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
  /** The moment that a drag is at, so that its picture is seen; null while nothing is dragged. */
  looking: number | null;
  /** Whether playing waits for sound that has not come yet. */
  waiting: boolean;
  /** Where playing began last; null before it ever did. */
  playedFrom: number | null;
  /** Whether a time to go to is being typed. */
  typingTime: boolean;
  /** What the state shown will measure at; of an earlier one while the server is at work. */
  figures: Figures | null;
  /** How clearly its speech is understood; of an earlier one likewise. */
  clarity: Clarity | null;
  /** What the strip between speech and the rest shows: how far speech stands above it, or how clearly it is understood. */
  judged: "clearance" | "clarity";
  /** The buried stretch at hand, by where it begins. */
  stretch: number | null;
  /** Clips as a plan would make them, by id, while it is looked at: heard in place of those that are kept. */
  planned: Record<string, Clip> | null;
  /** Lanes of ducking that a rule would make, by track, while it is tried: they are heard and shown in place of those that are kept. */
  duckTry: Record<string, GivingWay> | null;
  /** The rule that is being tried, and what it would do. */
  duckDraft: Rule | null;
  duckPlan: DuckingPlan | null;
  /** Which lane of a track is edited in place of its clips' wires. */
  activeLane: Record<string, LanePart>;
  /** How each track is ridden; read where nothing is said. Off is part of the mix. */
  modes: Record<string, RideMode>;
  /** Seconds in which a touched control goes back to its lane. */
  glide: number;
  /** What becomes of the mode when a pass ends: write turns to touch, all go on as they are, or all go to read. */
  afterPass: AfterPass;
  /** Tracks whose faders move together. */
  linked: string[];
  /** Whether rides write within the selected range only. */
  punch: boolean;
  /** Faders that a hand holds, dB by track. */
  grips: Record<string, number>;
  /** Tracks that are being written at this moment. */
  writing: string[];
  /** Whether a ride that has ended is on its way to be kept. */
  keeping: boolean;
  /** When a ride that waits to begin does so, ms on the clock of the page. */
  countIn: number | null;
  /** The ride that was the newest edit, so that its thinning can still be changed. */
  ridden: { revision: number; edit: Extract<Edit, { edit: "ride" }> } | null;
  /** Tracks whose wires are put out of sight, and heights of lanes that were dragged: a matter of this screen, not of the mix. */
  hiddenWires: string[];
  heights: Record<string, number>;
  /** How the height of drawn sound follows its level. */
  heightScale: HeightScale;
}

/** Samples of the ramps around a silenced word: 30 ms at 48 kHz. */
const SHORT_RAMP = 1440;

/**
 * The ramps of a change to a range: around it, so that a bed is down before the speech starts, but inside where it lifts, so that nothing
 * beside it comes up; and short where a word is silenced. Unless they were chosen otherwise.
 *
 * @param change dB of a dip or a lift, or "silence"
 */
export function rampsFor(
  settings: RangeSettings,
  change: number | "silence",
): { ramp: number; inside: boolean } {
  const { ramp, rampChosen, inside } = settings;
  const lifts = change !== "silence" && change > 0;
  return {
    ramp: change === "silence" && !rampChosen ? Math.min(ramp, SHORT_RAMP) : ramp,
    inside: inside ?? lifts,
  };
}

/** The change to the selected range that was the newest edit and is still loose; null once anything else is selected. */
export function looseChange(
  state: Pick<ScreenState, "adjustable" | "range"> & { revision: number },
): Adjustable["edit"] | null {
  const { adjustable, revision, range } = state;
  return adjustable?.revision === revision && range !== null && adjustable.range === range
    ? adjustable.edit
    : null;
}

/** The clips that sound: those of the mix, or what a plan that is listened to makes of them. */
export function soundingClips(
  state: Pick<ScreenState, "planned"> & { clips: Record<string, Clip> },
): Record<string, Clip> {
  return state.planned ? { ...state.clips, ...state.planned } : state.clips;
}

/** Why a track is not heard though it plays; null when it is. */
export function whyUnheard(
  state: Pick<ScreenState, "solo" | "listening"> & { tracks: Track[] },
  track: Track,
): string | null {
  const { solo, listening } = state;
  const name = `“${track.name}”`;
  if (track.muted) return `${name} is muted`;
  if (solo.length && !solo.includes(track.id)) return `${name} is silent while others are heard alone`;
  if (listening !== "all" && (listening === "speech") !== (track.stem === "speech"))
    return `only ${listening === "speech" ? "speech" : "what is beneath the horizon"} is heard`;
  return null;
}

/** Whether the figures at hand are those of the mix as it is: only from such may an edit be worked out. */
export function areFiguresFresh(
  state: Pick<ScreenState, "figures"> & { revision: number; pending: number },
): boolean {
  return state.pending === 0 && state.figures?.revision === state.revision;
}

/** Whether playing a track may write into its lanes. */
export function isArmed(modes: Record<string, RideMode>, track: string): boolean {
  return (modes[track] ?? "read") !== "read";
}

/** Whether playing may write into any lane. */
export function isAnyArmed({ tracks, modes }: Pick<ScreenState, "modes"> & { tracks: Track[] }): boolean {
  return tracks.some((track) => isArmed(modes, track.id));
}

/** As it is when a project is opened. */
export function freshScreen(rate: number): ScreenState {
  return {
    notice: null,
    news: null,
    question: null,
    people: [],
    commentsVersion: 0,
    comment: null,
    away: null,
    held: null,
    selected: [],
    side: null,
    closed: [],
    carried: null,
    placed: null,
    trying: null,
    triedPeak: null,
    chosen: [],
    range: null,
    adjustable: null,
    settings: { ramp: Math.round(0.4 * rate), rampChosen: false, inside: null, by: -11, ceiling: -6 },
    clipboard: null,
    against: null,
    matched: true,
    trim: 0,
    solo: [],
    listening: "all",
    looping: false,
    preRoll: 1,
    speed: 1,
    playhead: 0,
    playing: false,
    waiting: false,
    playedFrom: null,
    looking: null,
    typingTime: false,
    figures: null,
    clarity: null,
    judged: "clearance",
    stretch: null,
    planned: null,
    duckTry: null,
    duckDraft: null,
    duckPlan: null,
    activeLane: {},
    modes: {},
    glide: 0.2,
    afterPass: "touch",
    linked: [],
    punch: false,
    grips: {},
    writing: [],
    keeping: false,
    countIn: null,
    ridden: null,
    hiddenWires: [],
    heights: {},
    heightScale: "decibels",
  };
}
