import { useMemo, useRef, useState } from "react";
import type { Track } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { useSize } from "@/parts/useSize";
import { useMoment } from "@/player";
import { faderAt } from "@/ride";
import { type Layout, layOut, layOutShort, type View } from "@/scene/geometry";
import { inkOf } from "@/scene/scene";
import { useMix } from "@/store/context";
import { isAnyArmed, isArmed } from "@/store/screen";
import { type MenuAsked, Timeline } from "@/timeline";

/** Width of the names beside the lanes, px. */
const HEADS = 132;

/** Height of a lane that is not ridden, px. */
const OTHER = 46;

/** Px that the clearance, the time, and what is around the lanes take. */
const AROUND = 230;

interface Props {
  view: View;
  setView: (change: (view: View) => View) => void;
  /** Width of the lanes in Balance, which the view is for. */
  width: number;
  headsWidth: number;
  onHint: (hint: string) => void;
  onMenu: (asked: MenuAsked) => void;
}

/**
 * The time beside the faders. While something is ridden its lane has most of the height, and what is written is drawn there as it is written;
 * otherwise only the clearance and the time stand beneath them.
 */
export function DeskTimeline(props: Props) {
  const riding = useMix(isAnyArmed);
  return riding ? <Beside {...props} /> : <Beneath {...props} />;
}

function Beside({ view, setView, onHint, onMenu }: Props) {
  const tracks = useMix((s) => s.tracks);
  const modes = useMix((s) => s.modes);
  const box = useRef<HTMLDivElement>(null);
  const size = useSize(box);
  const [scrollTop, setScrollTop] = useState(0);
  const layout = useMemo(() => {
    const armed = tracks.filter((track) => isArmed(modes, track.id));
    const least = armed.length > 2 ? OTHER : Math.max(120, size.height / 3);
    const left = size.height - AROUND - OTHER * (tracks.length - armed.length);
    const tall = Math.round(Math.max(least, left / armed.length));
    const heights = tracks.map((track) => [track.id, armed.includes(track) ? tall : OTHER] as const);
    return layOut(tracks, size.height, Object.fromEntries(heights));
  }, [tracks, modes, size.height]);
  const width = Math.max(0, size.width - HEADS);
  return (
    <div
      ref={box}
      className="flex min-h-0 min-w-0 flex-1 overflow-x-hidden overflow-y-auto border-l border-line"
      role="region"
      aria-label="Timeline of what is ridden"
      onScroll={(event) => setScrollTop(event.currentTarget.scrollTop)}
    >
      <Names layout={layout} width={HEADS} />
      {width > 0 && (
        <Timeline
          layout={layout}
          view={view}
          setView={setView}
          width={width}
          viewHeight={size.height}
          scrollTop={scrollTop}
          onHint={onHint}
          onMenu={onMenu}
        />
      )}
    </div>
  );
}

function Beneath({ view, setView, width, headsWidth, onHint, onMenu }: Props) {
  const layout = useMemo(() => layOutShort([], 0), []);
  return (
    <div className="flex shrink-0 border-t border-line" role="region" aria-label="Timeline of what is ridden">
      <Names layout={layout} width={headsWidth} />
      <Timeline
        layout={layout}
        view={view}
        setView={setView}
        width={width}
        viewHeight={layout.height}
        scrollTop={0}
        onHint={onHint}
        onMenu={onMenu}
      />
    </div>
  );
}

function Names({ layout, width }: { layout: Layout; width: number }) {
  return (
    <div className="relative shrink-0 border-r border-line" style={{ width, height: layout.height }}>
      <div
        className="absolute inset-x-0 grid content-center bg-sunk/60 px-3"
        style={{ top: layout.clearance.top, height: layout.clearance.height }}
      >
        <span className="font-semibold">Clearance</span>
        <span className="truncate text-aside text-faint">speech over the rest</span>
      </div>
      <div
        className="absolute inset-x-0 grid content-center border-y border-t-ink border-b-line bg-sunk px-3"
        style={{ top: layout.horizon.top, height: layout.horizon.height }}
      >
        <span className="text-aside text-faint">
          {layout.lanes.length === 0 ? "Arm a track to see its lane" : "time"}
        </span>
      </div>
      {layout.lanes.map((lane) => (
        <div
          key={lane.track.id}
          className="absolute inset-x-0 grid content-center overflow-hidden border-b border-line px-3"
          style={{ top: lane.top, height: lane.height }}
        >
          <span
            aria-hidden
            className="absolute inset-y-0 left-0 w-[4px]"
            style={{ background: `var(--${inkOf(lane.track)})` }}
          />
          <span className="truncate font-semibold" title={lane.track.name}>
            {lane.track.name}
          </span>
          <Reading track={lane.track} />
        </div>
      ))}
    </div>
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
    <span
      className={`figure truncate text-note ${writing ? "font-semibold text-copper-text" : "text-faint"}`}
    >
      {formatDb(level)} dB · {writing ? "● writing" : mode}
    </span>
  );
}
