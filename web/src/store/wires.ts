import type { Chosen, Clip, Keyframe, Lane, LanePart, Side, Track, WireId } from "@/api/schema";
import { decibelsOf } from "@/lib/format";
import { CORE } from "@/preview/constants";

/** A level wire where it hangs: of a clip, of one channel of an opened clip, or a lane of a track. */
export interface Wire {
  id: WireId;
  name: string;
  curve: Keyframe[];
  /** Samples by which the curve's own time is ahead of the timeline's. */
  ahead: number;
  /** The part that counts, in the curve's own time. */
  from: number;
  to: number;
  /** Level that lies under the curve all along, dB. */
  gainDb: number;
  /** The highest level of a keyframe, dB. */
  most: number;
}

interface Content {
  clips: Record<string, Clip>;
  tracks: Track[];
}

/** Keyframes of a clip's own wire, or of one of its opened channels. */
export function curveOf(clip: Clip, channel?: Side): Keyframe[] {
  return channel ? (clip.channels?.[channel]?.curve ?? []) : clip.curve;
}

/** Keyframes of a lane of a track. */
export function laneCurve(track: Track, lane: Lane): Keyframe[] {
  return (lane === "level" ? track.lanes?.level : track[lane]?.curve) ?? [];
}

/** Whether the lane is one of levels, which are edited like the curve of a clip. */
export function isLevels(lane: LanePart | undefined): lane is Lane {
  return lane === "level" || lane === "ducking" || lane === "band";
}

/** The wire that is named; null when its clip or its track is gone. */
export function wireIn({ clips, tracks }: Content, id: WireId): Wire | null {
  if ("track" in id) {
    const track = tracks.find((t) => t.id === id.track);
    if (!track) return null;
    const level = id.lane === "level";
    return {
      id,
      name: `the ${id.lane} lane of ${track.name}`,
      curve: laneCurve(track, id.lane),
      ahead: 0,
      from: 0,
      to: CORE.longestMix,
      gainDb: 0,
      most: level ? CORE.highest.fader : CORE.highest.clip,
    };
  }
  const clip = clips[id.clip];
  return clip
    ? {
        id,
        name: clip.name,
        curve: curveOf(clip, id.channel),
        ahead: clip.in - clip.at,
        from: clip.in,
        to: clip.in + clip.length,
        gainDb: decibelsOf(id.channel ? (clip.channels?.[id.channel]?.gain ?? 0) : clip.gain),
        most: CORE.highest.clip,
      }
    : null;
}

export function wireOf(clip: Clip, channel?: Side): WireId {
  return channel ? { clip: clip.id, channel } : { clip: clip.id };
}

export function sideOf(id: WireId): Side | undefined {
  return "clip" in id ? id.channel : undefined;
}

export function sameWire(a: WireId, b: WireId): boolean {
  if ("track" in a) return "track" in b && a.track === b.track && a.lane === b.lane;
  return "clip" in b && a.clip === b.clip && a.channel === b.channel;
}

interface Work extends Content {
  chosen: Chosen[];
  selected: string[];
  range: { tracks: string[] | null } | null;
  activeLane: Record<string, LanePart>;
}

/** The lane that is worked on: that of the chosen keyframes, of the range, of the selected clip, or the one last taken up. */
export function partAtHand(state: Work): { track: string; lane: LanePart } | null {
  const { tracks, clips, chosen, selected, range, activeLane } = state;
  const [first] = chosen;
  if (first) return "track" in first ? { track: first.track, lane: first.lane } : null;
  const taken = Object.keys(activeLane).filter((id) => tracks.some((t) => t.id === id));
  const own = selected[0] === undefined ? undefined : clips[selected[0]]?.track;
  const track =
    range?.tracks?.find((id) => taken.includes(id)) ??
    taken.findLast((id) => own === undefined || own === id);
  const lane = track === undefined ? undefined : activeLane[track];
  return track !== undefined && lane ? { track, lane } : null;
}

/** That lane where it is edited as wires are. */
export function laneAtHand(state: Work): { track: string; lane: Lane } | null {
  const part = partAtHand(state);
  return part && isLevels(part.lane) ? { track: part.track, lane: part.lane } : null;
}
