import type { MixState, Range } from "@/store/mixStore";
import { sampleAt, snapTo } from "./geometry";
import { type Gesture, SNAP_PX, snapTargets, time } from "./gesture";
import type { Scene } from "./scene";

export function selectRange(scene: Scene, state: MixState, x: number, track: string | null): Gesture {
  const reach = SNAP_PX * scene.view.perPx;
  const targets = snapTargets({ ...state, range: null }, null);
  const start = Math.max(0, sampleAt(scene.view, x));
  let range: Range | null = null;
  return {
    move(to, _y, modifiers) {
      const snap = (sample: number) => (modifiers.free ? sample : snapTo(sample, targets, reach));
      const ends = [snap(start), snap(Math.max(0, sampleAt(scene.view, to)))].sort((a, b) => a - b) as [
        number,
        number,
      ];
      range = ends[1] > ends[0] ? { from: ends[0], to: ends[1], track } : null;
      return {
        preview: { clips: {}, range },
        readout: range ? `${time(state, range.from)} – ${time(state, range.to)}` : "",
      };
    },
    commit: () => ({ range }),
  };
}

export function resizeRange(scene: Scene, state: MixState, old: Range, edge: "from" | "to"): Gesture {
  const targets = snapTargets({ ...state, range: null }, null);
  let range = old;
  return {
    move(x, _y, modifiers) {
      const at = Math.max(0, sampleAt(scene.view, x));
      const snapped = modifiers.free ? at : snapTo(at, targets, SNAP_PX * scene.view.perPx);
      range =
        edge === "from"
          ? { ...old, from: Math.min(snapped, old.to - 1) }
          : { ...old, to: Math.max(snapped, old.from + 1) };
      return {
        preview: { clips: {}, range },
        readout: `${time(state, range.from)} – ${time(state, range.to)}`,
      };
    },
    commit: () => ({ range }),
  };
}
