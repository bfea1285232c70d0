import type { Rule, Track } from "@/api/schema";
import { newId } from "@/lib/ids";

type Timing = Pick<Rule, "lead" | "fall" | "rise" | "hold" | "bridge" | "ignore">;

export interface Preset {
  name: string;
  depth: number | null;
  timing: Timing;
}

/** Ways to give way, by the kind of programme: our own, around what is common practice. */
export const PRESETS: Preset[] = [
  {
    name: "Interview",
    depth: -12,
    timing: { lead: 0.1, fall: 0.4, rise: 0.9, hold: 0.3, bridge: 0.8, ignore: 0.15 },
  },
  {
    name: "Podcast",
    depth: null,
    timing: { lead: 0.15, fall: 0.3, rise: 1.2, hold: 0.5, bridge: 1.5, ignore: 0.2 },
  },
  {
    name: "Lively",
    depth: -9,
    timing: { lead: 0.05, fall: 0.15, rise: 0.4, hold: 0.1, bridge: 0.4, ignore: 0.1 },
  },
  {
    name: "Gentle",
    depth: -8,
    timing: { lead: 0.2, fall: 0.9, rise: 2, hold: 0.6, bridge: 1.5, ignore: 0.25 },
  },
];

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
