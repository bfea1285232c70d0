import type { Hue, Stem } from "@/api/schema";
import type { Theme } from "@/store/theme";

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

const known = new Map<Theme, Palette>();

/** The colours of the theme that the page shows: read once, since asking for styles in every frame costs. */
export function paletteOf(theme: Theme): Palette {
  const palette = known.get(theme) ?? read();
  known.set(theme, palette);
  return palette;
}

function read(): Palette {
  const style = getComputedStyle(document.documentElement);
  return Object.fromEntries(
    NAMES.map((name) => [name, style.getPropertyValue(`--${name}`).trim()]),
  ) as Palette;
}

export const SANS = '"Archivo Variable", sans-serif';
export const MONO = '"IBM Plex Mono", monospace';
