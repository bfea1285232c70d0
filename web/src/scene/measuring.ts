/** What a stretch of a recording holds, before any gain; full scale 1.0. */
interface Measure {
  peak: number;
  /** Mean square. */
  power: number;
  /** Whether the recording itself reaches full scale there. */
  clipped: boolean;
}

/** Measures stretches of a recording, source samples; one that it gave is overwritten by the next. */
export type Measuring = (from: number, to: number) => Measure;

/** Just below full scale: recorders that clip write this or more. */
export const CLIPPED = 32766 / 32768;
