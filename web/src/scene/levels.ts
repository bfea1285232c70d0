import type { Clip, Lane, Side, Stretch, WireId } from "@/api/schema";
import { decibelsOf } from "@/lib/format";
import { decibelsAt, stretchIndexAt } from "@/preview/schedule";
import { fadeAt } from "@/preview/fade";
import type { MixState } from "@/store/mixStore";
import type { Range } from "@/store/screen";

/**
 * The clips that a change to a range works on: those under it on its tracks. Across all tracks it is the selected ones, if
 * any of them lie under it, and else all that are not locked.
 */
export function clipsInRange(state: MixState, range: Range): string[] {
  const under = Object.values(state.clips).filter((c) => c.at < range.to && c.at + c.length > range.from);
  if (range.tracks) return under.filter((c) => range.tracks?.includes(c.track)).map((c) => c.id);
  const selected = under.filter((c) => state.selected.includes(c.id));
  if (selected.length) return selected.map((c) => c.id);
  const locked = new Set(state.tracks.filter((t) => t.locked).map((t) => t.id));
  return under.filter((c) => !locked.has(c.track)).map((c) => c.id);
}

/** What a change to a range names, where it was begun on a wire: the lane, or the clips under the range. */
export function wiresInRange(
  state: MixState,
  range: Range,
  wire: WireId,
): { track: string; lane: Lane } | { clips: string[]; channel?: Side } {
  if ("track" in wire) return wire;
  return { clips: clipsInRange(state, range), ...(wire.channel ? { channel: wire.channel } : {}) };
}

/** Level of a wire at a source position. */
function levelOf(schedule: Stretch[], position: number): number | null {
  const stretch = schedule[stretchIndexAt(schedule, position)];
  return stretch ? decibelsAt(stretch, Math.min(Math.max(position, stretch.from), stretch.to)) : null;
}

/** Level of a clip at a timeline position with all that is its own: gain, wire and fades. */
export function heardLevelAt(clip: Clip, position: number): number {
  const [fadeIn, fadeOut] = clip.fades;
  const into = position - clip.at;
  const left = clip.at + clip.length - position;
  const gain = fadeAt(fadeIn, into) * fadeAt(fadeOut, left);
  return storedLevelAt(clip, position) + 20 * Math.log10(gain);
}

/** Level of a stored clip's wire at a timeline position, for a number that people read. */
export function storedLevelAt(clip: Clip, position: number, channel?: Side): number {
  const source = position - clip.at + clip.in;
  if (channel) return levelOf(clip.channelSchedules?.[channel] ?? [], source) ?? 0;
  return (levelOf(clip.schedule, source) ?? 0) + decibelsOf(clip.gain);
}
