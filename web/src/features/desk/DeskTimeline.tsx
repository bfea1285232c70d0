import { useMemo, useState } from "react";
import { faderAt } from "@/ride";
import { useMoment } from "@/player";
import { inkOf } from "@/scene/scene";
import { layOutShort, type View } from "@/scene/geometry";
import { type MenuAsked, Timeline } from "@/timeline";
import { formatDb } from "@/lib/format";
import { Divider } from "@/parts/Divider";
import { useMix } from "@/store/context";
import { isArmed } from "@/store/screen";
import type { Track } from "@/api/schema";

/** Height of a lane: the faders need the room. */
const LANE = 48;
const ALONE = 68;

interface Props {
  view: View;
  setView: (change: (view: View) => View) => void;
  width: number;
  headsWidth: number;
  onHint: (hint: string) => void;
  onMenu: (asked: MenuAsked) => void;
}

/** Beneath the faders: the clearance, the time, and the lanes of what is ridden, with what is written as it is written. */
export function DeskTimeline({ view, setView, width, headsWidth, onHint, onMenu }: Props) {
  const tracks = useMix((s) => s.tracks);
  const modes = useMix((s) => s.modes);
  const [scrollTop, setScrollTop] = useState(0);
  const [dragged, setDragged] = useState<number | null>(null);
  const layout = useMemo(() => {
    const armed = tracks.filter((t) => isArmed(modes, t.id));
    return layOutShort(armed, armed.length === 1 ? ALONE : LANE);
  }, [tracks, modes]);
  const around = layout.height - layout.lanes.reduce((sum, lane) => sum + lane.height, 0);
  const height = Math.min(layout.height, dragged ?? around + 2 * LANE);
  return (
    <>
      <Divider
        label="Height of the timeline on the Desk"
        className="h-[5px] shrink-0 border-t border-line"
        orientation="horizontal"
        value={height}
        min={around}
        max={layout.height}
        reversed
        onChange={setDragged}
      />
      <div
        className="flex shrink-0 overflow-x-hidden overflow-y-auto"
        style={{ height }}
        role="region"
        aria-label="Timeline of what is ridden"
        onScroll={(event) => setScrollTop(event.currentTarget.scrollTop)}
      >
        <div
          className="relative shrink-0 border-r border-line"
          style={{ width: headsWidth, height: layout.height }}
        >
          <div
            className="absolute inset-x-0 grid content-center bg-sunk/60 px-3"
            style={{ top: layout.clearance.top, height: layout.clearance.height }}
          >
            <span className="font-semibold">Clearance</span>
            <span className="text-[12px] text-faint">speech above the rest</span>
          </div>
          <div
            className="absolute inset-x-0 grid content-center border-y border-t-ink border-b-line bg-sunk px-3"
            style={{ top: layout.horizon.top, height: layout.horizon.height }}
          >
            <span className="text-[12px] text-faint">
              {layout.lanes.length === 0 ? "Arm a track to see its lane" : "time"}
            </span>
          </div>
          {layout.lanes.map((lane) => (
            <div
              key={lane.track.id}
              className="absolute inset-x-0 grid content-center border-b border-line px-3"
              style={{ top: lane.top, height: lane.height }}
            >
              <span
                aria-hidden
                className="absolute inset-y-0 left-0 w-[4px]"
                style={{ background: `var(--${inkOf(lane.track)})` }}
              />
              <span className="truncate font-semibold">{lane.track.name}</span>
              <Reading track={lane.track} />
            </div>
          ))}
        </div>
        <Timeline
          layout={layout}
          view={view}
          setView={setView}
          width={width}
          viewHeight={height}
          scrollTop={scrollTop}
          onHint={onHint}
          onMenu={onMenu}
        />
      </div>
    </>
  );
}

/** Where its fader stands, and whether that is being written. */
function Reading({ track }: { track: Track }) {
  const moment = useMoment();
  const grip = useMix((s) => s.grips[track.id]);
  const writing = useMix((s) => s.writing.includes(track.id));
  const mode = useMix((s) => s.modes[track.id] ?? "read");
  const level = grip ?? faderAt(track, moment);
  return (
    <span className={`figure text-[12px] ${writing ? "font-semibold text-copper-text" : "text-faint"}`}>
      {formatDb(level)} dB · {writing ? "● writing" : mode}
    </span>
  );
}
