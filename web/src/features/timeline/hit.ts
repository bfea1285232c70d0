import type { Clip, Keyframe, Marker, Side } from "@/api/types";
import { decibelsOf } from "@/lib/format";
import { stretchIndexAt } from "@/lib/schedule";
import { curveOf, isChosen } from "@/store/chosen";
import { CLIP_MARGIN, type Lane, laneAt, NAME_STRIP, sampleAt, soundArea, xOf, yOfDb } from "./geometry";
import { type DrawnClip, type DrawnWire, grippable, type Scene, wireDb } from "./scene";

interface OnClip {
  clip: Clip;
  lane: Lane;
}

interface OnWire extends OnClip {
  db: number;
  channel?: Side;
}

/** What lies under the pointer, and so what a drag from there does. There are no tools: the place decides. */
export type Target =
  | { kind: "horizon" }
  | { kind: "playhead" }
  | { kind: "marker"; marker: Marker }
  | { kind: "range-edge"; edge: "from" | "to" }
  | { kind: "ramp"; edge: "from" | "to" }
  | { kind: "lane"; lane: Lane }
  | ({ kind: "name" } & OnClip)
  | ({ kind: "trim"; edge: "from" | "to" } & OnClip)
  | ({ kind: "fade"; edge: "in" | "out" } & OnClip)
  | ({ kind: "cross"; other: Clip } & OnClip)
  | ({ kind: "keyframe"; keyframe: Keyframe; channel?: Side } & OnClip)
  | ({ kind: "ease"; keyframe: Keyframe; next: Keyframe; end: "out" | "in"; channel?: Side } & OnClip)
  | ({ kind: "wire" } & OnWire)
  | ({ kind: "dip" } & OnWire)
  | ({ kind: "body" } & OnClip);

const NEAR_WIRE = 6;
const NEAR_KEYFRAME = 8;
const NEAR_EDGE = 5;
const NEAR_CORNER = 7;

export function hitTest(scene: Scene, x: number, y: number): Target | null {
  const { clearance, horizon } = scene.layout;
  if (y >= clearance.top && y < horizon.top + horizon.height) return onHorizon(scene, x, y);
  const lane = laneAt(scene.layout, y);
  if (!lane) return null;
  const under = scene.clips.filter((d) => d.lane === lane && covers(scene, d, x));
  // A fade's grip first, since two clips that cross over both have one there; then the selected clip, else the one on top.
  for (const drawn of under) {
    const fade = fadeAt(scene, drawn, x, y);
    if (fade) return fade;
  }
  const drawn = under.find((d) => d.selected) ?? under[under.length - 1];
  return drawn ? clipTarget(scene, drawn, x, y) : { kind: "lane", lane };
}

export const HINTS: Record<Target["kind"], string> = {
  horizon: "Click to go here · drag to select a range of time on all tracks",
  playhead: "Drag to scrub",
  marker: "Drag to move the marker · double-click renames it",
  "range-edge": "Drag to change the range",
  ramp: "Drag to make the ramps of the last change longer or shorter",
  lane: "Drag to select a range · Ctrl-drag lassoes keyframes · drop sources here",
  name: "Drag to move · Shift-click selects several · Ctrl takes later clips along · Alt holds off snapping",
  trim: "Drag to trim · Ctrl closes the gap · Alt holds off snapping",
  fade: "Drag to fade · double-click changes the shape · type a length in seconds or frames (12f)",
  cross: "These two cross over · drag the ends to change how long · double-click changes the shape",
  keyframe:
    "Drag to move · Shift one axis · Ctrl fine · Shift-click chooses several · type a level · Delete removes",
  ease: "Drag to shape the ramp",
  wire: "Drag to change the level · Ctrl fine · type a level · double-click adds a keyframe",
  dip: "Drag up or down to lift or dip the range · Ctrl fine · type an amount",
  body: "Click to select · drag to select a range · Ctrl-drag lassoes keyframes",
};

export const CURSORS: Record<Target["kind"], string> = {
  horizon: "text",
  playhead: "col-resize",
  marker: "ew-resize",
  "range-edge": "ew-resize",
  ramp: "ew-resize",
  lane: "crosshair",
  name: "grab",
  trim: "ew-resize",
  fade: "ew-resize",
  cross: "pointer",
  keyframe: "move",
  ease: "ew-resize",
  wire: "ns-resize",
  dip: "ns-resize",
  body: "crosshair",
};

