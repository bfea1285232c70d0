import type { Figures } from "@/api/schema";

/** How far a programme that sounds is off its loudness target, in a word or two. */
export function offTarget({ off, met }: Figures["verdict"]): "on target" | `${string} ${"over" | "under"}` {
  if (met || off === null) return "on target";
  return `${Math.abs(off).toFixed(1)} ${off > 0 ? "over" : "under"}`;
}
