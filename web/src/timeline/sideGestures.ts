import { snapTo } from "@/preview/snap";
import type { Edit, Track } from "@/api/schema";
import { formatPan } from "@/preview/pan";
import type { MixState } from "@/store/mixStore";
import type { Range } from "@/store/screen";
import { sampleAt } from "@/scene/geometry";
import { type Gesture, SNAP_PX, snapTargets, time, Travel } from "./gesture";
import type { Scene } from "@/scene/scene";
import { dragPan, pointsOf, type SideTarget } from "@/scene/sideLanes";
import type { Start } from "./startGesture";

type On<K extends SideTarget["kind"]> = Extract<SideTarget, { kind: K }>;

const readout = (from: number, to: number) => `${formatPan(from)} → ${formatPan(to)}`;

function withPans(track: Track, points: { at: number; pan: number }[]): Track {
  return { ...track, lanes: { ...track.lanes, pan: points.sort((a, b) => a.at - b.at) } };
}

/** A point of a pan lane, or the line between two, which gets a point where it is taken. */
export function dragPanPoint(
  scene: Scene,
  state: MixState,
  target: On<"pan-point" | "pan-line">,
  start: Start,
): Gesture {
  const { track } = target.lane;
  const travel = new Travel(start.y);
  const fresh = target.kind === "pan-line";
  const from = fresh ? sampleAt(scene.view, start.x) : target.at;
  const others = pointsOf(track).filter((p) => fresh || p.at !== from);
  const earliest = (others.findLast((p) => p.at < from)?.at ?? -1) + 1;
  const latest = (others.find((p) => p.at > from)?.at ?? Infinity) - 1;
  let [at, pan] = [from, target.pan];
  return {
    move(x, y, { axis, fine }) {
      const horizontal = axis && Math.abs(x - start.x) > Math.abs(y - start.y);
      const dy = travel.to(y, fine);
      const way = axis && !horizontal ? 0 : (x - start.x) * scene.view.perPx * (fine ? 0.1 : 1);
      pan = horizontal ? target.pan : dragPan(target.lane, target.pan, dy);
      at = fresh ? from : Math.round(Math.min(Math.max(from + way, earliest), latest));
      return {
        preview: { clips: {}, tracks: { [track.id]: withPans(track, [...others, { at, pan }]) } },
        readout: `${time(state, at)} · ${readout(target.pan, pan)}`,
      };
    },
    commit: () => {
      if (at === from && pan === target.pan) return {};
      const edit: Edit = { edit: "set-pan-point", track: track.id, at, pan };
      return { edit: fresh ? edit : { ...edit, point: from } };
    },
  };
}

/** The selected range, brought to one side. */
export function dragPanRange(range: Range, target: On<"pan-range">, start: Start): Gesture {
  const { track } = target.lane;
  const travel = new Travel(start.y);
  const { from, to } = range;
  let pan = target.pan;
  return {
    move(_x, y, { fine }) {
      pan = dragPan(target.lane, target.pan, travel.to(y, fine));
      const outside = pointsOf(track).filter((p) => p.at < from - start.ramp || p.at > to + start.ramp);
      const shown = withPans(track, [...outside, { at: from, pan }, { at: to, pan }]);
      return { preview: { clips: {}, tracks: { [track.id]: shown } }, readout: readout(target.pan, pan) };
    },
    commit: () =>
      pan === target.pan
        ? {}
        : { edit: { edit: "set-pan-range", track: track.id, from, to, pan, ramp: start.ramp } },
  };
}

/** A mute that begins, or ends, at another moment: what lies between is muted, or heard. */
export function moveMuteEdge(track: string, edge: { at: number; muted: boolean }, at: number): Edit {
  const [from, to] = [Math.min(at, edge.at), Math.max(at, edge.at)];
  return { edit: "set-mute-range", track, from, to, muted: at < edge.at === edge.muted };
}

/** Where a mute begins or ends: dragging it mutes, or lets be heard, what lies between. */
export function dragMuteEdge(scene: Scene, state: MixState, target: On<"mute-edge">): Gesture {
  const { track } = target.lane;
  const targets = snapTargets(state, []);
  let at = target.at;
  return {
    move(x, _y, { free }) {
      const wanted = Math.max(0, sampleAt(scene.view, x));
      at = free ? wanted : snapTo(wanted, targets, SNAP_PX * scene.view.perPx);
      const mute = (track.lanes?.mute ?? []).map((s) => (s.at === target.at ? { ...s, at } : s));
      return {
        preview: { clips: {}, tracks: { [track.id]: { ...track, lanes: { ...track.lanes, mute } } } },
        readout: `mute ${target.muted ? "from" : "to"} ${time(state, at)}`,
      };
    },
    commit: () => (at === target.at ? {} : { edit: moveMuteEdge(track.id, target, at) }),
  };
}
