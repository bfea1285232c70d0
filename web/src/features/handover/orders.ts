import type { Order, Stem } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { STEMS } from "@/parts/stems";

type Format = Order["format"];

export const FORMATS: { format: Format; name: string }[] = [
  { format: "wav", name: "WAV" },
  { format: "flac", name: "FLAC" },
  { format: "mp3", name: "MP3" },
  { format: "aac", name: "AAC" },
  { format: "opus", name: "Opus" },
  { format: "film", name: "Film, MP4" },
  { format: "matroska", name: "Film, Matroska" },
];

export const BITS: Record<Format, (16 | 24 | 32)[]> = {
  wav: [16, 24, 32],
  flac: [16, 24],
  mp3: [],
  aac: [],
  opus: [],
  film: [],
  matroska: [16, 24],
  archive: [],
};
export const KBPS: Record<Format, number[]> = {
  wav: [],
  flac: [],
  mp3: [64, 96, 128, 160, 192, 256, 320],
  aac: [64, 96, 128, 160, 192, 256, 320],
  opus: [48, 64, 96, 128, 160, 192, 256],
  film: [64, 96, 128, 160, 192, 256, 320],
  matroska: [],
  archive: [],
};
export const RATES: Record<Format, (44100 | 48000 | 96000)[]> = {
  wav: [44100, 48000, 96000],
  flac: [44100, 48000, 96000],
  mp3: [44100, 48000],
  aac: [44100, 48000, 96000],
  opus: [48000],
  film: [48000],
  matroska: [48000],
  archive: [48000],
};

/** The same order in another format: what that cannot have is given the nearest it can. */
export function inFormat(order: Order, format: Format): Order {
  const { bits, kbps, rate, ...rest } = order;
  const sizes = BITS[format];
  const speeds = KBPS[format];
  return {
    ...rest,
    format,
    rate: rate && RATES[format].includes(rate) ? rate : 48000,
    ...(sizes.length ? { bits: bits && sizes.includes(bits) ? bits : 24 } : {}),
    ...(speeds.length ? { kbps: kbps && speeds.includes(kbps) ? kbps : 128 } : {}),
  };
}

/** Which part of the programme, as one word for a choice. */
export function partOf(order: Order): string {
  const part = order.part ?? "programme";
  return part === "programme" || part === "track" ? part : `${part} ${order.stem}`;
}

export const PARTS: { value: string; name: string }[] = [
  { value: "programme", name: "Programme" },
  ...STEMS.map(({ stem, name }) => ({ value: `stem ${stem}`, name: `${name} only` })),
  ...STEMS.map(({ stem, name }) => ({ value: `without ${stem}`, name: `All but ${name.toLowerCase()}` })),
];

export function withPart(order: Order, value: string): Order {
  const { part: _, stem: __, track: ___, ...rest } = order;
  const [part, stem] = value.split(" ") as ["programme" | "stem" | "without", Stem | undefined];
  return stem ? { ...rest, part, stem } : { ...rest, part: "programme", asProgramme: false };
}

/** What a file is to be, in a line. */
export function describe(order: Order, nameOfTrack?: string): string {
  if (order.format === "archive") return "the whole project: mix, sources, captions, snapshots";
  const kind = FORMATS.find((f) => f.format === order.format)?.name ?? order.format;
  const size = order.bits ? `${order.bits} bit${order.bits === 32 ? " float" : ""}` : `${order.kbps} kbit/s`;
  const part =
    order.part === "track"
      ? (nameOfTrack ?? "one track")
      : PARTS.find((p) => p.value === partOf(order))?.name;
  return [
    `${kind} ${size}`,
    `${(order.rate ?? 48000) / 1000} kHz`,
    order.channels === 1 ? "mono" : null,
    part === "Programme" ? null : part,
    order.range ? "a range" : null,
    targetOf(order),
  ]
    .filter((word) => word !== null)
    .join(" · ");
}

function targetOf({ target, asProgramme }: Order): string {
  const level = !target
    ? "target of the project"
    : target.loudness === null || target.loudness === undefined
      ? "as loud as it is"
      : `${formatDb(target.loudness)} LUFS`;
  return asProgramme ? `${level}, as in the whole` : level;
}

/** Whether what passes full scale is flattened in it: nothing holds it under a ceiling, and it keeps nothing above. */
export function wouldFlatten({ target, bits }: Order): boolean {
  return target?.truePeak === null && bits !== 32;
}
