import type { Clip, Keyframe, Marker, WireId } from "@/api/schema";
import { decibelsOf } from "@/lib/format";
import { chosenOn } from "@/store/chosen";
import { sameWire, sideOf } from "@/store/wires";
import { CLIP_MARGIN, type Lane, laneAt, NAME_STRIP, sampleAt, soundArea, xOf, yOfDb } from "./geometry";
import { type DrawnClip, type DrawnWire, editedLane, grippable, type Scene, wireDbAt } from "./scene";
import { type SideTarget, sideTarget } from "./sideLanes";

interface OnClip {
  clip: Clip;
  lane: Lane;
}

interface OnWire {
  wire: WireId;
  lane: Lane;
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
  | ({ kind: "keyframe"; keyframe: Keyframe } & OnWire)
  | ({ kind: "ease"; keyframe: Keyframe; next: Keyframe; end: "out" | "in" } & OnWire)
  | ({ kind: "wire"; db: number } & OnWire)
  | ({ kind: "dip"; db: number } & OnWire)
  | ({ kind: "body" } & OnClip)
  | SideTarget;

const NEAR_WIRE = 6;
const NEAR_KEYFRAME = 10;
const RIGHT_ON = 5;
const NEAR_EDGE = 12;
const NEAR_CORNER = 12;

/** So near outside a range a typed number is for it still, as a drag that made it ends on its edge. */
const BESIDE_RANGE = 8;

/** What a number typed there is for. */
export function typedAt(scene: Scene, x: number, y: number): Target | null {
  const target = hitTest(scene, x, y);
  const { range, view } = scene;
  if (!range || !target || !["lane", "body", "wire"].includes(target.kind)) return target;
  const [from, to] = [xOf(view, range.from), xOf(view, range.to)];
  if (x < from - BESIDE_RANGE || x > to + BESIDE_RANGE) return target;
  const inside = hitTest(scene, Math.min(Math.max(x, from + 1), to - 1), y);
  return inside?.kind === "dip" || inside?.kind === "pan-range" ? inside : target;
}

export function hitTest(scene: Scene, x: number, y: number): Target | null {
  const { clearance, horizon } = scene.layout;
  if (y >= clearance.top && y < horizon.top + horizon.height) return onHorizon(scene, x, y);
  const lane = laneAt(scene.layout, y);
  if (!lane) return null;
  const edited = editedLane(scene, lane.track.id);
  const onLane = edited && wireTarget(scene, lane, [edited.wire], x, y);
  if (onLane) return onLane;
  const onSide = sideTarget(scene, lane, x, y);
  if (onSide) return onSide;
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
  horizon: "Click to go here · drag to select a range of time on all tracks · double-click shows the whole",
  playhead: "Drag to scrub",
  marker: "Drag to move the marker · double-click renames it",
  "range-edge": "Drag to change the range",
  ramp: "Drag to make the ramps of the last change longer or shorter",
  lane: "Drag to select a range · Ctrl-drag lassoes keyframes · drop sources here",
  name: "Drag to move · Shift-click selects several · Shift keeps to one axis · Ctrl takes later clips along · Alt holds off snapping",
  trim: "Drag to trim · Ctrl closes the gap · Alt holds off snapping",
  fade: "Drag to fade · double-click changes the shape · type a length in seconds or frames (12f)",
  cross: "These two cross over · drag the ends to change how long · double-click changes the shape",
  keyframe:
    "Drag to move · Shift one axis · Ctrl fine · Shift-click chooses several · type a level · Delete, or a drag out of the lane, removes",
  ease: "Drag to shape the ramp",
  wire: "Drag to change the level · Ctrl fine · type a level · double-click adds a keyframe",
  dip: "Drag up or down to lift or dip the range · Ctrl fine · type an amount · Delete takes the range out",
  "pan-point": "Drag to move · up is left, down is right · Ctrl fine · type a pan · double-click removes",
  "pan-line": "Drag to bend the line here · double-click adds a point",
  "pan-range": "Drag up to bring the range to the left, down to the right",
  "mute-edge": "Drag to mute longer or shorter · Alt holds off snapping",
  "mute-span": "Muted here · double-click lets it be heard again",
  body: "Click to select · drag to select a range · Ctrl-drag lassoes keyframes · Delete takes what is framed",
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
  "pan-point": "move",
  "pan-line": "ns-resize",
  "pan-range": "ns-resize",
  "mute-edge": "ew-resize",
  "mute-span": "crosshair",
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
  if (near(playhead, 12) && !lower) return { kind: "playhead" };
  const marker = lower ? markers.findLast((m) => near(m.at, 12)) : undefined;
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
    y: area.top + 4,
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
  const wires = grippable(scene, drawn);
  const near = pointAt(scene, lane, wires, x, y);
  if (near) return near;
  const left = xOf(scene.view, clip.at);
  const right = xOf(scene.view, clip.at + clip.length);
  const reach = Math.min(NEAR_EDGE, (right - left) / 4);
  if (x < left + reach) return { kind: "trim", clip, lane, edge: "from" };
  if (x > right - reach) return { kind: "trim", clip, lane, edge: "to" };
  if (onName(lane, y)) return { kind: "name", clip, lane };
  return wireTarget(scene, lane, wires, x, y) ?? dipOfHidden(scene, drawn, x) ?? { kind: "body", clip, lane };
}

/** The keyframe, the grip, the wire or the stretch of it in the range that a drag would take. */
function wireTarget(scene: Scene, lane: Lane, wires: DrawnWire[], x: number, y: number): Target | null {
  const near = pointAt(scene, lane, wires, x, y);
  if (near) return near;
  const drawn = wires.find((w) => {
    const area = soundArea(lane, sideOf(w.id));
    return y >= area.top - 2 && y <= area.bottom + 2;
  });
  if (!drawn) return null;
  const sample = sampleAt(scene.view, x);
  const db = wireDbAt(drawn, sample);
  if (inRange(scene, lane, sample)) return { kind: "dip", wire: drawn.id, lane, db };
  return Math.abs(y - yOfDb(lane, db, sideOf(drawn.id))) <= NEAR_WIRE
    ? { kind: "wire", wire: drawn.id, lane, db }
    : null;
}

/** A range is dipped where wires are put out of sight too. */
function dipOfHidden(scene: Scene, { clip, lane, wires, wiresHidden }: DrawnClip, x: number): Target | null {
  const sample = sampleAt(scene.view, x);
  const [own] = wires;
  if (!wiresHidden || !own || !inRange(scene, lane, sample)) return null;
  return { kind: "dip", wire: { clip: clip.id }, lane, db: wireDbAt(own, sample) };
}

function inRange({ range }: Scene, lane: Lane, sample: number): boolean {
  if (!range || sample < range.from || sample >= range.to) return false;
  return range.tracks === null || range.tracks.includes(lane.track.id);
}

function onName(lane: Lane, y: number): boolean {
  return y < lane.top + CLIP_MARGIN + NAME_STRIP;
}

/** Where a keyframe is drawn. */
export function placeOf(scene: Scene, lane: Lane, wire: DrawnWire, keyframe: Keyframe) {
  return {
    x: xOf(scene.view, keyframe.at - wire.ahead),
    y: yOfDb(lane, decibelsOf(keyframe.level) + wire.gainDb, sideOf(wire.id)),
  };
}

function pointAt(scene: Scene, lane: Lane, wires: DrawnWire[], x: number, y: number): Target | null {
  return easeAt(scene, lane, wires, x, y) ?? keyframeAt(scene, lane, wires, x, y);
}

function keyframeAt(scene: Scene, lane: Lane, wires: DrawnWire[], x: number, y: number): Target | null {
  let best: Target | null = null;
  let distance = NEAR_KEYFRAME;
  for (const wire of wires) {
    for (const keyframe of wire.curve) {
      const place = placeOf(scene, lane, wire, keyframe);
      const d = Math.hypot(place.x - x, place.y - y);
      if (d < distance) {
        distance = d;
        best = { kind: "keyframe", wire: wire.id, lane, keyframe };
      }
    }
  }
  return best;
}

/** Whether a point is on the mark of a keyframe itself, and not only near enough to take hold of it. */
export function isRightOn(
  scene: Scene,
  target: Extract<Target, { kind: "keyframe" }>,
  x: number,
  y: number,
): boolean {
  const wires = [...scene.clips.flatMap((drawn) => drawn.wires), ...scene.lanes.map((drawn) => drawn.wire)];
  const wire = wires.find((w) => sameWire(w.id, target.wire));
  if (!wire) return false;
  const place = placeOf(scene, target.lane, wire, target.keyframe);
  return Math.hypot(place.x - x, place.y - y) <= RIGHT_ON;
}

/** The two grips of a smooth ramp that leaves a chosen keyframe: how long it takes to leave, and to arrive. */
export function easesOf(scene: Scene, lane: Lane, wires: DrawnWire[]) {
  const eases: { target: Extract<Target, { kind: "ease" }>; x: number; y: number }[] = [];
  for (const wire of wires) {
    const taken = chosenOn(scene.chosen, wire.id);
    for (const [i, keyframe] of taken.size ? wire.curve.entries() : []) {
      const next = wire.curve[i + 1];
      const kind = typeof keyframe.ramp === "string" ? keyframe.ramp : keyframe.ramp.kind;
      if (!next || kind !== "smooth" || !taken.has(keyframe.at)) continue;
      const shape: { easeOut?: number; easeIn?: number } =
        typeof keyframe.ramp === "string" ? {} : keyframe.ramp;
      for (const end of ["out", "in"] as const) {
        const part = end === "out" ? (shape.easeOut ?? 0.5) : 1 - (shape.easeIn ?? 0.5);
        const shift = end === "out" ? -0.06 : 0.06; // where both meet in the middle they stay apart
        const at = keyframe.at + (next.at - keyframe.at) * Math.min(0.97, Math.max(0.03, part + shift));
        const sample = at - wire.ahead;
        eases.push({
          target: { kind: "ease", wire: wire.id, lane, keyframe, next, end },
          x: xOf(scene.view, sample),
          y: yOfDb(lane, wireDbAt(wire, sample), sideOf(wire.id)),
        });
      }
    }
  }
  return eases;
}

function easeAt(scene: Scene, lane: Lane, wires: DrawnWire[], x: number, y: number): Target | null {
  if (scene.chosen.length === 0) return null;
  return easesOf(scene, lane, wires).find((e) => Math.hypot(e.x - x, e.y - y) < 6)?.target ?? null;
}
