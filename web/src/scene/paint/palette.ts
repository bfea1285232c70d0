import type { Hue, Stem } from "@/api/schema";

const NAMES = [
  "paper",
  "sheet",
  "sunk",
  "line",
  "ink",
  "faint",
  "copper",
  "glow",
  "speech",
  "music",
  "ambience",
  "effects",
  "moss",
  "brick",
  "slate",
  "plum",
  "ochre",
  "teal",
  "trouble",
] as const;

export type Palette = Record<(typeof NAMES)[number] | Stem | Hue, string>;

export function readPalette(element: Element): Palette {
  const style = getComputedStyle(element);
  return Object.fromEntries(
    NAMES.map((name) => [name, style.getPropertyValue(`--${name}`).trim()]),
  ) as Palette;
}

export const SANS = '"Archivo Variable", sans-serif';
export const MONO = '"IBM Plex Mono", monospace';
