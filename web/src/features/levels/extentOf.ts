import type { Clip } from "@/api/schema";

/** From where the first of some clips begins to where the last of them ends: what a plan for them is about. */
export function extentOf(clips: Record<string, Clip>, ids: readonly string[]): { from: number; to: number } {
  const there = ids.map((id) => clips[id]).filter((clip) => clip !== undefined);
  return {
    from: Math.min(...there.map((clip) => clip.at)),
    to: Math.max(...there.map((clip) => clip.at + clip.length)),
  };
}
