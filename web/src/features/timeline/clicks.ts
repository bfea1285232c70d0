import type { Clip, FadeShape } from "@/api/types";
import { isChosen, toggled } from "@/store/chosen";
import type { MixState } from "@/store/mixStore";
import type { Target } from "./hit";

/** What is selected by pressing on a target: that alone, or with Shift beside what was. */
export function chooseAt(state: MixState, target: Target, beside: boolean): void {
  if (target.kind === "keyframe" || target.kind === "ease") {
    const { keyframe, wire } = target;
    if (isChosen(state.chosen, wire, keyframe.at) && !beside) return;
    const chosen = beside
      ? toggled(state.chosen, wire, keyframe.at)
      : [{ ...wire, keyframes: [keyframe.at] }];
    const own = "clip" in wire ? [wire.clip] : [];
    const kept = own.every((id) => state.selected.includes(id)) && own.length > 0;
    state.set({ chosen, selected: kept ? state.selected : own });
    return;
  }
  const clip = clipUnder(state, target);
  if (!clip) return;
  if (beside) {
    const others = state.selected.filter((id) => id !== clip.id);
    state.set({
      selected: others.length < state.selected.length ? others : [clip.id, ...others],
      chosen: [],
    });
  } else if (!state.selected.includes(clip.id)) {
    state.select(clip.id);
  } else if (state.selected[0] !== clip.id) {
    state.set({ selected: [clip.id, ...state.selected.filter((id) => id !== clip.id)] });
  }
}

function clipUnder(state: MixState, target: Target): Clip | undefined {
  if ("clip" in target) return target.clip;
  return "wire" in target && "clip" in target.wire ? state.clips[target.wire.clip] : undefined;
}

const SHAPES: FadeShape[] = ["equal-power", "linear", "s", "exponential"];

/** The next of the shapes, for a fade or a crossfade. */
export function nextShape(state: MixState, target: Extract<Target, { kind: "fade" | "cross" }>): void {
  const next = (shape: FadeShape) => SHAPES[(SHAPES.indexOf(shape) + 1) % SHAPES.length] ?? "linear";
  if (target.kind === "fade") {
    const own = target.edge === "in" ? target.clip.fadeIn : target.clip.fadeOut;
    const shape = next(own?.shape ?? "equal-power");
    void state.edit({
      edit: "set-fade",
      clips: [target.clip.id],
      edge: target.edge,
      length: own?.length ?? 0,
      shape,
    });
    return;
  }
  const later = target.clip.at > target.other.at ? target.clip : target.other;
  const { length = 0, shape = "equal-power" } = later.fadeIn ?? {};
  void state.edit({ edit: "set-fade", clips: [later.id], edge: "in", length, shape: next(shape) });
}
