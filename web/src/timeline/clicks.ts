import type { Clip, FadeShape } from "@/api/schema";
import { isChosen, toggled } from "@/store/chosen";
import type { MixState } from "@/store/mixStore";
import type { Target } from "@/scene/hit";

/**
 * What is selected by pressing on a target: that alone, unless it is selected already, so that a drag moves all that is. With Shift
 * nothing changes before it is let go without a drag.
 */
export function chooseAt(state: MixState, target: Target): void {
  const side = sideAt(target);
  if (target.kind === "keyframe" || target.kind === "ease") {
    const { keyframe, wire } = target;
    if (isChosen(state.chosen, wire, keyframe.at)) return;
    const own = "clip" in wire ? [wire.clip] : [];
    const kept = own.every((id) => state.selected.includes(id)) && own.length > 0;
    const chosen = [{ ...wire, keyframes: [keyframe.at] }];
    state.set({ chosen, selected: kept ? state.selected : own, side });
    return;
  }
  const clip = clipUnder(state, target);
  if (!clip) return;
  if (side || state.side?.clip !== clip.id) state.set({ side });
  if (!state.selected.includes(clip.id)) {
    state.select(clip.id);
  } else if (state.selected[0] !== clip.id) {
    state.set({ selected: [clip.id, ...state.selected.filter((id) => id !== clip.id)] });
  }
}

/** The channel of an opened clip that a target belongs to. */
function sideAt(target: Target): MixState["side"] {
  return "wire" in target && "clip" in target.wire && target.wire.channel
    ? { clip: target.wire.clip, side: target.wire.channel }
    : null;
}

/** A click with Shift: takes a keyframe or a clip to what is selected, or out of it. */
export function chooseBeside(state: MixState, target: Target): void {
  if (target.kind === "keyframe") {
    const { keyframe, wire } = target;
    const chosen = toggled(state.chosen, wire, keyframe.at);
    const own = "clip" in wire ? wire.clip : null;
    const selected = own === null || state.selected.includes(own) ? state.selected : [own];
    state.set({ chosen, selected });
    return;
  }
  const clip = clipUnder(state, target);
  if (!clip) return;
  const others = state.selected.filter((id) => id !== clip.id);
  state.set({
    selected: others.length < state.selected.length ? others : [clip.id, ...others],
    chosen: [],
  });
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
