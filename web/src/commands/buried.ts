import type { Buried } from "@/api/schema";
import type { MixState } from "@/store/mixStore";

/** Stretches that nobody has accepted, in the order of time. */
export function openStretches(state: MixState): Buried[] {
  return state.figures?.buried.filter((b) => b.accepted === null) ?? [];
}

/** The stretch at hand, or the one at a moment. */
export function stretchAt(state: MixState, moment: number): Buried | undefined {
  const all = state.figures?.buried ?? [];
  return all.find((b) => b.from === state.stretch) ?? all.find((b) => moment >= b.from && moment < b.to);
}
