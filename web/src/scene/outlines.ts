import type { Side } from "@/api/schema";

/** What one point of an outline level stands for: 5 ms times 1, 4, 16, 64, 256. Averages begin with the second. */
const POINT_MS = [5, 20, 80, 320, 1280];

export interface Outline {
  /** 32768 is full scale. */
  points: Uint16Array;
  msPerPoint: number;
}

type Fetch = (source: string, level: number, channel?: Side) => Promise<Uint16Array>;

/** Outlines of sources for drawing, fetched once each and level by level as they are needed. */
export class Outlines {
  private readonly peaks: Levels;
  private readonly averages: Levels;

  constructor(fetchPeaks: Fetch, fetchAverages: Fetch, arrived: (source: string) => void) {
    this.peaks = new Levels(fetchPeaks, arrived);
    this.averages = new Levels(fetchAverages, arrived);
  }

  /** The finest outline of peaks that has at most about `points` points per bar, or a coarser one until that has come. */
  get(source: string, msPerBar: number, channel?: Side): Outline | null {
    return this.peaks.get(source, levelFor(msPerBar), channel);
  }

  /** The averages that belong to it, K-weighted. */
  average(source: string, msPerBar: number, channel?: Side): Outline | null {
    return this.averages.get(source, Math.max(1, levelFor(msPerBar)), channel);
  }

  /** Counts up when more of a source has come. */
  version(source: string): number {
    return this.peaks.version(source) + this.averages.version(source);
  }
}

function levelFor(msPerBar: number): number {
  let wanted = 0;
  while (wanted + 1 < POINT_MS.length && (POINT_MS[wanted + 1] ?? 0) <= msPerBar) wanted++;
  return wanted;
}

/** One kind of outline, by source, level and channel. */
class Levels {
  private readonly known = new Map<string, Uint16Array | null>();
  private readonly versions = new Map<string, number>();

  constructor(
    private readonly fetchLevel: Fetch,
    private readonly arrived: (source: string) => void,
  ) {}

  get(source: string, wanted: number, channel?: Side): Outline | null {
    const exact = this.level(source, wanted, channel);
    if (exact) return { points: exact, msPerPoint: POINT_MS[wanted] ?? 5 };
    for (const level of [...POINT_MS.keys()].sort((a, b) => Math.abs(a - wanted) - Math.abs(b - wanted))) {
      const points = this.known.get(keyOf(source, level, channel));
      if (points) return { points, msPerPoint: POINT_MS[level] ?? 5 };
    }
    return null;
  }

  version(source: string): number {
    return this.versions.get(source) ?? 0;
  }

  private level(source: string, level: number, channel?: Side): Uint16Array | null {
    const key = keyOf(source, level, channel);
    const known = this.known.get(key);
    if (known !== undefined) return known;
    this.known.set(key, null);
    this.fetchLevel(source, level, channel).then(
      (points) => {
        this.known.set(key, points);
        this.versions.set(source, this.version(source) + 1);
        this.arrived(source);
      },
      () => this.known.delete(key),
    );
    return null;
  }
}

function keyOf(source: string, level: number, channel?: Side): string {
  return `${source}/${level}/${channel ?? ""}`;
}
