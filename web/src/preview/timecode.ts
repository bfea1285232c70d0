import { CORE } from "./constants";

export const FRAME_RATES = Object.keys(CORE.frameRates);

/** Frames per second as a fraction, frames counted per timecode second, and whether numbers are left out. */
function rateOf(name: string): [numerator: number, denominator: number, nominal: number, drops: boolean] {
  const rates: Record<string, { fraction: readonly [number, number]; nominal: number; drops: boolean }> =
    CORE.frameRates;
  const { fraction, nominal, drops } = rates[name] ?? CORE.frameRates["25"];
  return [...fraction, nominal, drops];
}

/** The frame that shows at a sample, as the core counts it. */
export function frameAt(sample: number, rate: number, frameRate: string): number {
  const [numerator, denominator] = rateOf(frameRate);
  return Math.floor((sample * numerator) / (rate * denominator));
}

/** The first sample of a frame. */
export function sampleOfFrame(frame: number, rate: number, frameRate: string): number {
  const [numerator, denominator] = rateOf(frameRate);
  return Math.ceil((frame * rate * denominator) / numerator);
}

/** Frames from the start to a timecode of whole seconds; where drop-frame has no such number, the next one it has. */
function frameOfSeconds(seconds: number, frameRate: string): number {
  const minutes = Math.floor(seconds / 60);
  const dropped = rateOf(frameRate)[3] ? 2 * (minutes - Math.floor(minutes / 10)) : 0;
  const exists = dropped > 0 && seconds % 60 === 0 && minutes % 10 !== 0 ? 2 : 0;
  return seconds * rateOf(frameRate)[2] - dropped + exists;
}

export function samplesPerFrame(rate: number, frameRate: string): number {
  const [numerator, denominator] = rateOf(frameRate);
  return (rate * denominator) / numerator;
}

/** The first sample of a timecode: whole seconds of it, and frames after them; null where there is no such frame. */
export function sampleOfTimecode(
  seconds: number,
  frames: number,
  rate: number,
  frameRate: string,
): number | null {
  const [, , nominal, drops] = rateOf(frameRate);
  const minutes = Math.floor(seconds / 60);
  const leftOut = drops && seconds % 60 === 0 && frames < 2 && minutes % 10 !== 0;
  if (frames >= nominal || leftOut) return null;
  const dropped = drops ? 2 * (minutes - Math.floor(minutes / 10)) : 0;
  return sampleOfFrame(seconds * nominal + frames - dropped, rate, frameRate);
}

/** Distance of two marks on a ruler: whole frames, or whole seconds of timecode. */
export interface RulerStep {
  frames?: number;
  seconds?: number;
}

/** The step at which marks stand at least `px` apart. */
export function rulerStep(perPx: number, rate: number, frameRate: string, px: number): RulerStep {
  const [numerator, denominator] = rateOf(frameRate);
  const wanted = (perPx * px) / rate;
  const frames = [1, 2, 5, 10].find((n) => (n * denominator) / numerator >= wanted);
  if (frames && (frames * denominator) / numerator < 1) return { frames };
  return { seconds: [1, 2, 5, 10, 20, 30, 60, 120, 300, 600, 1800, 3600].find((s) => s >= wanted) ?? 7200 };
}

/** Sample of mark number n of a ruler. */
export function rulerMark(step: RulerStep, n: number, rate: number, frameRate: string): number {
  return sampleOfFrame(
    step.frames ? n * step.frames : frameOfSeconds(n * (step.seconds ?? 1), frameRate),
    rate,
    frameRate,
  );
}

/** Without the hours where there are none. */
export function shortTimecode(sample: number, rate: number, frameRate: string): string {
  return formatTimecode(sample, rate, frameRate).replace(/^00:/, "");
}

export function formatTimecode(sample: number, rate: number, frameRate: string): string {
  const base = rateOf(frameRate)[2];
  const drop = rateOf(frameRate)[3];
  let count = frameAt(Math.max(0, sample), rate, frameRate);
  if (drop) {
    const tens = Math.floor(count / 17982);
    const rest = count % 17982;
    count += 18 * tens + (rest < 2 ? 0 : 2 * Math.floor((rest - 2) / 1798));
  }
  const seconds = Math.floor(count / base);
  const two = (n: number) => String(n).padStart(2, "0");
  return `${two(Math.floor(seconds / 3600))}:${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)}${drop ? ";" : ":"}${two(count % base)}`;
}
