import type { Level } from "@/api/types";

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

export function formatBytes(bytes: number): string {
  if (bytes < 1e6) return `${Math.max(1, Math.round(bytes / 1e3))} kB`;
  return bytes < 1e9 ? `${(bytes / 1e6).toFixed(1)} MB` : `${(bytes / 1e9).toFixed(2)} GB`;
}

export function formatSeconds(seconds: number): string {
  const minutes = Math.floor(seconds / 60);
  return `${minutes}:${(seconds - 60 * minutes).toFixed(1).padStart(4, "0")}`;
}
