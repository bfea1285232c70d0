import type { Side, Track } from "@/api/schema";

/** Which part of the programme shows: first sample, and samples per CSS pixel. */
export interface View {
  start: number;
  perPx: number;
}

/** A track's place on the canvas, in CSS px. Speech rises above the horizon, everything else hangs beneath it. */
export interface Lane {
  track: Track;
  rises: boolean;
  top: number;
  height: number;
}

export interface Layout {
  lanes: Lane[];
  /** How far speech stands above the rest, between the two. */
  clearance: { top: number; height: number };
  /** The horizon, where time is written. */
  horizon: { top: number; height: number };
  /** Room right beneath it for a heading. */
  beneath: number;
  height: number;
}

export const CAPTION = 20;
const HORIZON = 42;
const CLEARANCE = 62;
export const NAME_STRIP = 17;
export const CLIP_MARGIN = 3;
const LANE_MIN = 64;
const LANE_MAX = 132;

export function xOf(view: View, sample: number): number {
  return (sample - view.start) / view.perPx;
}

export function sampleAt(view: View, x: number): number {
  return Math.round(view.start + x * view.perPx);
}

/** Lanes share the height there is; where it does not suffice, the whole scrolls. */
export function layOut(tracks: Track[], available: number, heights: Record<string, number> = {}): Layout {
  const fixed = tracks.filter((t) => heights[t.id] !== undefined);
  const taken = fixed.reduce((sum, t) => sum + (heights[t.id] ?? 0), 0);
  const room =
    (available - CLEARANCE - HORIZON - 2 * CAPTION - taken) / Math.max(2, tracks.length - fixed.length);
  const height = Math.round(Math.min(LANE_MAX, Math.max(LANE_MIN, room)));
  const heightOf = (track: Track) => clampHeight(heights[track.id] ?? height);
  const layout = stack(tracks, heightOf, height, CAPTION);
  return { ...layout, height: Math.max(layout.height, available) };
}

/** A few lanes around the horizon and nothing else, for where room is short. */
export function layOutShort(tracks: Track[], height: number): Layout {
  return stack(tracks, () => height, 0, 0);
}

/** @param empty height of a side that has no tracks */
function stack(tracks: Track[], heightOf: (track: Track) => number, empty: number, beneath: number): Layout {
  const rising = tracks.filter((t) => t.stem === "speech");
  const hanging = tracks.filter((t) => t.stem !== "speech");
  let top = CAPTION;
  const place = (rises: boolean) => (track: Track) => {
    const lane = { track, rises, top, height: heightOf(track) };
    top += lane.height;
    return lane;
  };
  const lanes = rising.map(place(true));
  if (rising.length === 0) top += empty;
  const clearance = { top, height: CLEARANCE };
  top += CLEARANCE;
  const horizon = { top, height: HORIZON };
  top += HORIZON + beneath;
  lanes.push(...hanging.map(place(false)));
  if (hanging.length === 0) top += empty;
  return { lanes, clearance, horizon, beneath, height: top };
}

/** Heights that a lane can be dragged to. */
function clampHeight(height: number): number {
  return Math.round(Math.min(320, Math.max(46, height)));
}

/** Where the sound of a clip is drawn within its lane, below or above its name; or that of one channel of an opened clip. */
export function soundArea(lane: Lane, channel?: Side): { top: number; bottom: number } {
  const top = lane.top + CLIP_MARGIN + (lane.rises ? NAME_STRIP : 0);
  const bottom = lane.top + lane.height - CLIP_MARGIN - (lane.rises ? 0 : NAME_STRIP);
  const middle = (top + bottom) / 2;
  if (channel === "left") return { top, bottom: middle - 1 };
  return channel === "right" ? { top: middle + 1, bottom } : { top, bottom };
}

/** Level to height: most room where most work is done, silence at the bottom. Height 0…1. */
const SCALE: [number, number][] = [
  [24, 1],
  [12, 0.88],
  [6, 0.8],
  [0, 0.7],
  [-6, 0.585],
  [-12, 0.475],
  [-24, 0.29],
  [-36, 0.165],
  [-60, 0.06],
  [-90, 0.015],
];

export function heightOfDb(db: number): number {
  if (db >= 24) return 1;
  for (let i = 1; i < SCALE.length; i++) {
    const [high, highAt] = SCALE[i - 1] as [number, number];
    const [low, lowAt] = SCALE[i] as [number, number];
    if (db >= low) return lowAt + ((highAt - lowAt) * (db - low)) / (high - low);
  }
  return 0;
}

export function dbOfHeight(height: number): number {
  if (height >= 1) return 24;
  for (let i = 1; i < SCALE.length; i++) {
    const [high, highAt] = SCALE[i - 1] as [number, number];
    const [low, lowAt] = SCALE[i] as [number, number];
    if (height >= lowAt) return low + ((high - low) * (height - lowAt)) / (highAt - lowAt);
  }
  return -Infinity;
}

export function yOfDb(lane: Lane, db: number, channel?: Side): number {
  const { top, bottom } = soundArea(lane, channel);
  return bottom - heightOfDb(db) * (bottom - top);
}

/** The level that a vertical drag leads to. Upwards is louder, in every lane. */
export function dragDb(lane: Lane, from: number, dy: number, channel?: Side): number {
  const { top, bottom } = soundArea(lane, channel);
  return dbOfHeight(Math.min(1, Math.max(0, heightOfDb(from) - dy / (bottom - top))));
}

/** px within which a dragged level comes to rest on one that stands out. */
const SNAP_DB_PX = 4;

/** The level that a drag leads to, or one of those that stand out where it comes near: 0 dB, and those next to it. */
export function snapDb(lane: Lane, db: number, levels: number[], channel?: Side): number {
  const y = yOfDb(lane, db, channel);
  const near = levels.filter(
    (level) => Number.isFinite(level) && Math.abs(yOfDb(lane, level, channel) - y) < SNAP_DB_PX,
  );
  return near.sort((a, b) => Math.abs(a - db) - Math.abs(b - db))[0] ?? db;
}

export function laneAt(layout: Layout, y: number): Lane | null {
  return layout.lanes.find((l) => y >= l.top && y < l.top + l.height) ?? null;
}
