import type { Chosen, Clip, Keyframe, Side } from "@/api/types";

/** Keyframes of a clip's own wire, or of one of its opened channels. */
export function curveOf(clip: Clip, channel?: Side): Keyframe[] {
  return channel ? (clip.channels?.[channel]?.curve ?? []) : clip.curve;
}

export function isChosen(chosen: Chosen[], clip: string, at: number, channel?: Side): boolean {
  return chosen.some((c) => c.clip === clip && c.channel === channel && c.keyframes.includes(at));
}

export function countOf(chosen: Chosen[]): number {
  return chosen.reduce((sum, c) => sum + c.keyframes.length, 0);
}

/** Adds a keyframe to those chosen, or takes it out again. */
export function toggled(chosen: Chosen[], clip: string, at: number, channel?: Side): Chosen[] {
  const wire = chosen.find((c) => c.clip === clip && c.channel === channel);
  const others = chosen.filter((c) => c !== wire);
  const keyframes = wire?.keyframes.includes(at)
    ? wire.keyframes.filter((k) => k !== at)
    : [...(wire?.keyframes ?? []), at].sort((a, b) => a - b);
  return keyframes.length ? [...others, one(clip, keyframes, channel)] : others;
}

export function one(clip: string, keyframes: number[], channel?: Side): Chosen {
  return channel ? { clip, channel, keyframes } : { clip, keyframes };
}

/** The same choice after they were moved in time. */
export function moved(chosen: Chosen[], later: number): Chosen[] {
  return chosen.map((c) => ({ ...c, keyframes: c.keyframes.map((k) => k + later) }));
}

/** What of a choice is still there after an edit; null when nothing is. */
export function isStillThere(chosen: Chosen, clips: Record<string, Clip>): Chosen | null {
  const clip = clips[chosen.clip];
  if (!clip) return null;
  const there = new Set(curveOf(clip, chosen.channel).map((k) => k.at));
  const keyframes = chosen.keyframes.filter((k) => there.has(k));
  return keyframes.length ? { ...chosen, keyframes } : null;
}

/** The one keyframe that is chosen, when it is one. */
export function onlyOne(chosen: Chosen[]): { clip: string; channel?: Side; at: number } | null {
  const [first, ...others] = chosen;
  const at = first?.keyframes[0];
  return first && at !== undefined && others.length === 0 && first.keyframes.length === 1
    ? { clip: first.clip, at, ...(first.channel ? { channel: first.channel } : {}) }
    : null;
}
