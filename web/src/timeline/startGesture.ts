import type { MixState } from "@/store/mixStore";
import { fadeClip, moveClips, trimClip } from "./clipGestures";
import type { Gesture } from "./gesture";
import type { Target } from "@/scene/hit";
import { dipRange, dragWire, moveKeyframes, shapeRamp } from "./levelGestures";
import { lasso, moveMarker, resizeRamp, resizeRange, selectRange } from "./rangeGestures";
import type { Scene } from "@/scene/scene";
import { dragMuteEdge, dragPanPoint, dragPanRange } from "./sideGestures";

export interface Start {
  x: number;
  y: number;
  /** Ctrl, or Cmd, when the pointer went down. */
  ctrl: boolean;
  shift: boolean;
  /** Length of a dip's ramps in samples. */
  ramp: number;
}

/** The drag that begins on a target; null where one may not, or nothing can be dragged. */
export function startGesture(target: Target, scene: Scene, state: MixState, start: Start): Gesture | null {
  const canEdit = state.project.role !== "viewer";
  const { x } = start;
  switch (target.kind) {
    case "horizon":
      return selectRange(scene, state, start, null);
    case "lane":
    case "body":
    case "mute-span":
      return start.ctrl ? lasso(scene, state, start) : selectRange(scene, state, start, target.lane.track.id);
    case "playhead":
    case "cross":
      return null;
    case "marker":
      return canEdit ? moveMarker(scene, state, target.marker, x) : null;
    case "range-edge":
      return state.range && resizeRange(scene, state, state.range, target.edge);
    case "ramp":
      return canEdit ? resizeRamp(scene, state, target.edge, x) : null;
    case "name":
      return canEdit ? moveClips(scene, state, target.clip, start) : null;
    case "trim":
      return canEdit ? trimClip(scene, state, target.clip, target.edge) : null;
    case "fade":
      return canEdit ? fadeClip(scene, state, target.clip, target.edge, x) : null;
    case "keyframe":
      return canEdit ? moveKeyframes(scene, state, target, start) : null;
    case "ease":
      return canEdit ? shapeRamp(scene, state, target, x) : null;
    case "pan-point":
    case "pan-line":
      return canEdit ? dragPanPoint(scene, state, target, start) : null;
    case "pan-range":
      return canEdit && state.range ? dragPanRange(state.range, target, start) : null;
    case "mute-edge":
      return canEdit ? dragMuteEdge(scene, state, target) : null;
    case "wire":
      return canEdit ? dragWire(scene, state, target, start) : null;
    case "dip":
      return canEdit && state.range ? dipRange(state, state.range, target, start) : null;
  }
}
