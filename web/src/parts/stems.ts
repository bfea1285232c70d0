import type { Hue, Stem } from "@/api/schema";

export const STEMS: { stem: Stem; name: string }[] = [
  { stem: "speech", name: "Speech" },
  { stem: "music", name: "Music" },
  { stem: "ambience", name: "Ambience" },
  { stem: "effects", name: "Effects" },
];

export const HUES: Hue[] = ["moss", "brick", "slate", "plum", "ochre", "teal"];
