import type { Keyframe, Track } from "@/api/types";

/** What a track has in its level lane; nothing where that is not followed. */
export function levelLane(track: Track): Keyframe[] {
  return track.lanes?.off ? [] : (track.lanes?.level ?? []);
}
