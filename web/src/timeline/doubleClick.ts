import type { Marker, WireId } from "@/api/schema";
import { isRightOn, type Target } from "@/scene/hit";
import type { Scene } from "@/scene/scene";
import type { MixStore } from "@/store/mixStore";
import { wireIn } from "@/store/wires";
import { nextShape } from "./clicks";

interface Clicked {
  target: Target;
  point: { x: number; y: number };
  /** Timeline samples. */
  at: number;
}

/** What a double click does: sets a point or takes one away, turns a fade to its next shape, renames a marker. */
export function doubleClick(
  store: MixStore,
  scene: Scene,
  { target, point, at }: Clicked,
  rename: (marker: Marker) => void,
): void {
  const { edit } = store.getState();
  if (target.kind === "keyframe" && !isRightOn(scene, target, point.x, point.y)) {
    addKeyframe(store, target.wire, at);
  } else if (target.kind === "keyframe") {
    const chosen = [{ ...target.wire, keyframes: [target.keyframe.at] }];
    void edit({ edit: "remove-keyframes", chosen });
  } else if (target.kind === "wire" || target.kind === "dip") {
    addKeyframe(store, target.wire, at);
  } else if (target.kind === "pan-point") {
    void edit({ edit: "remove-pan-points", track: target.lane.track.id, points: [target.at] });
  } else if (target.kind === "pan-line" || target.kind === "pan-range") {
    void edit({ edit: "set-pan-point", track: target.lane.track.id, at: at });
  } else if (target.kind === "mute-span") {
    const { from, to } = target;
    const until = Math.min(to, Math.max(store.getState().length, from + 1));
    void edit({ edit: "set-mute-range", track: target.lane.track.id, from, to: until, muted: false });
  } else if (target.kind === "fade" || target.kind === "cross") {
    nextShape(store.getState(), target);
  } else if (target.kind === "marker") {
    rename(target.marker);
  }
}

function addKeyframe(store: MixStore, wire: WireId, at: number): void {
  const { ahead = 0 } = wireIn(store.getState(), wire) ?? {};
  const chosen = [{ ...wire, keyframes: [at + ahead] }];
  void store
    .getState()
    .edit({ edit: "add-keyframe", ...wire, at })
    .then((done) => done && store.getState().set({ chosen }));
}
