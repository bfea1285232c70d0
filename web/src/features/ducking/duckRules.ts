import type { Rule, Track } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { newId } from "@/lib/ids";
import { CORE } from "@/preview/constants";

export type Preset = (typeof CORE.duck.presets)[number];

export const PRESETS: readonly Preset[] = CORE.duck.presets;

/** A rule by a preset: music under all speech, until it is said otherwise. */
export function ruleBy(
  preset: Preset,
  tracks: Track[],
  { clearance, clarity }: { clearance: number; clarity: number },
): Rule {
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
    ...(preset.toClarity ? { part: "band-first" as const, moving: true, clarity } : {}),
    clearance,
    deepest: -30,
    ...preset.timing,
    added: [],
    dropped: [],
    follows: false,
  };
}

/** Tracks of speech that go down in their own pauses, or take turns. */
export function ownRule(kind: "hush" | "turns", tracks: Track[], { clearance }: { clearance: number }): Rule {
  return {
    id: newId("rule"),
    name: kind === "hush" ? "Hush in pauses" : "Taking turns",
    kind,
    triggers: [],
    clips: [],
    targets: tracks.filter((t) => t.stem === "speech").map((t) => t.id),
    depth: kind === "hush" ? -10 : -15,
    clearance,
    deepest: -30,
    ...(kind === "hush"
      ? { lead: 0.12, fall: 0.35, rise: 0.12, hold: 0.25, bridge: 0.6, ignore: 0.1 }
      : { lead: 0.1, fall: 0.1, rise: 0.1, hold: 0.2, bridge: 0.3, ignore: 0.1 }),
    added: [],
    dropped: [],
    follows: false,
  };
}

/** What a rule goes by: a number of decibels, or what speech needs. */
export type Wish = "depth" | "clearance" | "clarity";

export const wishOf = (rule: Rule): Wish =>
  rule.depth !== undefined ? "depth" : rule.clarity !== undefined ? "clarity" : "clearance";

/** @param clarity that of the mix, where the rule has had none of its own */
export function withWish({ depth, clarity: own, ...rest }: Rule, wish: Wish, clarity: number): Rule {
  switch (wish) {
    case "depth":
      return { ...rest, depth: depth ?? -12 };
    case "clarity":
      return { ...rest, clarity: own ?? clarity };
    case "clearance":
      return rest;
  }
}

/** How many tracks a rule needs to give way. */
export const fewest = (rule: Rule): number => (rule.kind === "turns" ? 2 : 1);

/** What is said where that many are not ticked. */
export const needed = (rule: Rule): string =>
  rule.kind === "turns" ? "Tick at least two microphones." : "Tick a track that gives way.";

/** What a rule does, for the list of them. */
export function described(rule: Rule, name: (track: string) => string): string {
  const targets = rule.targets.map(name).join(", ");
  const by = rule.depth === undefined ? "" : `by ${formatDb(rule.depth)} dB`;
  if (rule.kind === "hush") return `${targets}: down in their own pauses ${by}`;
  if (rule.kind === "turns") return `${targets} take turns; who is silent gives way ${by}`;
  const speakers =
    rule.triggers.length + rule.clips.length === 0
      ? "all speech"
      : [...rule.triggers.map(name), ...(rule.clips.length ? [`${rule.clips.length} clips`] : [])].join(", ");
  const part = {
    all: "",
    band: "the band of speech in ",
    "band-first": "the band of speech first, then all of ",
  };
  const wish =
    by ||
    `${rule.clarity === undefined ? `to ${rule.clearance} LU of clearance` : `to a clarity of ${rule.clarity}`}${rule.moving ? ", from moment to moment" : ""}`;
  return `${part[rule.part ?? "all"]}${targets} under ${speakers}, ${wish}`;
}

/** Names of tracks that a rule listens to, and that are muted: it does not hear them. */
export function mutedSpeakers(rule: Rule, tracks: Track[]): string[] {
  const heard = rule.kind
    ? tracks.filter((t) => rule.targets.includes(t.id))
    : rule.triggers.length + rule.clips.length === 0
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
