import type { Edit } from "@/api/types";
import { formatDb } from "@/lib/format";
import type { MixState, Range } from "@/store/mixStore";
import { dragDb } from "./geometry";
import { type Gesture, Travel } from "./gesture";
import type { Target } from "./hit";
import { roughDip } from "./scene";
import type { Start } from "./startGesture";

/** A range of the lane that is edited, lowered or lifted; as a dip of a clip is, but it stays on the timeline. */
export function dipLane(
  state: MixState,
  range: Range,
  { lane, db }: Extract<Target, { kind: "dip" }>,
  start: Start,
): Gesture {
  const travel = new Travel(start.y);
  const track = lane.track.id;
  const active = state.activeLane[track] ?? "level";
  const floor = Math.max(db, -60);
  let by = 0;
  return {
    move(_x, toY, { fine }) {
      const to = Math.max(-96 + floor, dragDb(lane, floor, travel.to(toY, fine)));
      by = Math.round((to - floor) * (fine ? 100 : 10)) / (fine ? 100 : 10);
      return {
        preview: { clips: {}, lanes: { [track]: roughDip(range.from, range.to, start.ramp, by) } },
        readout: `${by < 0 ? "Dip" : "Lift"} the ${active} lane by ${formatDb(by)} dB`,
      };
    },
    commit: () => {
      if (by === 0) return {};
      const { from, to } = range;
      const edit: Edit = {
        edit: "dip-range",
        track,
        lane: active,
        from,
        to,
        by,
        ramp: start.ramp,
        inside: start.inside,
      };
      return { edit };
    },
  };
}
