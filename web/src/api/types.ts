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
export type Source = Schemas["Source"];
export type Delivery = Schemas["Delivery"];
export type ProblemDocument = Schemas["Problem"];

/** An edit as the core reads it; docs/formats.md lists them. Levels and times may be sent as typed. */
export type Edit =
  | { edit: "add-track"; track: string; name: string; stem: Stem }
  | { edit: "remove-track"; track: string }
  | { edit: "place-track"; track: string; place: number }
  | { edit: "rename-track"; track: string; name: string }
  | { edit: "set-stem"; track: string; stem: Stem }
  | { edit: "set-fader"; track: string; fader: number | string }
  | { edit: "set-pan"; track: string; pan: number }
  | { edit: "set-muted"; track: string; muted: boolean }
  | { edit: "set-frame-rate"; frameRate: string }
  | { edit: "set-source-gain"; source: string; gain: number | string }
  | { edit: "add-clip"; track: string; clip: string; source: string; at: number }
  | { edit: "remove-clips"; clips: string[] }
  | { edit: "move-clip"; clip: string; track: string; at: number | string }
  | { edit: "trim-clip"; clip: string; from: number | string; to: number | string }
  | { edit: "set-clip-gain"; clips: string[]; gain: number | string }
  | { edit: "change-clip-gain"; clips: string[]; by: number }
  | { edit: "add-keyframe"; clip: string; at: number | string; level?: number | string }
  | {
      edit: "set-keyframe";
      clip: string;
      keyframe: number;
      at?: number | string;
      level?: number | string;
      ramp?: RampKind;
    }
  | { edit: "move-keyframes"; clip: string; keyframes: number[]; later: number; by: number }
  | { edit: "remove-keyframes"; clip: string; keyframes: number[] }
  | {
      edit: "dip-range";
      clips: string[];
      from: number | string;
      to: number | string;
      by: number;
      ramp: number;
      inside?: boolean;
    };
