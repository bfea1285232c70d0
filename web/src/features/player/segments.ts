/** Samples in a segment at the mix rate: two seconds, as the server cuts them. */
export const SEGMENT_SECONDS = 2;

/** Decoded segments kept at most; one of stereo takes 0.8 MB. */
const KEPT = 110;

interface Entry {
  promise: Promise<AudioBuffer | null>;
  buffer: AudioBuffer | null;
}

/** Fetches and decodes pieces of sources, and keeps those used last. */
export class Segments {
  private readonly entries = new Map<string, Entry>();

  constructor(
    private readonly context: BaseAudioContext,
    private readonly fetchSegment: (source: string, number: number) => Promise<ArrayBuffer>,
  ) {}

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
      this.entries.delete(key); // to the end: used last
      this.entries.set(key, known);
      return known;
    }
    const entry: Entry = { promise: Promise.resolve(null), buffer: null };
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
    for (const oldest of this.entries.keys()) {
      if (this.entries.size <= KEPT) break;
      this.entries.delete(oldest);
    }
    return entry;
  }
}
