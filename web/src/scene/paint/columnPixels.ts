import type { HeightScale } from "@/store/screen";
import type { Columns } from "../columns";
import { soundHeight } from "../soundHeight";

/** How much of the ink the peaks, the average, and what was there before the gains take. */
const PEAK = 0.36;
const BEFORE = 0.22;

/** Px by which what was there before the gains differs from the peak before it is worth a mark. */
const WORTH = 1.5;

/** The picture that was made last: those of one size follow one another, and each is as large as some hundred kilobytes. */
let scratch: ImageData | null = null;

/**
 * Sound pixel by pixel, which is many times quicker than outlines filled by the canvas: peaks faint, the average full, and what was there
 * before the gains as a fine line.
 *
 * @param rgb the ink, 0xRRGGBB
 */
export function columnPixels(columns: Columns, height: number, rgb: number, scale: HeightScale): ImageData {
  const width = columns.peak.length;
  if (scratch?.width !== width || scratch.height !== height) scratch = new ImageData(width, height);
  const pixels = new Uint32Array(scratch.data.buffer).fill(0);
  const ink = ((rgb & 0xff) << 16) | (rgb & 0xff00) | ((rgb >> 16) & 0xff);
  const put = (at: number, alpha: number) => {
    pixels[at] = ((Math.round(255 * alpha) << 24) | ink) >>> 0;
  };
  for (let x = 0; x < width; x++) {
    const peak = height * (1 - soundHeight(columns.peak[x] ?? 0, scale));
    const average = height * (1 - soundHeight(columns.average[x] ?? 0, scale));
    const [peakRow, averageRow] = [Math.floor(peak), Math.floor(average)];
    for (let y = peakRow; y < Math.min(averageRow, height); y++) put(y * width + x, PEAK);
    for (let y = averageRow + 1; y < height; y++) put(y * width + x, 1);
    // The topmost pixel of each is covered in part.
    if (averageRow < height) put(averageRow * width + x, PEAK + (1 - PEAK) * (averageRow + 1 - average));
    if (peakRow < averageRow) put(peakRow * width + x, PEAK * (peakRow + 1 - peak));
    const before = height * (1 - soundHeight(columns.before[x] ?? 0, scale));
    const row = Math.floor(before);
    if (row < height && Math.abs(before - peak) > WORTH) {
      const under = row >= averageRow ? 1 : row >= peakRow ? PEAK : 0;
      put(row * width + x, under + BEFORE * (1 - under));
    }
  }
  return scratch;
}
