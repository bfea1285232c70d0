import { snapTo } from "@/preview/snap";
import type { Clip, Edit, Stem } from "@/api/schema";
import { newId } from "@/lib/ids";
import type { MixState } from "@/store/mixStore";
import { CLIP_MARGIN, type Lane, laneAt, type Layout, sampleAt, type View } from "@/scene/geometry";
import { SNAP_PX, snapTargets, time } from "./gesture";

/** What letting go of a dragged recording would do, so that it is seen before it is done. */
export type Drop =
  | { kind: "place"; lane: Lane; at: number }
  | { kind: "fresh"; stem: Stem; at: number; top: number; height: number }
  | { kind: "replace"; lane: Lane; clip: Clip }
  | { kind: "refused"; why: string };

interface Stage {
  state: MixState;
  layout: Layout;
  view: View;
}

/**
 * On a clip the recording takes its place; elsewhere on a lane it is placed; above or beneath all lanes it gets a track of its own.
 *
 * @param beside whether it is placed though it is over a clip, and without snapping
 */
export function dropAt({ state, layout, view }: Stage, x: number, y: number, beside: boolean): Drop {
  const wanted = Math.max(0, sampleAt(view, x));
  const at = beside ? wanted : snapTo(wanted, snapTargets(state, []), SNAP_PX * view.perPx);
  const lane = laneAt(layout, y);
  if (lane?.track.locked)
    return { kind: "refused", why: `“${lane.track.name}” is locked. Unlock it, or drop elsewhere.` };
  if (lane) {
    const under = Object.values(state.clips).find(
      (c) => c.track === lane.track.id && wanted >= c.at && wanted < c.at + c.length,
    );
    return under && !beside ? { kind: "replace", lane, clip: under } : { kind: "place", lane, at };
  }
  const { clearance, horizon } = layout;
  if (y >= clearance.top && y < horizon.top + horizon.height)
    return { kind: "refused", why: "Drop it above the horizon for speech, beneath it for anything else." };
  const above = y < clearance.top;
  const lowest = layout.lanes.at(-1);
  const top = above
    ? CLIP_MARGIN
    : Math.max(horizon.top + horizon.height, lowest ? lowest.top + lowest.height : 0);
  return { kind: "fresh", stem: above ? "speech" : "music", at, top, height: 64 };
}

/** The edit that a drop is, and the clip it makes. */
export function dropped(
  drop: Exclude<Drop, { kind: "refused" }>,
  carried: { source: string; name: string },
): { edit: Edit; clip: string } {
  const { source, name } = carried;
  if (drop.kind === "replace")
    return { edit: { edit: "replace-sound", clip: drop.clip.id, source }, clip: drop.clip.id };
  const clip = newId("clip");
  const { at } = drop;
  if (drop.kind === "place")
    return { edit: { edit: "add-clip", track: drop.lane.track.id, clip, source, at }, clip };
  const track = { track: newId("track"), stem: drop.stem, name: name.replace(/\.[^.]+$/, "") };
  return { edit: { edit: "add-clip", ...track, clip, source, at }, clip };
}

/** In words, as they stand beside the pointer. */
export function spokenDrop(state: MixState, drop: Drop): string {
  switch (drop.kind) {
    case "refused":
      return drop.why;
    case "replace":
      return `Replace the sound of “${drop.clip.name}” · Alt places it here`;
    case "fresh":
      return `${time(state, drop.at)} · on a new ${drop.stem} track`;
    case "place":
      return `${time(state, drop.at)} · on ${drop.lane.track.name}`;
  }
}
