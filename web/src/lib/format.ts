/** A level as the API has it: dB, or silence. */
type Level = number | "silence";

/** "−6.0", "+1.5", "silence": levels as they stand beside a unit of their own. */
export function formatDb(level: Level, digits = 1): string {
  if (level === "silence" || level === -Infinity) return "silence";
  const text = Math.abs(level).toFixed(digits);
  if (Number(text) === 0) return (0).toFixed(digits);
  return `${level < 0 ? "−" : "+"}${text}`;
}

export function decibelsOf(level: Level): number {
  return level === "silence" ? -Infinity : level;
}

/** dB that a source whose channels have gains of their own is louder by, at its louder channel; 0 where both have the same. */
export function unlinkedGain(source: { gain: Level; right?: Level } | undefined): number {
  return source?.right === undefined ? 0 : Math.max(decibelsOf(source.gain), decibelsOf(source.right));
}

export function formatBytes(bytes: number): string {
  if (bytes < 1e6) return `${Math.max(1, Math.round(bytes / 1e3))} kB`;
  return bytes < 1e9 ? `${(bytes / 1e6).toFixed(1)} MB` : `${(bytes / 1e9).toFixed(2)} GB`;
}

export function formatSeconds(seconds: number): string {
  const hours = Math.floor(seconds / 3600);
  const minutes = Math.floor(seconds / 60) % 60;
  const rest = (seconds % 60).toFixed(1).padStart(4, "0");
  return hours ? `${hours}:${String(minutes).padStart(2, "0")}:${rest}` : `${minutes}:${rest}`;
}

/** "0:58.200", "1:02:03.004": to the millisecond, as it can be typed. */
export function formatClock(sample: number, rate: number): string {
  const ms = Math.round((Math.max(0, sample) * 1000) / rate);
  const two = (n: number) => String(n).padStart(2, "0");
  const [hours, minutes, seconds] = [
    Math.floor(ms / 3_600_000),
    Math.floor(ms / 60_000) % 60,
    Math.floor(ms / 1000) % 60,
  ];
  return `${hours ? `${hours}:${two(minutes)}` : minutes}:${two(seconds)}.${String(ms % 1000).padStart(3, "0")}`;
}