function covers(scene: Scene, { clip }: DrawnClip, x: number): boolean {
  return x >= xOf(scene.view, clip.at) - 2 && x <= xOf(scene.view, clip.at + clip.length) + 2;
}

function onHorizon(scene: Scene, x: number, y: number): Target {
  const { view, range, ramp, inside, markers, playhead, layout } = scene;
  const near = (sample: number, reach = NEAR_EDGE) => Math.abs(x - xOf(view, sample)) < reach;
  const lower = y > layout.horizon.top + layout.horizon.height / 2;
  if (range && ramp !== null && lower) {
    const out = inside ? -ramp : ramp;
    if (near(range.from - out)) return { kind: "ramp", edge: "from" };
    if (near(range.to + out)) return { kind: "ramp", edge: "to" };
  }
  if (range && near(range.from)) return { kind: "range-edge", edge: "from" };
  if (range && near(range.to)) return { kind: "range-edge", edge: "to" };
  if (near(playhead, 7) && !lower) return { kind: "playhead" };
  const marker = lower ? markers.findLast((m) => near(m.at, 7)) : undefined;
  return marker ? { kind: "marker", marker } : { kind: "horizon" };
}

/** Where the grip of a fade sits: at the loud side of the sound, where the fade ends. */
export function gripOf(
  scene: Scene,
  { clip, lane }: DrawnClip,
  edge: "in" | "out",
): { x: number; y: number } {
  const area = soundArea(lane);
  const [fadeIn, fadeOut] = clip.fades;
  const length = (edge === "in" ? fadeIn?.length : fadeOut?.length) ?? 0;
  const at = edge === "in" ? clip.at + length : clip.at + clip.length - length;
  return {
    x: xOf(scene.view, at) + (edge === "in" ? 4 : -4),
    y: lane.rises ? area.top + 4 : area.bottom - 4,
  };
}

function fadeAt(scene: Scene, drawn: DrawnClip, x: number, y: number): Target | null {
  const { clip, lane } = drawn;
  if (clip.length / scene.view.perPx < 28) return null;
  for (const edge of ["in", "out"] as const) {
    const grip = gripOf(scene, drawn, edge);
    if (Math.abs(x - grip.x) > NEAR_CORNER || Math.abs(y - grip.y) > NEAR_CORNER) continue;
    const other = crossedWith(scene, drawn, edge);
    return other ? { kind: "cross", clip, lane, other } : { kind: "fade", clip, lane, edge };
  }
  return null;
}

/** The clip that this one crosses over with at an end; none where the fade is its own. */
function crossedWith(scene: Scene, { clip, lane }: DrawnClip, edge: "in" | "out"): Clip | null {
  const own = edge === "in" ? clip.fadeIn : clip.fadeOut;
  const heard = edge === "in" ? clip.fades[0] : clip.fades[1];
  if (!heard || heard.length === (own?.length ?? 0)) return null;
  const others = scene.clips.filter((d) => d.lane === lane && d.clip.id !== clip.id).map((d) => d.clip);
  const meets = (o: Clip) =>
    edge === "in"
      ? o.at < clip.at && o.at + o.length > clip.at
      : o.at > clip.at && o.at < clip.at + clip.length;
  return others.find(meets) ?? null;
}

function clipTarget(scene: Scene, drawn: DrawnClip, x: number, y: number): Target {
  const { clip, lane } = drawn;
  const near = drawn.wiresHidden ? null : (easeAt(scene, drawn, x, y) ?? keyframeAt(scene, drawn, x, y));
  if (near) return near;
  const left = xOf(scene.view, clip.at);
  const right = xOf(scene.view, clip.at + clip.length);
  const reach = Math.min(NEAR_EDGE, (right - left) / 4);
  if (x < left + reach) return { kind: "trim", clip, lane, edge: "from" };
  if (x > right - reach) return { kind: "trim", clip, lane, edge: "to" };
  if (onName(lane, y)) return { kind: "name", clip, lane };
  const sample = sampleAt(scene.view, x);
  const wire = grippable(drawn).find((w) => {
    const area = soundArea(lane, w.channel);
    return y >= area.top - 2 && y <= area.bottom + 2;
  });
  if (!wire) return { kind: "body", clip, lane };
  const db = wireDbAt(drawn, sample, wire);
  const on = { clip, lane, db, ...(wire.channel ? { channel: wire.channel } : {}) };
  const { range } = scene;
  const inRange = range && sample >= range.from && sample < range.to;
  if (inRange && (range.tracks === null || range.tracks.includes(clip.track))) return { kind: "dip", ...on };
  return !drawn.wiresHidden && Math.abs(y - yOfDb(lane, db, wire.channel)) <= NEAR_WIRE
    ? { kind: "wire", ...on }
    : { kind: "body", clip, lane };
}

