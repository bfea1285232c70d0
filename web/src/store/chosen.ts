import type { Chosen, Clip, Track, WireId } from "@/api/schema";
import { sameWire, wireIn } from "./wires";

export function isChosen(chosen: Chosen[], wire: WireId, at: number): boolean {
  return chosen.some((c) => sameWire(c, wire) && c.keyframes.includes(at));
}

/** The chosen keyframes of one wire, for going through many. */
export function chosenOn(chosen: Chosen[], wire: WireId): ReadonlySet<number> {
  return new Set(chosen.find((c) => sameWire(c, wire))?.keyframes);
}

export function countOf(chosen: Chosen[]): number {
  return chosen.reduce((sum, c) => sum + c.keyframes.length, 0);
}

/** Adds a keyframe to those chosen, or takes it out again. */
export function toggled(chosen: Chosen[], wire: WireId, at: number): Chosen[] {
  const same = chosen.find((c) => sameWire(c, wire));
  const others = chosen.filter((c) => c !== same);
  const keyframes = same?.keyframes.includes(at)
    ? same.keyframes.filter((k) => k !== at)
    : [...(same?.keyframes ?? []), at].sort((a, b) => a - b);
  return keyframes.length ? [...others, { ...wire, keyframes }] : others;
}

/** Both choices as one. */
export function merged(a: Chosen[], b: Chosen[]): Chosen[] {
  const all = [...a];
  for (const more of b) {
    const i = all.findIndex((c) => sameWire(c, more));
    const same = all[i];
    if (!same) all.push(more);
    else
      all[i] = {
        ...same,
        keyframes: [...new Set([...same.keyframes, ...more.keyframes])].sort((x, y) => x - y),
      };
  }
  return all;
}

/** The same choice after they were moved in time. */
export function moved(chosen: Chosen[], later: number): Chosen[] {
  return chosen.map((c) => ({ ...c, keyframes: c.keyframes.map((k) => k + later) }));
}

/** What of a choice is still there after an edit; null when nothing is. */
export function isStillThere(
  chosen: Chosen,
  content: { clips: Record<string, Clip>; tracks: Track[] },
): Chosen | null {
  const there = new Set(wireIn(content, chosen)?.curve.map((k) => k.at));
  const keyframes = chosen.keyframes.filter((k) => there.has(k));
  return keyframes.length ? { ...chosen, keyframes } : null;
}

/** The one keyframe that is chosen, when it is one. */
export function onlyOne(chosen: Chosen[]): { wire: WireId; at: number } | null {
  const [first, ...others] = chosen;
  const at = first?.keyframes[0];
  if (!first || at === undefined || others.length > 0 || first.keyframes.length > 1) return null;
  const { keyframes, ...wire } = first;
  void keyframes;
  return { wire, at };
}
