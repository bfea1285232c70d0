import { CORE } from "@/preview/constants";
import { segmentOf, type Segment } from "./wave";

/** Segments kept; one of stereo takes 0.8 MB. */
const KEPT = 48;

/** The samples of sources themselves, for drawing from near: in the segments that the player has too, so that they are mostly at hand. */
export class Samples {
  private readonly segments = new Map<string, Segment | null>();
  private readonly versions = new Map<string, number>();
  private readonly length: number;

  constructor(
    rate: number,
    private readonly fetchSegment: (source: string, number: number) => Promise<ArrayBuffer>,
    private readonly arrived: (source: string) => void,
  ) {
    this.length = CORE.segmentSeconds * rate;
  }

  /** The segment that holds a sample, and where it begins; null until it has come. */
  around(source: string, sample: number): { segment: Segment; from: number } | null {
    const number = Math.floor(sample / this.length);
    if (number < 0) return null;
    const key = `${source}/${number}`;
    const known = this.segments.get(key);
    if (known) {
      this.segments.delete(key); // to the end: used last
      this.segments.set(key, known);
      return { segment: known, from: number * this.length };
    }
    if (known === undefined) this.fetch(source, number, key);
    return null;
  }

  /** Where the segment after the one that holds a sample begins. */
  after(sample: number): number {
    return (Math.floor(sample / this.length) + 1) * this.length;
  }

  /** Counts up when more of a source has come. */
  version(source: string): number {
    return this.versions.get(source) ?? 0;
  }

  private fetch(source: string, number: number, key: string): void {
    this.segments.set(key, null);
    this.fetchSegment(source, number).then(
      (bytes) => {
        this.segments.set(key, segmentOf(bytes));
        this.versions.set(source, this.version(source) + 1);
        const [oldest] = this.segments.keys();
        if (this.segments.size > KEPT && oldest !== undefined) this.segments.delete(oldest);
        this.arrived(source);
      },
      () => this.segments.delete(key),
    );
  }
}
