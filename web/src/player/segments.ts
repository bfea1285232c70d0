import type { Clip } from "@/api/schema";
import { CORE } from "@/preview/constants";

/** Samples in a segment at the mix rate: two seconds, as the server cuts them. */
export const SEGMENT_SECONDS = CORE.segmentSeconds;

/** Decoded segments kept beyond those that are needed now; one of stereo takes 0.8 MB. */
const KEPT = 110;

/** What was asked for within so many milliseconds is needed: the player asks for what comes next until it has sounded. */
const NEEDED = 3000 * SEGMENT_SECONDS;

interface Entry {
  promise: Promise<AudioBuffer | null>;
  buffer: AudioBuffer | null;
  asked: number;
}

/** Numbers of the segments that a clip sounds from within a span of the timeline. */
export function segmentsOf(
  clip: Pick<Clip, "at" | "in" | "length">,
  from: number,
  until: number,
  rate: number,
): number[] {
  const numberAt = (position: number) =>
    Math.floor((position - clip.at + clip.in) / (SEGMENT_SECONDS * rate));
  const begin = Math.max(from, clip.at);
  const end = Math.min(until, clip.at + clip.length);
  if (begin >= end) return [];
  const first = numberAt(begin);
  return Array.from({ length: numberAt(end - 1) - first + 1 }, (_, i) => first + i);
}

/** Fetches and decodes pieces of sources, and keeps those used last; however many sound at once, none is thrown out before it has sounded. */
export class Segments {
  private readonly entries = new Map<string, Entry>();

  constructor(
    private readonly context: BaseAudioContext,
    private readonly fetchSegment: (source: string, number: number) => Promise<ArrayBuffer>,
    private readonly now: () => number = () => performance.now(),
  ) {}

  /** How many are kept. */
  get size(): number {
    return this.entries.size;
  }

  /** The segment if it is there already; asking also brings it in. */
  ready(source: string, number: number): AudioBuffer | null {
    return this.entry(source, number).buffer;
  }

  /** Null when it could not be had; it is asked for anew the next time. */
  load(source: string, number: number): Promise<AudioBuffer | null> {
    return this.entry(source, number).promise;
  }

  private entry(source: string, number: number): Entry {
    const key = `${source}/${number}`;
    const known = this.entries.get(key);
    if (known) {
      known.asked = this.now();
      this.entries.delete(key); // to the end: used last
      this.entries.set(key, known);
      return known;
    }
    const entry: Entry = { promise: Promise.resolve(null), buffer: null, asked: this.now() };
    entry.promise = this.fetchSegment(source, number)
      .then((bytes) => this.context.decodeAudioData(bytes))
      .then(
        (buffer) => (entry.buffer = buffer),
        () => {
          this.entries.delete(key);
          return null;
        },
      );
    this.entries.set(key, entry);
    for (const [oldest, { asked }] of this.entries) {
      if (this.entries.size <= KEPT || asked > this.now() - NEEDED) break;
      this.entries.delete(oldest);
    }
    return entry;
  }
}
