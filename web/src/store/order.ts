import type { Track } from "@/api/schema";

/** Tracks as the lanes have them: above the horizon first. */
export function inDeskOrder(tracks: Track[]): Track[] {
  return [...tracks.filter((t) => t.stem === "speech"), ...tracks.filter((t) => t.stem !== "speech")];
}
