import type { Track } from "@/api/schema";
import { panOn, spansOf } from "@/preview/lanes";
import { type Lane, sampleAt, soundArea, xOf } from "./geometry";
import type { Scene } from "./scene";

/** What lies under the pointer on a pan or a mute lane that is edited. */
export type SideTarget =
  | { kind: "pan-point"; lane: Lane; at: number; pan: number }
  | { kind: "pan-line"; lane: Lane; pan: number }
  | { kind: "pan-range"; lane: Lane; pan: number }
  | { kind: "mute-edge"; lane: Lane; at: number; muted: boolean }
  | { kind: "mute-span"; lane: Lane; from: number; to: number };

const NEAR = 7;

/** Left is up, right is down. */
export function yOfPan(lane: Lane, pan: number): number {
  const { top, bottom } = soundArea(lane);
  return (top + bottom) / 2 + (pan * (bottom - top - 12)) / 2;
}

/** The pan that a vertical drag leads to, by the hundredth. */
export function dragPan(lane: Lane, from: number, dy: number): number {
  const { top, bottom } = soundArea(lane);
  const pan = Math.min(1, Math.max(-1, from + (2 * dy) / (bottom - top - 12)));
  return Math.abs(pan) < 0.03 ? 0 : Math.round(pan * 100) / 100;
}

export function pointsOf(track: Track) {
  return track.lanes?.pan ?? [];
}

export function sideTarget(scene: Scene, lane: Lane, x: number, y: number): SideTarget | null {
  const { track } = lane;
  const { view } = scene;
  const part = scene.activeLane[track.id];
  const area = soundArea(lane);
  if (y < area.top || y > area.bottom) return null;
  const sample = sampleAt(view, x);
  if (part === "mute") {
    const near = (at: number) => Math.abs(xOf(view, at) - x) < NEAR;
    for (const { from, to } of spansOf(track.lanes?.mute ?? [])) {
      if (near(from)) return { kind: "mute-edge", lane, at: from, muted: true };
      if (near(to)) return { kind: "mute-edge", lane, at: to, muted: false };
      if (sample >= from && sample < to) return { kind: "mute-span", lane, from, to };
    }
    return null;
  }
  if (part !== "pan") return null;
  const point = pointsOf(track).find(
    (p) => Math.hypot(xOf(view, p.at) - x, yOfPan(lane, p.pan) - y) < NEAR + 1,
  );
  if (point) return { kind: "pan-point", lane, ...point };
  const pan = panOn(pointsOf(track), sample, track.pan);
  const { range } = scene;
  const covers = range && (range.tracks === null || range.tracks.includes(track.id));
  if (covers && sample >= range.from && sample < range.to) return { kind: "pan-range", lane, pan };
  return Math.abs(yOfPan(lane, pan) - y) < NEAR ? { kind: "pan-line", lane, pan } : null;
}
