import { useState } from "react";
import { Divider } from "@/parts/Divider";
import { HoldsFader } from "@/parts/HoldsFader";
import { MeterColumn } from "@/parts/MeterColumn";
import { type Lane, soundArea } from "@/scene/geometry";
import { inkOf } from "@/scene/scene";
import { scaleMarks } from "@/scene/soundHeight";
import { useMix, useMixStore } from "@/store/context";
import { HeadControls } from "./HeadControls";

/** The head of one lane: name, mute, solo, level and meter; all else is one step away. */
export function Head({ lane, peaks }: { lane: Lane; peaks: [number, number] | undefined }) {
  const [menu, setMenu] = useState<{ x: number; y: number } | null>(null);
  return (
    <div
      className="absolute inset-x-0 flex overflow-hidden border-b border-line pl-3"
      style={{ top: lane.top, height: lane.height }}
      role="group"
      aria-label={`Track ${lane.track.name}`}
      onContextMenu={(event) => {
        event.preventDefault();
        setMenu({ x: event.clientX, y: event.clientY });
      }}
    >
      <span
        aria-hidden
        className="absolute inset-y-0 left-0 w-[4px]"
        style={{ background: `var(--${inkOf(lane.track)})` }}
      />
      <HoldsFader track={lane.track.id} />
      <HeadControls track={lane.track} height={lane.height} menu={menu} onMenuClosed={() => setMenu(null)} />
      <div className="flex gap-px py-[6px]" aria-hidden>
        <MeterColumn db={peaks?.[0] ?? -Infinity} ink={inkOf(lane.track)} />
        <MeterColumn db={peaks?.[1] ?? -Infinity} ink={inkOf(lane.track)} />
      </div>
      <HeightMarks lane={lane} />
      <HeightGrip lane={lane} />
    </div>
  );
}

/** What the heights of the sound beside it mean, dBFS. */
function HeightMarks({ lane }: { lane: Lane }) {
  const scale = useMix((s) => s.heightScale);
  const { top, bottom } = soundArea(lane);
  const room = bottom - top;
  return (
    <div className="figure relative w-[26px] shrink-0 text-mark text-faint" aria-hidden>
      {scaleMarks(scale)
        .filter((_, i) => room > 60 || i % 2 === 0)
        .map(({ db, height }) => (
          <span
            key={db}
            className="absolute right-[5px] leading-none after:absolute after:top-1/2 after:-right-[5px] after:h-px after:w-[3px] after:bg-faint"
            style={{ top: bottom - lane.top - height * room - 5 }}
          >
            {db === 0 ? "0" : `−${-db}`}
          </span>
        ))}
    </div>
  );
}

/** The lower edge of a head makes its lane taller or lower. */
function HeightGrip({ lane }: { lane: Lane }) {
  const store = useMixStore();
  return (
    <Divider
      label={`Height of ${lane.track.name}`}
      className="absolute inset-x-0 bottom-0 z-10 h-[8px]"
      orientation="horizontal"
      value={lane.height}
      min={46}
      max={320}
      onChange={(height) =>
        store.getState().set({ heights: { ...store.getState().heights, [lane.track.id]: height } })
      }
    />
  );
}
