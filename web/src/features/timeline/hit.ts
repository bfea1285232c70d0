import type { Clip, Keyframe } from "@/api/types";
import { decibelsOf } from "@/lib/format";
import { stretchIndexAt } from "@/lib/schedule";
import { CLIP_MARGIN, type Lane, laneAt, NAME_STRIP, sampleAt, xOf, yOfDb } from "./geometry";
import { type DrawnClip, type Scene, wireDb } from "./scene";

/** What lies under the pointer, and so what a drag from there does. There are no tools: the place decides. */
export type Target =
  | { kind: "horizon" }
  | { kind: "range-edge"; edge: "from" | "to" }
  | { kind: "lane"; lane: Lane }
  | { kind: "name"; clip: Clip; lane: Lane }
  | { kind: "trim"; clip: Clip; lane: Lane; edge: "from" | "to" }
  | { kind: "keyframe"; clip: Clip; lane: Lane; keyframe: Keyframe }
  | { kind: "wire"; clip: Clip; lane: Lane; db: number }
  | { kind: "dip"; clip: Clip; lane: Lane; db: number }
  | { kind: "body"; clip: Clip; lane: Lane };

const NEAR_WIRE = 6;
const NEAR_KEYFRAME = 8;
const NEAR_EDGE = 5;

export function hitTest(scene: Scene, x: number, y: number): Target | null {
  const { horizon } = scene.layout;
  if (y >= horizon.top && y < horizon.top + horizon.height)
    return rangeEdgeAt(scene, x) ?? { kind: "horizon" };
  const lane = laneAt(scene.layout, y);
  if (!lane) return null;
  const under = scene.clips.filter((d) => d.lane === lane && covers(scene, d, x));
  // The selected clip first where clips overlap, else the last, which is drawn on top.
  const drawn = under.find((d) => d.selected) ?? under[under.length - 1];
  return drawn ? clipTarget(scene, drawn, x, y) : { kind: "lane", lane };
}

export const HINTS: Record<Target["kind"], string> = {
  horizon: "Click to go here · drag to select a range of time",
  "range-edge": "Drag to change the range",
  lane: "Drag to select a range · drop sources here",
  name: "Drag to move the clip · Alt holds off snapping",
  trim: "Drag to trim · Alt holds off snapping",
  keyframe: "Drag to move · Shift one axis · Ctrl fine · type a level · Delete removes",
  wire: "Drag to change the level · Ctrl fine · type a level · double-click adds a keyframe",
  dip: "Drag up or down to lift or dip the range · Ctrl fine · type an amount",
  body: "Click to select · drag to select a range",
};

export const CURSORS: Record<Target["kind"], string> = {
  horizon: "text",
  "range-edge": "ew-resize",
  lane: "crosshair",
  name: "grab",
  trim: "ew-resize",
  keyframe: "move",
  wire: "ns-resize",
  dip: "ns-resize",
  body: "crosshair",
};

function covers(scene: Scene, { clip }: DrawnClip, x: number): boolean {
  return x >= xOf(scene.view, clip.at) - 2 && x <= xOf(scene.view, clip.at + clip.length) + 2;
}

function rangeEdgeAt(scene: Scene, x: number): Target | null {
  const { range, view } = scene;
  if (!range) return null;
  if (Math.abs(x - xOf(view, range.from)) < NEAR_EDGE) return { kind: "range-edge", edge: "from" };
  return Math.abs(x - xOf(view, range.to)) < NEAR_EDGE ? { kind: "range-edge", edge: "to" } : null;
}

function clipTarget(scene: Scene, drawn: DrawnClip, x: number, y: number): Target {
  const { clip, lane } = drawn;
  const keyframe = keyframeAt(scene, drawn, x, y);
  if (keyframe) return { kind: "keyframe", clip, lane, keyframe };
  const left = xOf(scene.view, clip.at);
  const right = xOf(scene.view, clip.at + clip.length);
  const reach = Math.min(NEAR_EDGE, (right - left) / 4);
  if (x < left + reach) return { kind: "trim", clip, lane, edge: "from" };
  if (x > right - reach) return { kind: "trim", clip, lane, edge: "to" };
  if (onName(lane, y)) return { kind: "name", clip, lane };
  const db = wireDbAt(drawn, sampleAt(scene.view, x));
  const { range } = scene;
  const sample = sampleAt(scene.view, x);
  if (
    range &&
    sample >= range.from &&
    sample < range.to &&
    (range.track === null || range.track === clip.track)
  ) {
    return { kind: "dip", clip, lane, db };
  }
  return Math.abs(y - yOfDb(lane, db)) <= NEAR_WIRE
    ? { kind: "wire", clip, lane, db }
    : { kind: "body", clip, lane };
}

function onName(lane: Lane, y: number): boolean {
  return lane.rises
    ? y < lane.top + CLIP_MARGIN + NAME_STRIP
    : y >= lane.top + lane.height - CLIP_MARGIN - NAME_STRIP;
}

function keyframeAt(scene: Scene, { clip, lane }: DrawnClip, x: number, y: number): Keyframe | null {
  const gain = decibelsOf(clip.gain);
  let best: Keyframe | null = null;
  let distance = NEAR_KEYFRAME;
  for (const keyframe of clip.curve) {
    const dx = xOf(scene.view, keyframe.at - clip.in + clip.at) - x;
    if (Math.abs(dx) > NEAR_KEYFRAME) continue;
    const d = Math.hypot(dx, yOfDb(lane, decibelsOf(keyframe.level) + gain) - y);
    if (d < distance) {
      distance = d;
      best = keyframe;
    }
  }
  return best;
}

/** Level of a clip's wire at a timeline position. */
export function wireDbAt(drawn: DrawnClip, sample: number): number {
  const { clip, lane, schedule } = drawn;
  const position = Math.min(Math.max(sample - clip.at + clip.in, clip.in), clip.in + clip.length - 1);
  const stretch = schedule[stretchIndexAt(schedule, position)];
  return stretch ? wireDb(drawn, stretch, position, drawn.aroundDb - decibelsOf(lane.track.fader)) : 0;
}
