import type { Buried } from "@/api/schema";
import type { MixState, MixStore } from "@/store/mixStore";
import { refuse } from "./command";

/** Stretches that nobody has accepted, in the order of time. */
export function openStretches(state: MixState): Buried[] {
  return state.figures?.buried.filter((b) => b.accepted === null) ?? [];
}

/** The stretch at hand, or the one at a moment. */
export function stretchAt(state: MixState, moment: number): Buried | undefined {
  const all = state.figures?.buried ?? [];
  return all.find((b) => b.from === state.stretch) ?? all.find((b) => moment >= b.from && moment < b.to);
}

/**
 * Does what needs the figures: at once where they are there. Until then it says that they are being measured, and does it as soon as they
 * come, unless the mix was edited or a stretch was taken meanwhile.
 */
export function onceMeasured(store: MixStore, act: (state: MixState) => void): void {
  const asked = store.getState();
  if (asked.figures) return act(asked);
  refuse(asked, "Where speech is buried is still being measured. This goes there as soon as it is known.");
  const stop = store.subscribe((now) => {
    const goneOn = now.revision !== asked.revision || now.stretch !== asked.stretch;
    if (!goneOn && !now.figures) return;
    stop();
    if (!goneOn) act(now);
  });
}
