import type { Edit } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { formatTimecode } from "@/preview/timecode";
import type { MixState } from "@/store/mixStore";
import type { Range } from "@/store/screen";
import type { Preview } from "@/scene/scene";

export interface Modifiers {
  /** Shift: keep to the axis moved along first. */
  axis: boolean;
  /** Ctrl: a tenth of the way; for clips, take the later ones along. */
  fine: boolean;
  /** Alt: hold snapping off. */
  free: boolean;
}

export interface Shown {
  preview: Preview;
  /** "−4.5 → −8.2 dB (−3.7)" */
  readout: string;
}

/** What a drag comes to: one edit, or a change of what is selected. */
export interface Outcome {
  edit?: Edit;
  /** Whether the edit takes the place of the newest one. */
  instead?: boolean;
  range?: Range | null;
  chosen?: MixState["chosen"];
}

/** px outside its lane at which a keyframe that is dragged there goes. */
export const OUTSIDE = 44;

/** A drag from its first pixel to its last: many previews, and at the end one outcome. */
export interface Gesture {
  move(x: number, y: number, modifiers: Modifiers): Shown;
  commit(): Outcome;
}

export const SNAP_PX = 8;

/** A typed or dragged level as "from → to (difference)". */
export function levelReadout(from: number, to: number): string {
  const difference = to - from;
  return `${formatDb(from)} → ${formatDb(to)}${Number.isFinite(to) ? " dB" : ""}${Number.isFinite(difference) ? ` (${formatDb(difference)})` : ""}`;
}

export function time(state: MixState, sample: number): string {
  return formatTimecode(sample, state.rate, state.frameRate);
}

export function seconds(state: MixState, samples: number): string {
  return `${(samples / state.rate).toFixed(2)} s`;
}

/** Where things may snap to: ends of clips, markers, the playhead, the range and the very start. */
export function snapTargets(state: MixState, but: string[]): number[] {
  const targets = [0, state.playhead, ...state.markers.map((m) => m.at)];
  for (const clip of Object.values(state.clips))
    if (!but.includes(clip.id)) targets.push(clip.at, clip.at + clip.length);
  if (state.range) targets.push(state.range.from, state.range.to);
  return targets;
}

/** Vertical way travelled, slower while the fine modifier is held. */
export class Travel {
  private last: number;
  private sum = 0;

  constructor(start: number) {
    this.last = start;
  }

  to(y: number, fine: boolean): number {
    this.sum += (y - this.last) * (fine ? 0.1 : 1);
    this.last = y;
    return this.sum;
  }
}
