import { sampleOfTimecode } from "@/preview/timecode";

/** Reads what people type for things that are not part of the mix; times and lengths in edits are read by the server. */

interface Rates {
  rate: number;
  frameRate: string;
}

/** A moment, in samples: "00:00:58:05", "0:58.2", "58". */
export function parseShownTime(text: string, { rate, frameRate }: Rates): number | null {
  const timecode = /^(\d+):(\d\d):(\d\d)[:;](\d\d)$/.exec(text.trim());
  const clock = /^(?:(?:(\d+):)?(\d+):)?(\d+(?:[.,]\d*)?)$/.exec(text.trim());
  if (timecode) {
    const [h, m, s, f] = timecode.slice(1).map(Number) as [number, number, number, number];
    return sampleOfTimecode(h * 3600 + m * 60 + s, f, rate, frameRate);
  }
  return clock
    ? Math.round(
        (Number(clock[1] ?? 0) * 3600 + Number(clock[2] ?? 0) * 60 + Number(clock[3]?.replace(",", "."))) *
          rate,
      )
    : null;
}

/** A length, in samples: "0.4", "0.4 s", "250 ms", "12f". */
export function lengthOf(text: string, { rate, frameRate }: Rates): number | null {
  const found = /^(\d+(?:[.,]\d*)?|[.,]\d+)\s*(s|ms|f|frames?)?$/i.exec(text.trim());
  if (!found) return null;
  const number = Number(found[1]?.replace(",", "."));
  const unit = found[2]?.toLowerCase() ?? "s";
  const seconds =
    unit === "ms" ? number / 1000 : unit === "s" ? number : number / (parseFloat(frameRate) || 25);
  return Math.round(seconds * rate);
}

/** A number as people type it: with a comma, a real minus, a unit after it. */
export function numberIn(text: string): number | null {
  const found = /^([-−+]?\d+(?:[.,]\d*)?)\s*[a-z]*$/i.exec(text.trim());
  return found ? Number(found[1]?.replace("−", "-").replace(",", ".")) : null;
}
