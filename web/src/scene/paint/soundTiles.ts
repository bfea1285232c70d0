/** Device pixels that a tile is wide. */
export const TILE = 256;

/** Milliseconds of a frame that may go into new tiles: as long as older ones can stand in for them, and where there is nothing else to show. */
const BUDGET = 1.5;
const FIRST_BUDGET = 4;

/** Tiles kept; those of the sound not shown for longest go first. */
const KEPT = 1200;

/** Canvases kept for new tiles: as many as a drag needs from one frame to the next. */
const SPARE = 96;

/** Tiles of one zoom, and of one state. */
interface Layer {
  perColumn: number;
  tiles: Map<number, HTMLCanvasElement>;
}

export interface TileRow extends Layer {
  key: string;
  /** What the tiles show; others are drawn when it is not the same any more. */
  made: readonly unknown[];
  /** Those of another zoom or state, oldest first, which stand in until the new ones are there. */
  before: Layer[];
  /** Whether all that was asked for in this frame was there. */
  whole: boolean;
}

/**
 * Drawn sound, kept in pieces of some hundred pixels: scrolling only lays them elsewhere, and while one zooms or drags what is there stands
 * in until it is drawn anew, some of it in each frame, every sound in its turn.
 */
export class SoundTiles {
  private readonly rows = new Map<string, TileRow>();
  /** Canvases of tiles that were forgotten, for new ones. */
  private readonly spare: HTMLCanvasElement[] = [];
  /** Frames that rows have been waiting for by now, and had been when this frame began: those that waited longest come first. */
  private waiting = new Map<string, number>();
  private waited = new Map<string, number>();
  private longest = 0;
  private spent = 0;

  /** A frame begins. */
  begin(): void {
    this.spent = 0;
    this.waited = this.waiting;
    this.waiting = new Map();
    this.longest = Math.max(0, ...this.waited.values());
  }

  /** A frame ends: whether some tiles were left for the next one. */
  end(): boolean {
    let count = 0;
    for (const row of this.rows.values()) {
      if (row.whole) this.forget(row.before.splice(0));
      count += [row, ...row.before].reduce((sum, layer) => sum + layer.tiles.size, 0);
    }
    for (const [key, row] of this.rows) {
      if (count <= KEPT) break;
      for (const { tiles } of [row, ...row.before]) count -= tiles.size;
      this.rows.delete(key);
    }
    return this.waiting.size > 0;
  }

  /** The tiles of one sound, which were made of these things; what was made of others, or for another zoom, stands in for what is missing. */
  row(key: string, made: readonly unknown[], perColumn: number): TileRow {
    const known = this.rows.get(key);
    this.rows.delete(key);
    const row =
      known?.perColumn === perColumn && same(known.made, made)
        ? known
        : { key, made, perColumn, tiles: new Map(), before: known ? this.standIns(known) : [], whole: true };
    row.whole = true;
    this.rows.set(key, row); // to the end: shown last
    return row;
  }

  /** The tile with a number; null where it must wait, or where there is nothing to draw on. */
  tile(
    row: TileRow,
    number: number,
    height: number,
    draw: (ctx: CanvasRenderingContext2D) => void,
  ): HTMLCanvasElement | null {
    const known = row.tiles.get(number);
    if (known) return known;
    if (this.mustWait(row)) {
      row.whole = false;
      this.waiting.set(row.key, (this.waited.get(row.key) ?? 0) + 1);
      return null;
    }
    const begun = performance.now();
    const canvas = this.spare.pop() ?? document.createElement("canvas");
    // Also wipes what was on it.
    canvas.width = TILE;
    canvas.height = height;
    const ctx = canvas.getContext("2d");
    if (!ctx) return null;
    draw(ctx);
    row.tiles.set(number, canvas);
    this.spent += performance.now() - begun;
    return canvas;
  }

  private mustWait({ key, before }: TileRow): boolean {
    if (before.length === 0) return this.spent > FIRST_BUDGET;
    return this.spent > BUDGET || (this.waited.get(key) ?? 0) < this.longest;
  }

  /** Of what was shown: that which was whole, else that which it was standing in for as well. */
  private standIns({ perColumn, tiles, before, whole }: TileRow): Layer[] {
    const [oldest, ...later] = before;
    const latest = tiles.size > 0 ? [{ perColumn, tiles }] : [];
    if (whole && latest.length) {
      this.forget(before);
      return latest;
    }
    this.forget(later);
    return oldest ? [oldest, ...latest] : latest;
  }

  private forget(layers: Layer[]): void {
    for (const { tiles } of layers)
      this.spare.push(...[...tiles.values()].slice(0, Math.max(0, SPARE - this.spare.length)));
  }
}

function same(a: readonly unknown[], b: readonly unknown[]): boolean {
  return a.length === b.length && a.every((value, i) => Object.is(value, b[i]));
}
