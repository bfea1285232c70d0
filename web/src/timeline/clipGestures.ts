import type { Clip, Fade } from "@/api/schema";
import type { MixState } from "@/store/mixStore";
import { snapTo } from "@/preview/snap";
import { stretched } from "@/preview/trim";
import { laneAt, sampleAt } from "@/scene/geometry";
import { type Gesture, seconds, SNAP_PX, snapTargets, time } from "./gesture";
import type { Preview, Scene } from "@/scene/scene";
import type { Start } from "./startGesture";

/** Moves the selected clips together; one alone may go to another track. With Ctrl, all that comes later goes along. */
export function moveClips(scene: Scene, state: MixState, clip: Clip, { x, y: startY }: Start): Gesture {
  const ids = state.selected.includes(clip.id) ? state.selected : [clip.id];
  const clips = ids.map((id) => state.clips[id]).filter((c) => c !== undefined);
  const earliest = Math.min(...clips.map((c) => c.at));
  const targets = snapTargets(state, ids);
  const reach = SNAP_PX * scene.view.perPx;
  const alone = clips.length === 1;
  let later = 0;
  let track = clip.track;
  let ripple = false;
  return {
    move(toX, y, modifiers) {
      // Not beyond what is seen, so that nothing vanishes; the wheel and the skyline show more.
      const to = Math.min(Math.max(toX, Math.min(0, x)), Math.max(scene.width, x));
      const sideways = Math.abs(to - x) > Math.abs(y - startY);
      const wanted = clip.at + Math.round((to - x) * scene.view.perPx);
      let at = wanted;
      if (!modifiers.free) {
        const byStart = snapTo(wanted, targets, reach);
        const byEnd = snapTo(wanted + clip.length, targets, reach) - clip.length;
        at = byStart !== wanted ? byStart : byEnd;
      }
      later = modifiers.axis && !sideways ? 0 : Math.max(at - clip.at, -earliest);
      ripple = modifiers.fine;
      const lane = laneAt(scene.layout, y);
      track = alone && !ripple && !(modifiers.axis && sideways) ? (lane?.track.id ?? clip.track) : clip.track;
      const where = lane && track !== clip.track ? ` on ${lane.track.name}` : "";
      const moving = ripple ? withLater(state, clips) : clips;
      const preview: Preview["clips"] = Object.fromEntries(
        moving.map((c) => [
          c.id,
          { clip: { ...c, at: c.at + later, ...(alone && c.id === clip.id ? { track } : {}) } },
        ]),
      );
      const along = moving.length > 1 ? ` · ${moving.length} clips` : "";
      return {
        preview: { clips: preview },
        readout: `${time(state, clip.at)} → ${time(state, clip.at + later)}${where}${along}`,
      };
    },
    commit: () => {
      if (later === 0 && track === clip.track) return {};
      if (alone && !ripple) return { edit: { edit: "move-clip", clip: clip.id, track, at: clip.at + later } };
      return { edit: { edit: "move-clips", clips: ids, later, ...(ripple ? { ripple } : {}) } };
    },
  };
}

/** The clips, and those that come after the first of them on their tracks. */
function withLater(state: MixState, clips: Clip[]): Clip[] {
  const first = new Map<string, number>();
  for (const c of clips) first.set(c.track, Math.min(first.get(c.track) ?? Infinity, c.at));
  return Object.values(state.clips).filter(
    (c) => clips.some((m) => m.id === c.id) || c.at >= (first.get(c.track) ?? Infinity),
  );
}

/** Trims an end. With Ctrl no gap opens: what comes later on the track moves along. */
export function trimClip(scene: Scene, state: MixState, clip: Clip, edge: "from" | "to"): Gesture {
  const targets = snapTargets(state, [clip.id]);
  const earliest = Math.max(0, clip.at - clip.in);
  const latest = clip.at - clip.in + (state.sources[clip.source]?.length ?? clip.in + clip.length);
  let trimmed = clip;
  let ripple = false;
  return {
    move(x, _y, modifiers) {
      ripple = modifiers.fine;
      const at = sampleAt(scene.view, x);
      const snapped = modifiers.free ? at : snapTo(at, targets, SNAP_PX * scene.view.perPx);
      if (edge === "from") {
        const from = Math.min(Math.max(snapped, earliest), clip.at + clip.length - 1);
        trimmed = { ...clip, at: from, in: clip.in + from - clip.at, length: clip.length - from + clip.at };
      } else {
        trimmed = { ...clip, length: Math.min(Math.max(snapped, clip.at + 1), latest) - clip.at };
      }
      const [was, is] =
        edge === "from" ? [clip.at, trimmed.at] : [clip.at + clip.length, trimmed.at + trimmed.length];
      return {
        preview: { clips: { [clip.id]: { clip: trimmed, schedule: stretched(trimmed) } } },
        readout: `${time(state, was)} → ${time(state, is)} · lasts ${seconds(state, trimmed.length)}${ripple ? " · closes the gap" : ""}`,
      };
    },
    commit: () => {
      if (trimmed.at === clip.at && trimmed.length === clip.length) return {};
      const [from, to] = [trimmed.at, trimmed.at + trimmed.length];
      return { edit: { edit: "trim-clip", clip: clip.id, from, to, ...(ripple ? { ripple } : {}) } };
    },
  };
}

/** Drags the grip of a fade: its length, until it meets the other one. Works on all selected clips alike. */
export function fadeClip(scene: Scene, state: MixState, clip: Clip, edge: "in" | "out", x: number): Gesture {
  const ids = state.selected.includes(clip.id) ? state.selected : [clip.id];
  const own = (edge === "in" ? clip.fadeIn : clip.fadeOut) ?? { length: 0, shape: "equal-power" as const };
  const other = (edge === "in" ? clip.fadeOut : clip.fadeIn)?.length ?? 0;
  const most = clip.length - other;
  let length = own.length;
  return {
    move(toX, _y, modifiers) {
      const by = (toX - x) * scene.view.perPx * (edge === "in" ? 1 : -1) * (modifiers.fine ? 0.1 : 1);
      length = Math.min(most, Math.max(0, Math.round(own.length + by)));
      const fade: Fade = { length, shape: own.shape };
      const [fadeIn, fadeOut] = clip.fades;
      const fades = edge === "in" ? [fade, fadeOut ?? fade] : [fadeIn ?? fade, fade];
      return {
        preview: { clips: { [clip.id]: { clip: { ...clip, fades } } } },
        readout: `fade ${edge} ${seconds(state, own.length)} → ${seconds(state, length)}`,
      };
    },
    commit: () => (length === own.length ? {} : { edit: { edit: "set-fade", clips: ids, edge, length } }),
  };
}
