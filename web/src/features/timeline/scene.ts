import type { Clip, MixSource, Stretch, Track } from "@/api/types";
import { decibelsOf } from "@/lib/format";
import { decibelsAt } from "@/lib/schedule";
import type { MixState, Range } from "@/store/mixStore";
import { type Lane, type Layout, type View, xOf } from "./geometry";

/** A clip as it is drawn: as stored, or as a drag shows it before the server has answered. */
export interface DrawnClip {
  clip: Clip;
  lane: Lane;
  /** Gain of source and track in dB: heard, but not shown by the wire. */
  aroundDb: number;
  schedule: Stretch[];
  /** Difference in dB that a drag adds at a source position. */
  extra: ((position: number) => number) | null;
  selected: boolean;
}

export interface Scene {
  view: View;
  layout: Layout;
  width: number;
  rate: number;
  frameRate: string;
  clips: DrawnClip[];
  range: Range | null;
  keyframe: { clip: string; at: number } | null;
  length: number;
}

/** What a drag shows instead of the stored state. */
export interface Preview {
  clips: Record<string, { clip?: Clip; schedule?: Stretch[]; extra?: (position: number) => number }>;
  range?: Range | null;
  keyframe?: number;
}

export function buildScene(
  state: MixState,
  layout: Layout,
  view: View,
  width: number,
  preview: Preview | null,
): Scene {
  const lanes = new Map(layout.lanes.map((lane) => [lane.track.id, lane]));
  const clips: DrawnClip[] = [];
  for (const stored of Object.values(state.clips)) {
    const shown = preview?.clips[stored.id];
    const clip = shown?.clip ?? stored;
    const lane = lanes.get(clip.track);
    if (!lane || xOf(view, clip.at) > width || xOf(view, clip.at + clip.length) < 0) continue;
    clips.push({
      clip,
      lane,
      aroundDb: aroundDb(state.sources[clip.source], lane.track),
      schedule: shown?.schedule ?? clip.schedule,
      extra: shown?.extra ?? null,
      selected: state.selected.includes(clip.id),
    });
  }
  const chosen = state.selected[0];
  const keyframe = preview?.keyframe ?? state.keyframe;
  return {
    view,
    layout,
    width,
    rate: state.rate,
    frameRate: state.frameRate,
    clips,
    range: preview?.range === undefined ? state.range : preview.range,
    keyframe: chosen !== undefined && keyframe !== null ? { clip: chosen, at: keyframe } : null,
    length: state.length,
  };
}

function aroundDb(source: MixSource | undefined, track: Track): number {
  return decibelsOf(source?.gain ?? 0) + decibelsOf(track.fader);
}

/** Level of the wire in dB at a source position: clip gain and curve, without source gain. */
export function wireDb(drawn: DrawnClip, stretch: Stretch, position: number, sourceDb: number): number {
  return decibelsAt(stretch, position) - sourceDb + (drawn.extra?.(position) ?? 0);
}

/** A straight-line stand-in for a schedule while its keyframes are dragged; the server's own replaces it. */
export function roughSchedule(clip: Clip, sourceDb: number): Stretch[] {
  const around = sourceDb + decibelsOf(clip.gain);
  const points = clip.curve.map((k) => ({
    at: k.at,
    db: Math.max(-144, decibelsOf(k.level) + around),
    hold: k.ramp === "hold",
  }));
  const end = clip.in + clip.length;
  const first = points[0];
  const last = points[points.length - 1];
  if (!first || !last) return [{ from: clip.in, to: end, db: [around, 0] }];
  const stretches: Stretch[] = [];
  if (first.at > clip.in) stretches.push({ from: clip.in, to: first.at, db: [first.db, 0] });
  for (let i = 1; i < points.length; i++) {
    const a = points[i - 1];
    const b = points[i];
    if (a && b && b.at > a.at) stretches.push({ from: a.at, to: b.at, db: [a.db, a.hold ? 0 : b.db - a.db] });
  }
  if (last.at < end) stretches.push({ from: last.at, to: end, db: [last.db, 0] });
  return stretches;
}

/** What a dip adds along a clip: nothing, down the ramp, all of it, up the ramp. Straight where the server's is smooth. */
export function roughDip(from: number, to: number, ramp: number, by: number): (position: number) => number {
  return (position) => {
    const into =
      ramp > 0 ? Math.min(1, Math.max(0, (position - from + ramp) / ramp)) : Number(position >= from);
    const out = ramp > 0 ? Math.min(1, Math.max(0, (to + ramp - position) / ramp)) : Number(position < to);
    return by * Math.min(into, out);
  };
}
