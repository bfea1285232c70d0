import { type RefObject, useMemo, useState } from "react";
import { CommentMarks } from "@/features/markers";
import { Heads } from "@/features/heads";
import { layOut, type View, xOf } from "@/scene/geometry";
import { useMix } from "@/store/context";
import { type MenuAsked, Timeline } from "@/timeline";
import { HEADS_WIDTH } from "./useLanesSize";

interface Props {
  scroller: RefObject<HTMLDivElement | null>;
  size: { width: number; height: number };
  view: View;
  setView: (change: (view: View) => View) => void;
  /** Whether another view stands in their place. */
  hidden: boolean;
  onHint: (hint: string) => void;
  onMenu: (asked: MenuAsked) => void;
}

/** The lanes around the horizon, with their heads. */
export function Lanes({ scroller, size, view, setView, hidden, onHint, onMenu }: Props) {
  const tracks = useMix((s) => s.tracks);
  const heights = useMix((s) => s.heights);
  const [scrollTop, setScrollTop] = useState(0);
  const film = useMix((s) => s.strip.length > 0);
  const layout = useMemo(
    () => layOut(tracks, size.height, heights, film),
    [tracks, size.height, heights, film],
  );
  return (
    <div
      ref={scroller}
      id="lanes"
      data-area="lanes"
      className={`min-h-0 overflow-x-hidden overflow-y-auto ${hidden ? "hidden" : ""}`}
      onScroll={(event) => setScrollTop(event.currentTarget.scrollTop)}
    >
      {!hidden && (
        <div className="flex" style={{ height: layout.height }}>
          <Heads layout={layout} width={HEADS_WIDTH} />
          <Timeline
            layout={layout}
            view={view}
            setView={setView}
            width={size.width}
            viewHeight={size.height}
            scrollTop={scrollTop}
            onHint={onHint}
            onMenu={onMenu}
          >
            <CommentMarks
              x={(sample) => xOf(view, sample)}
              width={size.width}
              top={layout.horizon.top + layout.horizon.height - 23}
            />
          </Timeline>
        </div>
      )}
    </div>
  );
}
