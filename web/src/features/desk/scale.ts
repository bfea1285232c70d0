/** How a meter is labelled. The bar stands where the average level stands; only the numbers beside it differ. */
export interface Scale {
  name: string;
  unit: string;
  /** What is read where the average (RMS) is 0 dBFS. */
  atFullScale: number;
  marks: number[];
}

export type ScaleId = "dbfs" | "vu20" | "vu18" | "lufs";

const VU_MARKS = [10, 6, 3, 0, -3, -6, -10, -20, -30];

/** A sine reads 3.01 dB more on a VU meter than its RMS, since its level is that of its peak. 0 VU: SMPTE RP 155, EBU R 68. */
export const SCALES: Record<ScaleId, Scale> = {
  dbfs: { name: "dBFS", unit: "dBFS", atFullScale: 0, marks: [0, -6, -12, -18, -24, -30, -40, -50] },
  vu20: { name: "VU, 0 at −20 dBFS", unit: "VU", atFullScale: 23, marks: VU_MARKS },
  vu18: { name: "VU, 0 at −18 dBFS", unit: "VU", atFullScale: 21, marks: VU_MARKS },
  lufs: { name: "LUFS", unit: "LUFS", atFullScale: 3, marks: [0, -6, -10, -14, -18, -23, -30, -40, -50] },
};

const [BOTTOM, TOP] = [-60, 3];

/** Height in parts of the meter, 0 to 1, of an average level in dBFS. */
export function heightOf(dbfs: number): number {
  return Math.min(1, Math.max(0, (dbfs - BOTTOM) / (TOP - BOTTOM)));
}

/** Average in dBFS at which a scale reads a value. */
export function averageAt(scale: Scale, value: number): number {
  return value - scale.atFullScale;
}
