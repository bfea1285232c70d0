import type { MixState } from "@/store/mixStore";
import { moveClip, trimClip } from "./clipGestures";
import type { Gesture } from "./gesture";
import type { Target } from "./hit";
import { dipRange, dragWire, moveKeyframe } from "./levelGestures";
import { resizeRange, selectRange } from "./rangeGestures";
import type { Scene } from "./scene";

/** The drag that begins on a target; null where one may not, or nothing can be dragged. */
export function startGesture(
  target: Target,
  scene: Scene,
  state: MixState,
  x: number,
  y: number,
  ramp: number,
): Gesture | null {
  const canEdit = state.project.role !== "viewer";
  switch (target.kind) {
    case "horizon":
    case "lane":
    case "body":
      return selectRange(scene, state, x, target.kind === "horizon" ? null : target.lane.track.id);
    case "range-edge":
      return state.range && resizeRange(scene, state, state.range, target.edge);
    case "name":
      return canEdit ? moveClip(scene, state, target.clip, x) : null;
    case "trim":
      return canEdit ? trimClip(scene, state, target.clip, target.edge) : null;
    case "keyframe":
      return canEdit ? moveKeyframe(scene, state, target.clip, target.lane, target.keyframe, x, y) : null;
    case "wire":
      return canEdit ? dragWire(scene, state, target.clip, target.lane, x, y) : null;
    case "dip":
      return canEdit && state.range
        ? dipRange(state, state.range, target.clip, target.lane, target.db, y, ramp)
        : null;
  }
}
