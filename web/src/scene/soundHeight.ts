import type { HeightScale } from "@/store/screen";

/** The lowest level that has a height in decibels, dBFS. */
const FLOOR = -54;

/** Part of the room that full scale takes; above it there is room for the marks of what is over. */
const FULL = 0.94;

const STEPS = 4096;

/** Looked up, since thousands of columns ask for it. */
const TABLES: Record<HeightScale, Float32Array> = {
  decibels: Float32Array.from(
    { length: STEPS + 1 },
    (_, i) => FULL * Math.max(0, 1 - dbOf(i / STEPS) / FLOOR),
  ),
  linear: Float32Array.from({ length: STEPS + 1 }, (_, i) => (FULL * i) / STEPS),
};

/** Part of the room, 0…1, that an amplitude takes; 1.0 is full scale, and louder sound goes on to the edge of the room. */
export function soundHeight(amplitude: number, scale: HeightScale): number {
  if (amplitude > 1) return Math.min(1, FULL + (1 - FULL) * Math.min(1, dbOf(amplitude) / 6));
  return TABLES[scale][(amplitude * STEPS + 0.5) | 0] ?? 0;
}

/** The levels written beside a lane, dBFS, and the part of the room they stand at. */
export function scaleMarks(scale: HeightScale): { db: number; height: number }[] {
  const levels = scale === "decibels" ? [0, -12, -24, -36] : [0, -3, -6, -12, -24];
  return levels.map((db) => ({ db, height: soundHeight(10 ** (db / 20), scale) }));
}

function dbOf(amplitude: number): number {
  return 20 * Math.log10(Math.max(amplitude, 1e-9));
}
