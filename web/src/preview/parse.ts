import { samplesPerFrame, sampleOfTimecode } from "@/preview/timecode";

/** Reads what people type for things that are not part of the mix; times and lengths in edits are read by the server. */

interface Rates {
  rate: number;
  frameRate: string;
}

const TIMECODE = /^(\d{1,3}):([0-5]\d):([0-5]\d)[:;](\d{2})$/;
const CLOCK = /^(?:(?:(\d{1,3}):)?(\d{1,4}):)?(\d{1,6}(?:[.,]\d{0,9})?)\s*s?$/;
const LENGTH = /^(\d{1,6}(?:[.,]\d{0,6})?|[.,]\d{1,6})\s*(s|ms|f|frames?)?$/i;

/** A moment, in samples: "00:00:58:05", "0:58.2", "58"; null where it is none, or a frame that there is not. */
export function parseShownTime(text: string, { rate, frameRate }: Rates): number | null {
  const timecode = TIMECODE.exec(text.trim());
  if (timecode) {
    const [h, m, s, f] = timecode.slice(1).map(Number) as [number, number, number, number];
    return sampleOfTimecode(h * 3600 + m * 60 + s, f, rate, frameRate);
  }
  const clock = CLOCK.exec(text.trim());
  if (!clock) return null;
  const [hours, minutes, seconds] = [clock[1] ?? 0, clock[2] ?? 0, clock[3]?.replace(",", ".")].map(Number);
  return Math.round(((hours ?? 0) * 3600 + (minutes ?? 0) * 60 + (seconds ?? 0)) * rate);
}

/** A length, in samples: "0.4", "0.4 s", "250 ms", "12f"; null where it is none. */
export function lengthOf(text: string, { rate, frameRate }: Rates): number | null {
  const found = LENGTH.exec(text.trim());
  if (!found) return null;
  const number = Number(found[1]?.replace(",", "."));
  const unit = found[2]?.toLowerCase() ?? "s";
  if (unit === "ms") return Math.round((number * rate) / 1000);
  return Math.round(number * (unit === "s" ? rate : samplesPerFrame(rate, frameRate)));
}

export function looksLikeTime(text: string): boolean {
  return TIMECODE.test(text) || CLOCK.test(text);
}

export function looksLikeLength(text: string): boolean {
  return LENGTH.test(text);
}

/** A number as people type it: with a comma, a real minus, a unit after it. */
export function numberIn(text: string): number | null {
  const found = /^([-−+]?\d+(?:[.,]\d*)?)\s*[a-z]*$/i.exec(text.trim());
  return found ? Number(found[1]?.replace("−", "-").replace(",", ".")) : null;
}
