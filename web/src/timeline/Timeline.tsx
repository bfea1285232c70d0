import { type MouseEvent, type ReactNode, useRef, useState } from "react";
import type { Marker } from "@/api/schema";
import { type Layout, sampleAt, type View } from "@/scene/geometry";
import { hitTest, type Target } from "@/scene/hit";
import { fitAll } from "@/scene/viewport";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { BuriedMarks } from "./BuriedMarks";
import { chooseAt } from "./clicks";
import { ClipButtons } from "./ClipButtons";
import { doubleClick } from "./doubleClick";
import { DropGhost } from "./DropGhost";
import { DuckMarks } from "./DuckMarks";
import { HeldMarks } from "./HeldMarks";
import { Playhead } from "./Playhead";
import { placeIn } from "./pointer";
import { Readout } from "./Readout";
import { RideTrace } from "./RideTrace";
import { Teaching } from "./Teaching";
import { TypeIn, type TypeInRequest } from "./TypeIn";
import { useDropping } from "./useDropping";
import { useDragging, useGestures } from "./useGestures";
import { usePainting } from "./usePainting";
import { useScene } from "./useScene";
import { renaming, typeInFor, useTyping } from "./useTyping";
import { useWheelView } from "./useWheelView";

interface Props {
  layout: Layout;
  view: View;
  setView: (change: (view: View) => View) => void;
  width: number;
  viewHeight: number;
  scrollTop: number;
  onHint: (hint: string) => void;
  /** A menu is asked for, by the right button or the menu key: for a target, at a moment, at a point of the page. */
  onMenu: (asked: MenuAsked) => void;
  /** What others lay along the horizon. */
  children?: ReactNode;
}

export interface MenuAsked {
  target: Target;
  at: number;
  point: { x: number; y: number };
  /** Opens the field for a number, as typing over the target does; null where there is none. */
  type: ((text: string) => void) | null;
  /** The same for the name of a marker. */
  rename: (() => void) | null;
}

/** The lanes with their clips: a painted canvas, and over it a button for each clip so that keyboards reach them. */
export function Timeline(props: Props) {
  const { layout, view, setView, width, viewHeight, scrollTop, onHint, onMenu, children } = props;
  const store = useMixStore();
  const canEdit = useCanEdit();
  const rate = useMix((s) => s.rate);
  const empty = useMix((s) => Object.keys(s.clips).length === 0);
  const canvas = useRef<HTMLCanvasElement>(null);
  const box = useRef<HTMLDivElement>(null);
  const [typing, setTyping] = useState<TypeInRequest | null>(null);
  const dragging = useDragging();
  const scene = useScene(layout, view, width, dragging.preview);
  usePainting(canvas, scene, scrollTop, viewHeight);
  const { handlers, pointer, cursor } = useGestures(box, scene, dragging, { busy: typing !== null, onHint });
  const dropping = useDropping(box, layout, view);
  useWheelView(box, layout, { width, height: viewHeight }, setView);
  useTyping(pointer, scene, setTyping);

  const under = (event: MouseEvent) => {
    const point = placeIn(box.current, event);
    const rename = (marker: Marker) => setTyping(renaming(store.getState(), marker, point.x, point.y));
    return { point, target: hitTest(scene, point.x, point.y), at: sampleAt(view, point.x), rename };
  };
  const onDoubleClick = (event: MouseEvent) => {
    const { target, point, at, rename } = under(event);
    // The first of the two has brought the playhead there.
    if (target?.kind === "horizon" || target?.kind === "playhead")
      setView(() => fitAll(width, store.getState()));
    else if (canEdit && target) doubleClick(store, scene, { target, point, at }, rename);
  };
  const onContextMenu = (event: MouseEvent) => {
    event.preventDefault();
    if (typing) return;
    // The menu key brings no point of its own: then it is for the clip that has the focus.
    const { target, point, at, rename } = under(event);
    if (!target) return;
    chooseAt(store.getState(), target);
    const request = typeInFor({ target, ...point }, store.getState(), "");
    onMenu({
      target,
      at: Math.max(0, at),
      point: { x: event.clientX, y: event.clientY },
      type: request && ((text) => setTyping({ ...request, text })),
      rename: target.kind === "marker" ? () => rename(target.marker) : null,
    });
  };

  const drag = dragging.drag;
  const whole = layout.beneath > 0;
  return (
    <div
      ref={box}
      data-testid="timeline"
      data-view={`${view.start} ${view.perPx} ${rate}`}
      className="relative touch-none select-none"
      style={{ width, height: layout.height, cursor }}
      {...handlers}
      {...dropping.handlers}
      onDoubleClick={onDoubleClick}
      onContextMenu={onContextMenu}
    >
      <canvas ref={canvas} aria-hidden className="sticky top-0 block" style={{ width, height: viewHeight }} />
      <ClipButtons scene={scene} />
      <RideTrace layout={layout} view={view} width={width} height={viewHeight} scrollTop={scrollTop} />
      {whole && <BuriedMarks layout={layout} view={view} width={width} />}
      <DuckMarks layout={layout} view={view} width={width} />
      <HeldMarks layout={layout} view={view} width={width} />
      {children}
      {empty && whole && <Teaching layout={layout} />}
      <Playhead
        view={view}
        width={width}
        height={layout.height}
        horizonTop={layout.horizon.top}
        setView={setView}
      />
      {drag?.shown?.readout && <Readout text={drag.shown.readout} at={drag.at} width={width} />}
      {dropping.ghost && <DropGhost {...dropping.ghost} view={view} width={width} />}
      {typing && <TypeIn request={typing} close={() => setTyping(null)} />}
    </div>
  );
}
