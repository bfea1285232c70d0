import type { Side, Track } from "@/api/schema";

/** Which part of the programme shows: first sample, and samples per CSS pixel. */
export interface View {
  start: number;
  perPx: number;
}

/** A track's place on the canvas, in CSS px. It stands on its own floor: up is louder, above the horizon and beneath it. */
export interface Lane {
  track: Track;
  top: number;
  height: number;
}

export interface Layout {
  /** Small frames of the film, along the upper edge; without height where there is none. */
  film: { top: number; height: number };
  /** Room above the speech for a heading, and for captions. */
  caption: { top: number; height: number };
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
const FILM = 44;
const LOW_FILM = 30;
const HORIZON = 42;
const CLEARANCE = 62;
/** Where there is height for it. */
const TALL_CLEARANCE = 104;
/** Room beneath the lanes, where something can always be dropped for a new track. */
const FOOT = 40;
export const NAME_STRIP = 17;
export const CLIP_MARGIN = 3;
/** Heights that lanes have by themselves, and the least they can be dragged to. */
const LANE_MIN = 64;
const LANE_LEAST = 46;
/** Tall enough for two to fill the largest screens. */
const LANE_MAX = 960;

export function xOf(view: View, sample: number): number {
  return (sample - view.start) / view.perPx;
}

export function sampleAt(view: View, x: number): number {
  return Math.round(view.start + x * view.perPx);
}

/** Lanes share the height there is; where it does not suffice, the whole scrolls. */
export function layOut(
  tracks: Track[],
  available: number,
  heights: Record<string, number> = {},
  hasFilm = false,
): Layout {
  const film = hasFilm ? (available > 560 ? FILM : LOW_FILM) : 0;
  const clearance = available > 1100 ? TALL_CLEARANCE : CLEARANCE;
  const fixed = tracks.filter((t) => heights[t.id] !== undefined);
  const taken = fixed.reduce((sum, t) => sum + (heights[t.id] ?? 0), 0);
  const room =
    (available - film - clearance - HORIZON - 2 * CAPTION - FOOT - taken) /
    Math.max(2, tracks.length - fixed.length);
  const height = Math.round(Math.min(LANE_MAX, Math.max(LANE_MIN, room)));
  const heightOf = (track: Track) => clampHeight(heights[track.id] ?? height);
  const layout = stack(tracks, heightOf, { film, clearance, empty: height, beneath: CAPTION });
  return { ...layout, height: Math.max(layout.height + FOOT, available) };
}

/** A few lanes around the horizon and nothing else, for where room is short. */
export function layOutShort(tracks: Track[], height: number): Layout {
  return stack(tracks, () => height, { film: 0, clearance: CLEARANCE, empty: 0, beneath: 0 });
}

interface Rooms {
  film: number;
  clearance: number;
  /** Height of a side that has no tracks. */
  empty: number;
  beneath: number;
}

function stack(tracks: Track[], heightOf: (track: Track) => number, rooms: Rooms): Layout {
  const { film, empty, beneath } = rooms;
  const above = tracks.filter((t) => t.stem === "speech");
  const beneathIt = tracks.filter((t) => t.stem !== "speech");
  let top = film + CAPTION;
  const place = (track: Track) => {
    const lane = { track, top, height: heightOf(track) };
    top += lane.height;
    return lane;
  };
  const lanes = above.map(place);
  if (above.length === 0) top += empty;
  const clearance = { top, height: rooms.clearance };
  top += clearance.height;
  const horizon = { top, height: HORIZON };
  top += HORIZON + beneath;
  lanes.push(...beneathIt.map(place));
  if (beneathIt.length === 0) top += empty;
  const [filmAt, caption] = [
    { top: 0, height: film },
    { top: film, height: CAPTION },
  ];
  return { film: filmAt, caption, lanes, clearance, horizon, beneath, height: top };
}

/** Heights that a lane can be dragged to. */
export function clampHeight(height: number): number {
  return Math.round(Math.min(LANE_MAX, Math.max(LANE_LEAST, height)));
}

/** Where the sound of a clip is drawn within its lane, below its name; or that of one channel of an opened clip. */
export function soundArea(lane: Lane, channel?: Side): { top: number; bottom: number } {
  const top = lane.top + CLIP_MARGIN + NAME_STRIP;
  const bottom = lane.top + lane.height - CLIP_MARGIN;
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

const LOWEST = -90;
/** dB between the points of the table; the corners of the scale are among them. */
const STEP = 0.5;

/** Looked up, since thousands of points ask for it. */
const HEIGHTS = Float64Array.from({ length: (24 - LOWEST) / STEP + 1 }, (_, i) => onScale(LOWEST + i * STEP));

function onScale(db: number): number {
  for (let i = 1; i < SCALE.length; i++) {
    const [high, highAt] = SCALE[i - 1] as [number, number];
    const [low, lowAt] = SCALE[i] as [number, number];
    if (db >= low) return lowAt + ((highAt - lowAt) * (db - low)) / (high - low);
  }
  return 0;
}

export function heightOfDb(db: number): number {
  if (db >= 24) return 1;
  const place = Math.max(0, db - LOWEST) / STEP;
  const i = Math.floor(place);
  const at = HEIGHTS[i] ?? 0;
  return db < LOWEST ? 0 : at + ((HEIGHTS[i + 1] ?? 1) - at) * (place - i);
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