function onName(lane: Lane, y: number): boolean {
  return lane.rises
    ? y < lane.top + CLIP_MARGIN + NAME_STRIP
    : y >= lane.top + lane.height - CLIP_MARGIN - NAME_STRIP;
}

/** Where a keyframe is drawn. */
export function placeOf(scene: Scene, { clip, lane }: DrawnClip, wire: DrawnWire, keyframe: Keyframe) {
  return {
    x: xOf(scene.view, keyframe.at - clip.in + clip.at),
    y: yOfDb(lane, decibelsOf(keyframe.level) + wire.gainDb, wire.channel),
  };
}

function keyframeAt(scene: Scene, drawn: DrawnClip, x: number, y: number): Target | null {
  const { clip, lane } = drawn;
  let best: Target | null = null;
  let distance = NEAR_KEYFRAME;
  for (const wire of grippable(drawn)) {
    for (const keyframe of curveOf(clip, wire.channel)) {
      const place = placeOf(scene, drawn, wire, keyframe);
      const d = Math.hypot(place.x - x, place.y - y);
      if (d < distance) {
        distance = d;
        best = { kind: "keyframe", clip, lane, keyframe, ...(wire.channel ? { channel: wire.channel } : {}) };
      }
    }
  }
  return best;
}

/** The two grips of a smooth ramp that leaves a chosen keyframe: how long it takes to leave, and to arrive. */
export function easesOf(scene: Scene, drawn: DrawnClip) {
  const eases: { target: Extract<Target, { kind: "ease" }>; x: number; y: number }[] = [];
  const { clip, lane } = drawn;
  for (const wire of grippable(drawn)) {
    const curve = curveOf(clip, wire.channel);
    for (const [i, keyframe] of curve.entries()) {
      const next = curve[i + 1];
      const kind = typeof keyframe.ramp === "string" ? keyframe.ramp : keyframe.ramp.kind;
      if (!next || kind !== "smooth" || !isChosen(scene.chosen, clip.id, keyframe.at, wire.channel)) continue;
      const shape: { easeOut?: number; easeIn?: number } =
        typeof keyframe.ramp === "string" ? {} : keyframe.ramp;
      for (const end of ["out", "in"] as const) {
        const part = end === "out" ? (shape.easeOut ?? 0.5) : 1 - (shape.easeIn ?? 0.5);
        const shift = end === "out" ? -0.06 : 0.06; // where both meet in the middle they stay apart
        const at = keyframe.at + (next.at - keyframe.at) * Math.min(0.97, Math.max(0.03, part + shift));
        const sample = at - clip.in + clip.at;
        const on = { clip, lane, keyframe, next, end, ...(wire.channel ? { channel: wire.channel } : {}) };
        eases.push({
          target: { kind: "ease", ...on },
          x: xOf(scene.view, sample),
          y: yOfDb(lane, wireDbAt(drawn, sample, wire), wire.channel),
        });
      }
    }
  }
  return eases;
}

function easeAt(scene: Scene, drawn: DrawnClip, x: number, y: number): Target | null {
  if (scene.chosen.length === 0) return null;
  return easesOf(scene, drawn).find((e) => Math.hypot(e.x - x, e.y - y) < 6)?.target ?? null;
}

/** Level of a wire at a timeline position. */
export function wireDbAt(
  drawn: DrawnClip,
  sample: number,
  wire: DrawnWire | undefined = grippable(drawn)[0],
): number {
  const { clip } = drawn;
  const position = Math.min(Math.max(sample - clip.at + clip.in, clip.in), clip.in + clip.length - 1);
  const stretch = wire?.schedule[stretchIndexAt(wire.schedule, position)];
  return wire && stretch ? wireDb(drawn, wire, stretch, position) : 0;
}
