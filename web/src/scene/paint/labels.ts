import type { Clip } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { MONO, type Palette, SANS } from "./palette";

export const NAME_FONT = `600 12px ${SANS}`;
export const GAIN_FONT = `10px ${MONO}`;

const PLATE_FONT = `600 10px ${SANS}`;

/** Px between the name and the gain. */
export const LABELS_APART = 9;

/** Letters that a shortened name keeps at least. */
const FEWEST = 3;

/** What of a clip's name and gain fits: the name is shortened first and then goes, and only then the gain; neither is ever cut through. */
export function labelsIn(
  ctx: CanvasRenderingContext2D,
  clip: Clip,
  room: number,
): { name: string; gain: string } {
  const gain = clip.muted ? "muted" : `${formatDb(clip.gain)}${clip.gain === "silence" ? "" : " dB"}`;
  const gainWidth = widthOf(ctx, GAIN_FONT, gain);
  const whole = widthOf(ctx, NAME_FONT, clip.name);
  if (whole + LABELS_APART + gainWidth <= room) return { name: clip.name, gain };
  // A gain of nothing is the least that can be told.
  const told = !clip.muted && clip.gain === 0 ? 0 : LABELS_APART + gainWidth;
  const name = shortened(ctx, clip.name, room - told);
  if (name) return { name, gain: told ? gain : "" };
  return { name: "", gain: told && gainWidth <= room ? gain : "" };
}

function shortened(ctx: CanvasRenderingContext2D, name: string, room: number): string {
  if (widthOf(ctx, NAME_FONT, name) <= room) return name;
  for (let letters = name.length - 1; letters >= FEWEST; letters--) {
    const short = `${name.slice(0, letters).trimEnd()}…`;
    if (widthOf(ctx, NAME_FONT, short) <= room) return short;
  }
  return "";
}

/** Names and gains are few, and measuring them in every frame costs more than writing them. */
const widths = new Map<string, number>();
const MOST = 5000;

// What was measured before a font had come is another width with it.
if (typeof document !== "undefined" && "fonts" in document)
  document.fonts.addEventListener("loadingdone", () => widths.clear());

/** Px that a text takes in a font. */
export function widthOf(ctx: CanvasRenderingContext2D, font: string, text: string): number {
  const key = `${font}|${text}`;
  const known = widths.get(key);
  if (known !== undefined) return known;
  ctx.font = font;
  const { width } = ctx.measureText(text);
  if (widths.size >= MOST) widths.clear();
  widths.set(key, width);
  return width;
}

/** Words on a plate, so that what runs beneath them leaves them readable: from x on, with their middle at y. */
export function drawPlate(
  ctx: CanvasRenderingContext2D,
  text: string,
  [x, y]: [number, number],
  ink: string,
  palette: Palette,
): void {
  const width = widthOf(ctx, PLATE_FONT, text);
  ctx.font = PLATE_FONT;
  ctx.textAlign = "left";
  ctx.textBaseline = "middle";
  ctx.fillStyle = palette.sheet;
  ctx.fillRect(x - 3, y - 7, width + 6, 14);
  ctx.fillStyle = ink;
  ctx.fillText(text, x, y);
}
