import { beforeAll, describe, expect, it, vi } from "vitest";
import type { Columns } from "../columns";
import { columnPixels } from "./columnPixels";

beforeAll(() => {
  vi.stubGlobal(
    "ImageData",
    class {
      readonly data: Uint8ClampedArray;
      constructor(
        readonly width: number,
        readonly height: number,
      ) {
        this.data = new Uint8ClampedArray(4 * width * height);
      }
    },
  );
});

/** With linear heights 0.94 is full scale. */
const columns = (peak: number[], average: number[], before: number[]): Columns => ({
  peak: Float32Array.from(peak, (part) => part / 0.94),
  average: Float32Array.from(average, (part) => part / 0.94),
  before: Float32Array.from(before, (part) => part / 0.94),
  over: new Uint8Array(peak.length),
});

/** Opacity from above to below, 0…1. */
function column({ data, width, height }: ImageData, x: number): number[] {
  return Array.from(
    { length: height },
    (_, y) => Math.round((data[4 * (y * width + x) + 3] ?? 0) / 2.55) / 100,
  );
}

describe("drawn sound", () => {
  it("stands on its floor: faint to the peak, full to the average, in the ink asked for", () => {
    const picture = columnPixels(columns([0.5, 0], [0.2, 0], [0.5, 0]), 10, 0x102030, "linear");
    expect(column(picture, 0).slice(0, 5)).toEqual([0, 0, 0, 0, 0]);
    expect(
      column(picture, 0)
        .slice(5, 8)
        .every((a) => a > 0.3 && a < 0.4),
    ).toBe(true);
    expect(column(picture, 0).slice(8)).toEqual([1, 1]);
    expect(column(picture, 1)).toEqual(Array<number>(10).fill(0));
    expect([...picture.data.slice(4 * 9 * 2, 4 * 9 * 2 + 3)]).toEqual([0x10, 0x20, 0x30]);
  });

  it("is cut within a pixel, and says what was there before the gains", () => {
    const picture = columnPixels(columns([0.55, 0.3], [0.25, 0.2], [0.55, 0.85]), 10, 0, "linear");
    expect(column(picture, 0)[4]).toBeCloseTo(0.18, 2);
    expect(column(picture, 0)[7]).toBeCloseTo(0.68, 2);
    expect(column(picture, 1)[1]).toBeCloseTo(0.22, 2);
  });

  it("is wiped before the next", () => {
    columnPixels(columns([0.9], [0.9], [0.9]), 10, 0, "linear");
    expect(column(columnPixels(columns([0], [0], [0]), 10, 0, "linear"), 0)).toEqual(
      Array<number>(10).fill(0),
    );
  });
});
