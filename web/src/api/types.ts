import type { components } from "./schema";

type Schemas = components["schemas"];

export type Session = Schemas["Session"];
export type Project = Schemas["Project"];
export type Role = Schemas["Role"];
export type Level = Schemas["Level"];
export type Keyframe = Schemas["Keyframe"];
export type RampKind = Schemas["RampKind"];
export type Ramp = Schemas["Ramp"];
export type Stretch = Schemas["Stretch"];
export type Clip = Schemas["Clip"];
export type Track = Schemas["Track"];
export type Stem = Track["stem"];
export type MixSource = Schemas["MixSource"];
export type Mix = Schemas["Mix"];
export type OpenedMix = Schemas["OpenedMix"];
export type Step = Schemas["Step"];
export type History = Schemas["History"];
export type Fade = Schemas["Fade"];
export type FadeShape = Schemas["FadeShape"];
export type FadeRamp = Schemas["FadeRamp"];
export type ChannelMode = Schemas["ChannelMode"];
export type ChannelLevel = Schemas["ChannelLevel"];
export type Side = "left" | "right";
export type Part = Schemas["Part"];
export type Marker = Schemas["Marker"];
export type Picture = Schemas["Picture"];
export type Hue = NonNullable<Track["hue"]>;
export type Person = Schemas["Person"];
export type Presence = Schemas["Presence"];
export type Someone = Presence["people"][number];
export type Members = Schemas["Members"];
export type ProjectRecord = Schemas["Record"];
export type Member = Schemas["Member"];
export type Invitation = Schemas["Invitation"];
export type JoinOffer = Schemas["JoinOffer"];
export type Comment = Schemas["Comment"];
export type Letter = Schemas["Letter"];
export type Snapshot = Schemas["Snapshot"];
export type Peak = Schemas["Peak"];
export type Comparison = Schemas["Comparison"];
export type Aim = Schemas["Aim"];
export type Predicted = Schemas["Predicted"];
export type Buried = Schemas["Buried"];
export type Moments = Schemas["Moments"];
export type Measured = Schemas["Measured"];
export type Figures = Schemas["Figures"];
export type EvenUpPlan = Schemas["EvenUpPlan"];
export type SteadyPlan = Schemas["SteadyPlan"];
export type Faders = Schemas["Faders"];
export type Rule = Schemas["Rule"];
export type DuckingPlan = Schemas["DuckingPlan"];
export type Cue = Schemas["Cue"];
export type PastMix = Schemas["PastMix"];
export type Source = Schemas["Source"];
export type Delivery = Schemas["Delivery"];
export type Cut = Schemas["Cut"];
export type OwnTarget = Schemas["OwnTargets"]["targets"][number];
export type Order = Schemas["Order"];
export type Recipe = Schemas["Recipe"];
export type NewRecipe = Schemas["NewRecipe"];
export interface Handover extends Omit<NewRecipe, "name"> {
  revision: number;
  recipe?: string;
  tags?: { title?: string; programme?: string; episode?: string; author?: string };
}
export type ProblemDocument = Schemas["Problem"];

type Text = number | string;

/** Names a level wire: that of a clip, of one channel of an opened clip, or a lane of a track. */
export type WireId = { clip: string; channel?: Side } | { track: string; lane: Lane };

/** Keyframes of one wire, by their positions in its own time. */
export type Chosen = WireId & { keyframes: number[] };

export interface Levels {
  gain?: Level;
  curve?: Keyframe[];
  fadeIn?: Fade;
  fadeOut?: Fade;
}

interface OverRange {
  clips: string[];
  channel?: Side;
  from: Text;
  to: Text;
  ramp: Text;
  inside?: boolean;
}

/** The lanes of a track that are edited as wires are. */
export type Lane = "level" | "ducking";
export type LanePart = Lane | "pan" | "mute";

interface OverLane {
  track: string;
  lane: Lane;
  from: Text;
  to: Text;
  ramp: Text;
  inside?: boolean;
}

/** Where a control stood: moment in samples, value, and 1 while a hand was on it. */
export type RideSample = [number, number, 0 | 1];

export interface Pass {
  track: string;
  mode: "write" | "touch" | "latch";
  start: number;
  stop: number;
  level?: RideSample[];
  pan?: RideSample[];
  mute?: RideSample[];
}

