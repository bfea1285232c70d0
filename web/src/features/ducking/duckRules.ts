import type { Rule, Track } from "@/api/schema";
import { newId } from "@/lib/ids";
import { CORE } from "@/preview/constants";

export type Preset = (typeof CORE.duck.presets)[number];

export const PRESETS: readonly Preset[] = CORE.duck.presets;

/** A rule by a preset: music under all speech, until it is said otherwise. */
export function ruleBy(preset: Preset, tracks: Track[], clearance: number): Rule {
  const music = tracks.filter((t) => t.stem === "music");
  const beneath = tracks.filter((t) => t.stem !== "speech");
  const targets = (music.length ? music : beneath).map((t) => t.id);
  return {
    id: newId("rule"),
    name: preset.name,
    triggers: [],
    clips: [],
    targets,
    ...(preset.depth === null ? {} : { depth: preset.depth }),
    clearance,
    deepest: -30,
    ...preset.timing,
    added: [],
    dropped: [],
    follows: false,
  };
}

/** Names of tracks that a rule listens to, and that are muted: it does not hear them. */
export function mutedSpeakers(rule: Rule, tracks: Track[]): string[] {
  const heard =
    rule.triggers.length + rule.clips.length === 0
      ? tracks.filter((t) => t.stem === "speech" && !rule.targets.includes(t.id))
      : tracks.filter((t) => rule.triggers.includes(t.id));
  return heard.filter((t) => t.muted).map((t) => `“${t.name}”`);
}

/** The rule with a track among its triggers or targets, or not; never in both. */
export function withTrack(rule: Rule, part: "triggers" | "targets", track: string, on: boolean): Rule {
  const other = part === "triggers" ? "targets" : "triggers";
  const without = (ids: string[]) => ids.filter((id) => id !== track);
  return {
    ...rule,
    [part]: on ? [...without(rule[part]), track] : without(rule[part]),
    [other]: on ? without(rule[other]) : rule[other],
  };
}
