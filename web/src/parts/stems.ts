import type { Stem } from "@/api/schema";
import { CORE } from "@/preview/constants";

export const STEMS: { stem: Stem; name: string }[] = [
  { stem: "speech", name: "Speech" },
  { stem: "music", name: "Music" },
  { stem: "ambience", name: "Ambience" },
  { stem: "effects", name: "Effects" },
];

export const HUES = CORE.hues;
