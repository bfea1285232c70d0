import { parsePan } from "@/preview/pan";
import type { MixState } from "./mixStore";

/** A pan as typed; where it is none, says so on the screen. */
export function typedPan(state: MixState, text: string): number | null {
  const pan = parsePan(text);
  if (pan === null)
    state.set({ notice: { kind: "error", text: `“${text}” is not a pan. Type 30 left, −30 or centre.` } });
  return pan;
}
