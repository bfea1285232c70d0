import type { Clip } from "@/api/types";
import { decibelsOf } from "@/lib/format";
import { decibelsAt, stretchIndexAt } from "@/lib/schedule";
import type { MixState, Range } from "@/store/mixStore";

/** The clips that a dip works on: the given one, and every other under a range on its track. */
export function clipsInRange(state: MixState, range: Range, clip: Clip): string[] {
  const ids = Object.values(state.clips)
    .filter((c) => c.track === clip.track && c.at < range.to && c.at + c.length > range.from)
    .map((c) => c.id);
  return range.track === null ? [clip.id] : ids;
}

export function sourceDb(state: MixState, clip: Clip): number {
  return decibelsOf(state.sources[clip.source]?.gain ?? 0);
}

/** Level of a stored clip at a timeline position, for a number that people read. */
export function storedLevelAt(state: MixState, clip: Clip, position: number): number {
  const source = position - clip.at + clip.in;
  const stretch = clip.schedule[stretchIndexAt(clip.schedule, source)];
  if (!stretch) return decibelsOf(clip.gain);
  return decibelsAt(stretch, Math.min(Math.max(source, stretch.from), stretch.to)) - sourceDb(state, clip);
}
