import type { Keyframe, Track } from "@/api/schema";

/** What a track has in its level lane; nothing where that is not followed. */
export function levelLane(track: Track): Keyframe[] {
  return track.lanes?.off ? [] : (track.lanes?.level ?? []);
}

/** A pan lane at a moment; the other pan where it has no points. */
export function panOn(points: { at: number; pan: number }[], position: number, rest: number): number {
  const next = points.findIndex((point) => point.at > position);
  const before = points[(next < 0 ? points.length : next) - 1];
  const after = next < 0 ? undefined : points[next];
  if (!before || !after) return before?.pan ?? after?.pan ?? rest;
  return before.pan + ((after.pan - before.pan) * (position - before.at)) / (after.at - before.at);
}

/** What a track has in its pan lane; nothing where that is not followed. */
export function panLane(track: Track) {
  return track.lanes?.off ? [] : (track.lanes?.pan ?? []);
}

/** Where a track stands between left and right at a moment: by its pan lane, else as it is set. */
export function panAt(track: Track, position: number): number {
  return panOn(panLane(track), position, track.pan);
}

/** The spans over which a mute lane mutes; the last may be open. */
export function spansOf(switches: { at: number; muted: boolean }[]): { from: number; to: number }[] {
  return switches.flatMap(({ at, muted }, i) =>
    muted ? [{ from: at, to: switches.slice(i + 1).find((s) => !s.muted)?.at ?? Infinity }] : [],
  );
}

/** The spans over which a track is muted by its mute lane, where that is followed. */
export function mutedSpans(track: Track): { from: number; to: number }[] {
  return track.lanes?.off ? [] : spansOf(track.lanes?.mute ?? []);
}
