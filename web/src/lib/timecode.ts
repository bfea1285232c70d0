/** Frame rates by name: frames per second as a fraction, and frames counted per timecode second. For display only. */
const RATES: Record<string, [number, number, number]> = {
  "23.976": [24000, 1001, 24],
  "24": [24, 1, 24],
  "25": [25, 1, 25],
  "29.97df": [30000, 1001, 30],
  "29.97": [30000, 1001, 30],
  "30": [30, 1, 30],
  "50": [50, 1, 50],
  "59.94": [60000, 1001, 60],
  "60": [60, 1, 60],
};

export const FRAME_RATES = Object.keys(RATES);

function rateOf(name: string): [number, number, number] {
  return RATES[name] ?? [25, 1, 25];
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

export function formatTimecode(sample: number, rate: number, frameRate: string): string {
  const base = rateOf(frameRate)[2];
  const drop = frameRate === "29.97df";
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
