import type { Fade, Stretch } from "@/api/schema";
import { fadeGain } from "@/preview/fade";
import { gainOf, isConstant, stretchIndexAt } from "@/preview/schedule";
import { sideOf } from "@/store/wires";
import type { DrawnClip } from "./scene";

/** A gain over time: of a wire of the clip, in its own samples, or of a lane of its track, which is so many samples ahead. */
export interface GainRow {
  schedule: Stretch[];
  shift: number;
}

/** What the sound of a clip is multiplied by, and for how long that stays the same. Positions are source samples; asked in order it is quick. */
export class SoundGain {
  private readonly places: number[];

  private constructor(
    private readonly clip: { in: number; length: number; fades: (Fade | null)[] },
    private readonly fixed: number,
    private readonly rows: GainRow[],
    private readonly extra: ((position: number) => number) | null,
  ) {
    this.places = rows.map(() => 0);
  }

  /** @param channel one of an opened clip */
  static of(drawn: DrawnClip, channel?: "left" | "right"): SoundGain {
    const { clip } = drawn;
    const wires = [drawn.wires[0], channel && drawn.wires.find((w) => sideOf(w.id) === channel)];
    const own = wires.flatMap((wire) =>
      wire?.schedule.length ? [{ schedule: wire.schedule, shift: 0 }] : [],
    );
    const muted = channel !== undefined && clip.channels?.[channel]?.muted === true;
    return new SoundGain(clip, muted ? 0 : 10 ** (drawn.levelDb / 20), [...own, ...drawn.rows], drawn.extra);
  }

  at(position: number): number {
    let gain = this.fixed;
    for (const [i, { shift }] of this.rows.entries()) {
      const stretch = this.stretch(i, position + shift);
      if (stretch) gain *= gainOf(stretch, Math.min(Math.max(position + shift, stretch.from), stretch.to));
    }
    if (this.extra) gain *= 10 ** (this.extra(position) / 20);
    return gain * this.fadesAt(position);
  }

  /** Up to where the gain is what it is at a position; that position itself where it moves. */
  steadyUntil(position: number): number {
    if (this.extra) return position;
    const { clip } = this;
    const [fadeIn, fadeOut] = clip.fades;
    const end = clip.in + clip.length;
    if (position < clip.in + (fadeIn?.length ?? 0)) return position;
    let until = end - (fadeOut?.length ?? 0);
    for (const [i, { shift }] of this.rows.entries()) {
      const stretch = this.stretch(i, position + shift);
      if (!stretch) continue;
      // Before its first stretch and after its last one a row stays as it is there.
      const inside = position + shift >= stretch.from && position + shift < stretch.to;
      if (inside && (!isConstant(stretch) || stretch.factors?.length)) return position;
      if (inside) until = Math.min(until, stretch.to - shift);
      else if (position + shift < stretch.from) until = Math.min(until, stretch.from - shift);
    }
    return until;
  }

  /** Up to where the gain goes without a corner or a jump from a position on, as far as that is known; what a drag adds is not. */
  smoothUntil(position: number): number {
    const { clip } = this;
    const [fadeIn, fadeOut] = clip.fades;
    const end = clip.in + clip.length;
    const begun = clip.in + (fadeIn?.length ?? 0);
    const ends = end - (fadeOut?.length ?? 0);
    let until = position < ends ? ends : end;
    if (position < begun) until = Math.min(until, begun);
    for (const [i, { shift }] of this.rows.entries()) {
      const stretch = this.stretch(i, position + shift);
      if (!stretch) continue;
      if (position + shift < stretch.from) until = Math.min(until, stretch.from - shift);
      else if (position + shift < stretch.to) until = Math.min(until, stretch.to - shift);
    }
    return until;
  }

  private stretch(row: number, position: number): Stretch | undefined {
    const schedule = this.rows[row]?.schedule ?? [];
    let i = this.places[row] ?? 0;
    if ((schedule[i]?.from ?? 0) > position) i = stretchIndexAt(schedule, position);
    while (i < schedule.length - 1 && (schedule[i]?.to ?? Infinity) <= position) i++;
    this.places[row] = i;
    return schedule[i];
  }

  private fadesAt(position: number): number {
    const { clip } = this;
    const [fadeIn, fadeOut] = clip.fades;
    return part(fadeIn, position - clip.in) * part(fadeOut, clip.in + clip.length - position);
  }
}

/** @param way samples into the fade from its silent end */
function part(fade: Fade | null | undefined, way: number): number {
  if (!fade || way >= fade.length) return 1;
  const { windowFrom = 0, windowTo = 1 } = fade;
  return fadeGain(fade.shape, windowFrom + ((windowTo - windowFrom) * Math.max(0, way)) / fade.length);
}
