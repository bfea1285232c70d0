import type { Side } from "@/api/schema";

/** Samples at 48 kHz that one point of an outline level stands for: 5 ms times 1, 4, 16, 64, 256. */
const POINT_MS = [5, 20, 80, 320, 1280];

/** Outlines of sources for drawing, fetched once each and level by level as they are needed. */
export class Outlines {
  private readonly levels = new Map<string, Uint16Array | null>();

  constructor(
    private readonly fetchOutline: (source: string, level: number, channel?: Side) => Promise<Uint16Array>,
    private readonly arrived: () => void,
  ) {}

  /** The finest outline that has at most about `points` points per bar, or a coarser one until that has come. */
  get(source: string, msPerBar: number, channel?: Side): { points: Uint16Array; msPerPoint: number } | null {
    let wanted = 0;
    while (wanted + 1 < POINT_MS.length && (POINT_MS[wanted + 1] ?? 0) <= msPerBar) wanted++;
    const exact = this.level(source, wanted, channel);
    if (exact) return { points: exact, msPerPoint: POINT_MS[wanted] ?? 5 };
    for (const level of [...POINT_MS.keys()].sort((a, b) => Math.abs(a - wanted) - Math.abs(b - wanted))) {
      const points = this.levels.get(keyOf(source, level, channel));
      if (points) return { points, msPerPoint: POINT_MS[level] ?? 5 };
    }
    return null;
  }

  private level(source: string, level: number, channel?: Side): Uint16Array | null {
    const key = keyOf(source, level, channel);
    const known = this.levels.get(key);
    if (known !== undefined) return known;
    this.levels.set(key, null);
    this.fetchOutline(source, level, channel).then(
      (points) => {
        this.levels.set(key, points);
        this.arrived();
      },
      () => this.levels.delete(key),
    );
    return null;
  }
}

function keyOf(source: string, level: number, channel?: Side): string {
  return `${source}/${level}/${channel ?? ""}`;
}