/** An edit as the core reads it; docs/formats.md lists them. Levels, times and lengths may be sent as typed. */
export type Edit =
  | { edit: "add-track"; track: string; name: string; stem: Stem }
  | { edit: "lay-cut"; name: string; cut?: string; tracks: object[]; markers: object[] }
  | { edit: "change-cut"; name: string; cut: string; instead?: string; tracks: object[]; markers: object[] }
  | { edit: "take-mix"; name: string; mix: object }
  | { edit: "remove-track"; track: string }
  | { edit: "place-track"; track: string; place: number }
  | { edit: "rename-track"; track: string; name: string }
  | { edit: "set-stem"; track: string; stem: Stem }
  | { edit: "set-fader"; track: string; fader: Text; linked?: string[] }
  | { edit: "set-pan"; track: string; pan: number }
  | { edit: "set-muted"; track: string; muted: boolean }
  | { edit: "set-locked"; track: string; locked: boolean }
  | { edit: "set-hue"; track: string; hue?: Hue }
  | { edit: "set-frame-rate"; frameRate: string }
  | { edit: "set-aim"; clearance?: number; sensitivity?: number; loudness?: number; truePeak?: number }
  | { edit: "set-zone"; stem: Stem; low?: number; high?: number }
  | { edit: "set-captions"; text: string }
  | { edit: "accept-buried"; from: number; to: number; note?: string }
  | { edit: "set-source-gain"; source: string; gain: Text; channel?: Side }
  | { edit: "set-source-gains"; gains: { source: string; gain: Text }[] }
  | { edit: "level-source"; source: string; average: number; target: number }
  | { edit: "link-source"; source: string; linked: boolean }
  | { edit: "add-marker"; marker: string; at: Text; name: string }
  | { edit: "set-marker"; marker: string; at?: Text; name?: string }
  | { edit: "remove-markers"; markers: string[] }
  | { edit: "add-clip"; track: string; clip: string; source: string; at: number; stem?: Stem; name?: string }
  | { edit: "replace-sound"; clip: string; source: string }
  | { edit: "set-clips-muted"; clips: string[]; muted: boolean }
  | { edit: "trim-picture"; picture: string; from: Text; to: Text }
  | { edit: "remove-clips"; clips: string[]; close?: boolean }
  | { edit: "remove-range"; from: number; to: number; tracks?: string[]; close?: boolean }
  | { edit: "insert-time"; at: Text; length: Text; tracks?: string[] }
  | { edit: "move-clip"; clip: string; track: string; at: Text }
  | { edit: "move-clips"; clips: string[]; later: number; ripple?: boolean }
  | { edit: "trim-clip"; clip: string; from: Text; to: Text; ripple?: boolean }
  | { edit: "slip-clip"; clip: string; later: number }
  | { edit: "split"; cuts: { clip: string; at: number }[] }
  | { edit: "join-clips"; clips: string[] }
  | { edit: "duplicate-clips"; clips: string[]; later?: number }
  | { edit: "loop-clip"; clip: string; until: Text; overlap?: Text }
  | { edit: "rename-clip"; clip: string; name: string }
  | { edit: "detach-picture"; clips: string[] }
  | { edit: "attach-picture"; clips: string[] }
  | { edit: "move-picture"; picture: string; at: Text }
  | { edit: "remove-pictures"; pictures: string[] }
  | { edit: "set-clip-gain"; clips: string[]; gain: Text }
  | { edit: "set-clip-gains"; gains: { clip: string; gain: Text }[] }
  | { edit: "set-curves"; curves: { clip: string; curve: Keyframe[] }[] }
  | { edit: "change-clip-gain"; clips: string[]; by: Text }
  | { edit: "spread-level"; clip: string; clips: string[] }
  | ({ edit: "paste-levels"; clips: string[] } & Levels)
  | { edit: "reset-clips"; clips: string[]; parts: ("gain" | "curve" | "fades" | "channels")[] }
  | { edit: "set-fade"; clips: string[]; edge: "in" | "out"; length: Text; shape?: FadeShape }
  | { edit: "cross-over"; earlier: string; later: string; length: Text; shape?: FadeShape }
  | { edit: "set-channels"; clips: string[]; mode: ChannelMode }
  | { edit: "open-channels"; clips: string[]; open: boolean }
  | { edit: "set-channel"; clip: string; channel: Side; gain?: Text; muted?: boolean }
  | ({ edit: "add-keyframe"; at: Text; level?: Text } & WireId)
  | ({ edit: "set-keyframe"; keyframe: number; at?: Text; level?: Text; ramp?: Ramp } & WireId)
  | { edit: "set-keyframes"; chosen: Chosen[]; level?: Text; ramp?: Ramp }
  | { edit: "copy-neighbour"; chosen: Chosen[]; from: "previous" | "next" }
  | { edit: "move-keyframes"; chosen: Chosen[]; later: number; by: number }
  | { edit: "remove-keyframes"; chosen: Chosen[] }
  | ({ edit: "dip-range"; by: Text } & OverRange)
  | ({ edit: "set-range"; level: Text } & OverRange)
  | ({ edit: "reset-range" } & OverRange)
  | { edit: "dips"; dips: ({ by: Text } & OverRange)[] }
  | { edit: "set-faders"; faders: { track: string; fader: Text }[] }
  | { edit: "set-stem-fader"; stem: Stem; fader: Text }
  | { edit: "set-programme-fader"; fader: Text }
  | { edit: "set-lanes-off"; track: string; off: boolean }
  | { edit: "clear-lane"; track: string; lane: LanePart; from?: Text; to?: Text }
  | { edit: "copy-lane"; track: string; lane: LanePart; to: string[] }
  | { edit: "set-pan-point"; track: string; point?: number; at?: Text; pan?: number }
  | { edit: "remove-pan-points"; track: string; points: number[] }
  | { edit: "set-pan-range"; track: string; from: Text; to: Text; pan: number; ramp: Text }
  | { edit: "set-mute-range"; track: string; from: Text; to: Text; muted: boolean }
  | { edit: "convert-lane"; track: string; from: "clips" | Lane; to: "clips" | Lane }
  | { edit: "release-held"; track: string; from?: Text; to?: Text }
  | { edit: "set-part-in-ducking"; clips: string[]; triggers?: boolean; ducked?: boolean }
  | { edit: "duck"; rule?: Rule; without?: string; lanes: { track: string; curve: Keyframe[] }[] }
  | {
      edit: "ride";
      passes: Pass[];
      tolerance?: number;
      spacing?: number;
      glide?: number;
      holds?: "tolerance" | "spacing";
    }
  | ({ edit: "dip-range"; by: Text } & OverLane)
  | ({ edit: "set-range"; level: Text } & OverLane)
  | ({ edit: "reset-range" } & OverLane)
  | { edit: "tame"; notches: Pick<Peak, "clip" | "at" | "by" | "before" | "after" | "hold">[] };
