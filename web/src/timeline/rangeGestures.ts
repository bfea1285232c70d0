import { snapTo } from "@/preview/snap";
import type { Chosen, Marker } from "@/api/schema";
import { merged } from "@/store/chosen";
import type { MixState } from "@/store/mixStore";
import { looseChange, type Range } from "@/store/screen";
import { type Lane, sampleAt } from "@/scene/geometry";
import { type Gesture, seconds, SNAP_PX, snapTargets, time } from "./gesture";
import { placeOf } from "@/scene/hit";
import { type DrawnWire, grippable, type Scene } from "@/scene/scene";
import type { Start } from "./startGesture";

/** @param track where the drag begins; null on the horizon, for all of them */
export function selectRange(scene: Scene, state: MixState, start: Start, track: string | null): Gesture {
  const reach = SNAP_PX * scene.view.perPx;
  const targets = snapTargets({ ...state, range: null }, []);
  const begin = Math.max(0, sampleAt(scene.view, start.x));
  let range: Range | null = null;
  return {
    move(toX, toY, modifiers) {
      const snap = (sample: number) => (modifiers.free ? sample : snapTo(sample, targets, reach));
      const ends = [snap(begin), snap(Math.max(0, sampleAt(scene.view, toX)))].sort((a, b) => a - b) as [
        number,
        number,
      ];
      const tracks = track === null ? null : tracksBetween(scene, start.y, toY, track);
      range = ends[1] > ends[0] ? { from: ends[0], to: ends[1], tracks } : null;
      const across = tracks && tracks.length > 1 ? ` · ${tracks.length} tracks` : "";
      return { preview: { clips: {}, range }, readout: range ? spanReadout(state, range) + across : "" };
    },
    commit: () => ({ range }),
  };
}

function tracksBetween(scene: Scene, from: number, to: number, begun: string): string[] {
  const [top, bottom] = from < to ? [from, to] : [to, from];
  const lanes = scene.layout.lanes.filter((l) => l.top < bottom && l.top + l.height > top);
  const ids = lanes.map((l) => l.track.id);
  return ids.includes(begun) ? ids : [begun];
}

function spanReadout(state: MixState, range: Range): string {
  return `${time(state, range.from)} – ${time(state, range.to)} · ${seconds(state, range.to - range.from)}`;
}

export function resizeRange(scene: Scene, state: MixState, old: Range, edge: "from" | "to"): Gesture {
  const targets = snapTargets({ ...state, range: null }, []);
  let range = old;
  return {
    move(x, _y, modifiers) {
      const at = Math.max(0, sampleAt(scene.view, x));
      const snapped = modifiers.free ? at : snapTo(at, targets, SNAP_PX * scene.view.perPx);
      range =
        edge === "from"
          ? { ...old, from: Math.min(snapped, old.to - 1) }
          : { ...old, to: Math.max(snapped, old.from + 1) };
      return { preview: { clips: {}, range }, readout: spanReadout(state, range) };
    },
    commit: () => {
      const last = looseChange(state);
      if (!last || last.from !== old.from || last.to !== old.to) return { range };
      return { range, edit: { ...last, from: range.from, to: range.to }, instead: true };
    },
  };
}

/** The ramps of the change just made, both by the same length. */
export function resizeRamp(scene: Scene, state: MixState, edge: "from" | "to", x: number): Gesture | null {
  const last = looseChange(state);
  if (!last || typeof last.ramp !== "number") return null;
  const old = last.ramp;
  const outwards = (edge === "from") !== (last.inside ?? false) ? -1 : 1;
  let ramp = old;
  return {
    move(toX, _y, modifiers) {
      const by = (toX - x) * scene.view.perPx * outwards * (modifiers.fine ? 0.1 : 1);
      ramp = Math.round(Math.min(60 * state.rate, Math.max(0, old + by)));
      return {
        preview: { clips: {}, ramp },
        readout: `ramps ${seconds(state, old)} → ${seconds(state, ramp)}`,
      };
    },
    commit: () => (ramp === old ? {} : { edit: { ...last, ramp }, instead: true }),
  };
}

/** Draws a rectangle; the keyframes in it are chosen, whatever clips they belong to. */
export function lasso(scene: Scene, state: MixState, start: Start): Gesture {
  let chosen: Chosen[] = [];
  return {
    move(x, y) {
      const box = {
        left: Math.min(start.x, x),
        right: Math.max(start.x, x),
        top: Math.min(start.y, y),
        bottom: Math.max(start.y, y),
      };
      chosen = within(scene, box);
      if (start.shift) chosen = merged(state.chosen, chosen);
      const count = chosen.reduce((sum, c) => sum + c.keyframes.length, 0);
      return {
        preview: { clips: {}, lasso: box, chosen },
        readout: `${count} keyframe${count === 1 ? "" : "s"}`,
      };
    },
    commit: () => ({ chosen }),
  };
}

function within(scene: Scene, box: { left: number; right: number; top: number; bottom: number }): Chosen[] {
  const inBox = (lane: Lane, wire: DrawnWire): Chosen[] => {
    const keyframes = wire.curve.filter((k) => {
      const { x, y } = placeOf(scene, lane, wire, k);
      return x >= box.left && x <= box.right && y >= box.top && y <= box.bottom;
    });
    return keyframes.length ? [{ ...wire.id, keyframes: keyframes.map((k) => k.at) }] : [];
  };
  return [
    ...scene.clips.flatMap((drawn) => grippable(scene, drawn).flatMap((wire) => inBox(drawn.lane, wire))),
    ...scene.lanes.filter((drawn) => drawn.active).flatMap(({ lane, wire }) => inBox(lane, wire)),
  ];
}

export function moveMarker(scene: Scene, state: MixState, marker: Marker, x: number): Gesture {
  const targets = snapTargets(state, []).filter((t) => t !== marker.at);
  let at = marker.at;
  return {
    move(toX, _y, modifiers) {
      const wanted = Math.max(0, marker.at + Math.round((toX - x) * scene.view.perPx));
      at = modifiers.free ? wanted : snapTo(wanted, targets, SNAP_PX * scene.view.perPx);
      const markers = state.markers.map((m) => (m.id === marker.id ? { ...m, at } : m));
      return {
        preview: { clips: {}, markers },
        readout: `${marker.name} · ${time(state, marker.at)} → ${time(state, at)}`,
      };
    },
    commit: () => (at === marker.at ? {} : { edit: { edit: "set-marker", marker: marker.id, at } }),
  };
}
