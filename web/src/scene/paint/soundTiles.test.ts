// @vitest-environment jsdom
import { beforeEach, describe, expect, it, vi } from "vitest";
import { SoundTiles } from "./soundTiles";

/** Milliseconds that drawing takes, by the clock of these tests. */
let takes = 0;

beforeEach(() => {
  vi.restoreAllMocks();
  takes = 0;
  let time = 0;
  vi.spyOn(performance, "now").mockImplementation(() => (time += takes));
  vi.spyOn(HTMLCanvasElement.prototype, "getContext").mockReturnValue({} as never);
});

describe("tiles of drawn sound", () => {
  const drawn: number[] = [];
  const show = (tiles: SoundTiles, made: unknown[], perColumn: number, numbers: number[]) => {
    drawn.length = 0;
    tiles.begin();
    const row = tiles.row("bed/", made, perColumn);
    const shown = numbers.map((n) => tiles.tile(row, n, 60, () => drawn.push(n)));
    return { row, shown, more: tiles.end() };
  };

  it("are drawn once, as long as what they show stays the same", () => {
    const tiles = new SoundTiles();
    show(tiles, ["a", 1], 100, [0, 1]);
    expect(drawn).toEqual([0, 1]);
    show(tiles, ["a", 1], 100, [1, 2]);
    expect(drawn).toEqual([2]);
    show(tiles, ["a", 2], 100, [1, 2]);
    expect(drawn).toEqual([1, 2]);
  });

  it("of another zoom stand in until those of this one are drawn, a few each frame", () => {
    const tiles = new SoundTiles();
    show(tiles, ["a"], 100, [0]);
    takes = 1.5;
    const zoomed = show(tiles, ["a"], 50, [0, 1, 2, 3, 4]);
    expect(drawn).toEqual([0, 1]);
    expect(zoomed.shown.map((tile) => tile !== null)).toEqual([true, true, false, false, false]);
    expect(zoomed.row.before.map((layer) => layer.perColumn)).toEqual([100]);
    expect(zoomed.more).toBe(true);
    show(tiles, ["a"], 50, [0, 1, 2, 3, 4]);
    const last = show(tiles, ["a"], 50, [0, 1, 2, 3, 4]);
    expect(last.more).toBe(false);
    expect(last.row.before).toEqual([]);
  });

  it("that were never whole stand in above those that were", () => {
    const tiles = new SoundTiles();
    show(tiles, ["a"], 100, [0, 1, 2]);
    takes = 3;
    show(tiles, ["a"], 50, [0, 1, 2]);
    const { row } = show(tiles, ["b"], 50, [0, 1, 2]);
    expect(row.before.map(({ perColumn, tiles: of }) => [perColumn, of.size])).toEqual([
      [100, 3],
      [50, 1],
    ]);
  });

  it("of each sound come in their turn, however much there is to be drawn in every frame", () => {
    const tiles = new SoundTiles();
    const came: string[] = [];
    const frame = (made: number) => {
      tiles.begin();
      for (const key of ["a", "b", "c"]) tiles.tile(tiles.row(key, [made], 100), 0, 60, () => came.push(key));
      tiles.end();
    };
    frame(0);
    expect(came).toEqual(["a", "b", "c"]);
    came.length = 0;
    takes = 3;
    // Dragged all the while, so that each has to be drawn anew in every frame, and there is time for one.
    for (const made of [1, 2, 3, 4, 5, 6]) frame(made);
    for (const key of ["a", "b", "c"]) expect(came.filter((one) => one === key)).toHaveLength(2);
  });
});
