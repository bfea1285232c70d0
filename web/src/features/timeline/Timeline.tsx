import {
  type CSSProperties,
  type PointerEvent,
  useCallback,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import type { Edit, WireId } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { formatTimecode } from "@/lib/timecode";
import { usePlayer } from "@/features/player";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { useTheme } from "@/store/theme";
import { wireIn } from "@/store/wires";
import { drawTimeline, readPalette } from "./paint";
import type { Gesture, Shown } from "./gesture";
import { type Drop, dropAt, dropped } from "./drops";
import { CommentMarks } from "@/features/comments";
import { DropGhost } from "./DropGhost";
import { HeldMarks } from "./HeldMarks";
import { startGesture } from "./startGesture";
import { chooseAt, chooseBeside, nextShape } from "./clicks";
import { CLIP_MARGIN, type Layout, NAME_STRIP, sampleAt, type View, xOf } from "./geometry";
import { CURSORS, HINTS, hitTest, isRightOn, type Target } from "./hit";
import { BuriedMarks } from "./BuriedMarks";
import { DuckMarks } from "./DuckMarks";
import { RideTrace } from "./RideTrace";
import { useOutlines } from "./useOutlines";
import { Playhead } from "./Playhead";
import { buildScene, type Preview } from "./scene";
import { Teaching } from "./Teaching";
import { TypeIn, type TypeInRequest } from "./TypeIn";
import { type Pointer, renaming, typeInFor, useTyping } from "./useTyping";
import { clampView } from "./viewport";

export const SOURCE_DRAG = "application/x-wattage-source";

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
export function Timeline({ layout, view, setView, width, viewHeight, scrollTop, onHint, onMenu }: Props) {
  const store = useMixStore();
  const player = usePlayer();
  const canEdit = useCanEdit();
  const state = useMix((s) => s);
  const theme = useTheme();
  const canvas = useRef<HTMLCanvasElement>(null);
  const box = useRef<HTMLDivElement>(null);
  const { outlines, arrived: drawn } = useOutlines();
  const [gesture, setGesture] = useState<{
    gesture: Gesture;
    target: Target;
    shown: Shown | null;
    x: number;
    y: number;
    at: { x: number; y: number };
  } | null>(null);
  const [settling, setSettling] = useState<Preview | null>(null);
  const [typing, setTyping] = useState<TypeInRequest | null>(null);
  const pointer = useRef<Pointer>(null);
  const [cursor, setCursor] = useState("default");
  const [scrubbing, setScrubbing] = useState(false);
  const [ghost, setGhost] = useState<{ drop: Drop; x: number; y: number } | null>(null);

  const preview = gesture?.shown?.preview ?? settling;
  const { clips, tracks, sources, selected, chosen, range, length, rate, frameRate, markers, strip } = state;
  const { adjustable, revision, hiddenWires, solo, playhead, figures, aim, captions, stretch } = state;
  const { duckTry, duckPlan, activeLane, closed } = state;
  const shownPlayhead = state.playing ? -1 : playhead;
  const scene = useMemo(
    () => buildScene(store.getState(), layout, view, width, preview),
    // The scene depends on these parts of the state, and on the playhead only while it stands still.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [
      store,
      layout,
      view,
      width,
      preview,
      clips,
      tracks,
      sources,
      selected,
      chosen,
      range,
      length,
      rate,
      frameRate,
      markers,
      strip,
      adjustable,
      revision,
      hiddenWires,
      solo,
      figures,
      aim,
      captions,
      stretch,
      duckTry,
      duckPlan,
      activeLane,
      closed,
      shownPlayhead,
    ],
  );

  useLayoutEffect(() => {
    const element = canvas.current;
    const ctx = element?.getContext("2d");
    if (!element || !ctx || width === 0) return;
    const ratio = window.devicePixelRatio || 1;
    const frame = requestAnimationFrame(() => {
      if (element.width !== Math.round(width * ratio) || element.height !== Math.round(viewHeight * ratio)) {
        element.width = Math.round(width * ratio);
        element.height = Math.round(viewHeight * ratio);
      }
      const begun = performance.now();
      drawTimeline(ctx, scene, readPalette(document.documentElement), outlines, scrollTop, viewHeight, ratio);
      performance.measure("timeline-draw", { start: begun, end: performance.now() });
    });
    return () => cancelAnimationFrame(frame);
  }, [scene, outlines, scrollTop, viewHeight, width, drawn, theme]);

  // What a drag would make is measured a few times a second, and no longer once it is let go.
  const waiting = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const tryEdit = (edit: Edit | null) => {
    clearTimeout(waiting.current);
    if (edit === null) store.getState().set({ trying: null });
    else waiting.current = setTimeout(() => store.getState().set({ trying: edit }), 90);
  };

  // Others see what is dragged here.
  const dragged = gesture ? heldBy(gesture.target) : null;
  useEffect(() => {
    store.getState().set({ held: dragged });
  }, [store, dragged]);

  const place = useCallback((event: { clientX: number; clientY: number }) => {
    const rect = box.current?.getBoundingClientRect();
    return { x: event.clientX - (rect?.left ?? 0), y: event.clientY - (rect?.top ?? 0) };
  }, []);

  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    if (event.button !== 0 || typing) return;
    const { x, y } = place(event);
    const target = hitTest(scene, x, y);
    if (!target) return;
    if (!event.shiftKey) chooseAt(store.getState(), target);
    event.currentTarget.setPointerCapture(event.pointerId);
    if (target.kind === "playhead") {
      setScrubbing(true);
      return;
    }
    const { ramp } = store.getState().settings;
    const ctrl = event.ctrlKey || event.metaKey;
    const start = { x, y, ctrl, shift: event.shiftKey, ramp };
    const started = startGesture(target, scene, store.getState(), start);
    if (started) setGesture({ gesture: started, target, shown: null, x, y, at: { x, y } });
  };

  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    const { x, y } = place(event);
    pointer.current = { x, y };
    if (scrubbing) {
      void player.scrub(Math.min(Math.max(0, sampleAt(view, x)), store.getState().length));
      return;
    }
    if (!gesture) {
      const target = hitTest(scene, x, y);
      setCursor(target ? CURSORS[target.kind] : "default");
      onHint(target ? HINTS[target.kind] : "");
      return;
    }
    if (!gesture.shown && Math.hypot(x - gesture.x, y - gesture.y) < 3) return;
    const shown = gesture.gesture.move(x, y, {
      axis: event.shiftKey,
      fine: event.ctrlKey || event.metaKey,
      free: event.altKey,
    });
    setGesture({ ...gesture, shown, at: { x, y } });
    tryEdit(gesture.gesture.commit().edit ?? null);
  };

  const onPointerUp = (event: PointerEvent<HTMLDivElement>) => {
    setScrubbing(false);
    tryEdit(null);
    if (!gesture) return;
    const { x } = place(event);
    setGesture(null);
    const now = store.getState();
    if (!gesture.shown) {
      if (event.shiftKey) {
        chooseBeside(now, gesture.target);
        return;
      }
      if (["horizon", "lane", "body", "mute-span"].includes(gesture.target.kind)) {
        if (!now.range?.marked) now.set({ range: null, looping: false });
        now.set({ chosen: [] });
        player.seek(Math.min(sampleAt(view, x), Math.max(now.length, 0)));
        if (gesture.target.kind === "lane") now.select(null);
      }
      if (gesture.target.kind === "marker") player.seek(gesture.target.marker.at);
      return;
    }
    const result = gesture.gesture.commit();
    // What is framed now is the range, and no longer keyframes chosen before.
    if (result.range !== undefined) now.set({ range: result.range, chosen: [] });
    if (!result.edit) {
      if (result.chosen) now.set({ chosen: result.chosen });
      return;
    }
    setSettling(gesture.shown.preview);
    void now.edit(result.edit, { instead: result.instead ?? false }).then((done) => {
      if (done && result.chosen) store.getState().set({ chosen: result.chosen });
      setSettling(null);
    });
  };

  const addKeyframe = (wire: WireId, at: number) => {
    const { ahead = 0 } = wireIn(store.getState(), wire) ?? {};
    const chosen = [{ ...wire, keyframes: [at + ahead] }];
    void store
      .getState()
      .edit({ edit: "add-keyframe", ...wire, at })
      .then((done) => done && store.getState().set({ chosen }));
  };

  const onDoubleClick = (event: { clientX: number; clientY: number }) => {
    const { x, y } = place(event);
    const target = hitTest(scene, x, y);
    if (!canEdit || !target) return;
    if (target.kind === "keyframe" && !isRightOn(scene, target, x, y)) {
      addKeyframe(target.wire, sampleAt(view, x));
    } else if (target.kind === "keyframe") {
      const chosen = [{ ...target.wire, keyframes: [target.keyframe.at] }];
      void store.getState().edit({ edit: "remove-keyframes", chosen });
    } else if (target.kind === "wire" || target.kind === "dip") {
      addKeyframe(target.wire, sampleAt(view, x));
    } else if (target.kind === "pan-point") {
      void store
        .getState()
        .edit({ edit: "remove-pan-points", track: target.lane.track.id, points: [target.at] });
    } else if (target.kind === "pan-line" || target.kind === "pan-range") {
      void store
        .getState()
        .edit({ edit: "set-pan-point", track: target.lane.track.id, at: sampleAt(view, x) });
    } else if (target.kind === "mute-span") {
      const { from, to } = target;
      const until = Math.min(to, Math.max(store.getState().length, from + 1));
      void store
        .getState()
        .edit({ edit: "set-mute-range", track: target.lane.track.id, from, to: until, muted: false });
    } else if (target.kind === "fade" || target.kind === "cross") {
      nextShape(store.getState(), target);
    } else if (target.kind === "marker") {
      setTyping(renaming(store.getState(), target.marker, x, y));
    }
  };

  useTyping(pointer, scene, setTyping);

  const onContextMenu = (event: React.MouseEvent) => {
    event.preventDefault();
    if (typing) return;
    // The menu key brings no point of its own: then it is for the clip that has the focus.
    const { x, y } = place(event);
    const target = hitTest(scene, x, y);
    if (!target) return;
    chooseAt(store.getState(), target);
    const request = typeInFor({ target, x, y }, store.getState(), "");
    onMenu({
      target,
      at: Math.max(0, sampleAt(view, x)),
      point: { x: event.clientX, y: event.clientY },
      type: request && ((text) => setTyping({ ...request, text })),
      rename:
        target.kind === "marker" ? () => setTyping(renaming(store.getState(), target.marker, x, y)) : null,
    });
  };

  // Escape gives up a drag before it means anything else.
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== "Escape" || !gesture) return;
      setGesture(null);
      clearTimeout(waiting.current);
      store.getState().set({ trying: null });
      event.stopPropagation();
    };
    window.addEventListener("keydown", onKey, true);
    return () => window.removeEventListener("keydown", onKey, true);
  }, [gesture, store]);

  // Wheel: along the time; with Ctrl, zoom where the pointer is; up and down is left to the page where it scrolls.
  useEffect(() => {
    const element = box.current;
    const onWheel = (event: WheelEvent) => {
      const { x } = place(event);
      if (event.ctrlKey || event.metaKey) {
        event.preventDefault();
        setView((v) => clampView(zoomed(v, Math.exp(event.deltaY * 0.002), x), width, store.getState()));
      } else if (
        event.shiftKey ||
        Math.abs(event.deltaX) > Math.abs(event.deltaY) ||
        layout.height <= viewHeight
      ) {
        event.preventDefault();
        const by = Math.abs(event.deltaX) > Math.abs(event.deltaY) ? event.deltaX : event.deltaY;
        setView((v) => clampView({ ...v, start: v.start + by * v.perPx }, width, store.getState()));
      }
    };
    element?.addEventListener("wheel", onWheel, { passive: false });
    return () => element?.removeEventListener("wheel", onWheel);
  }, [place, setView, width, store, layout.height, viewHeight]);

  const dropUnder = (event: React.DragEvent) => {
    const { x, y } = place(event);
    return { x, y, drop: dropAt({ state: store.getState(), layout, view }, x, y, event.altKey) };
  };

  const onDrop = (event: React.DragEvent) => {
    const source = event.dataTransfer.getData(SOURCE_DRAG);
    if (!source) return;
    event.preventDefault();
    event.stopPropagation();
    setGhost(null);
    const { drop } = dropUnder(event);
    const { carried, set, edit } = store.getState();
    if (drop.kind === "refused") {
      set({ notice: { kind: "error", text: drop.why } });
      return;
    }
    const done = dropped(drop, carried?.source === source ? carried : { source, name: "New" });
    void edit(done.edit).then((ok) => {
      if (!ok) return;
      store.getState().set({ placed: done.clip });
      store.getState().select(done.clip);
    });
  };

  return (
    <div
      ref={box}
      data-testid="timeline"
      data-view={`${view.start} ${view.perPx} ${rate}`}
      className="relative touch-none select-none"
      style={{ width, height: layout.height, cursor: gesture?.target.kind === "name" ? "grabbing" : cursor }}
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      onPointerCancel={() => {
        setGesture(null);
        setScrubbing(false);
      }}
      onPointerLeave={() => {
        pointer.current = null;
        onHint("");
      }}
      onDoubleClick={onDoubleClick}
      onContextMenu={onContextMenu}
      onDragOver={(event) => {
        if (!event.dataTransfer.types.includes(SOURCE_DRAG)) return;
        event.preventDefault();
        setGhost(dropUnder(event));
      }}
      onDragLeave={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget as Node | null)) setGhost(null);
      }}
      onDrop={onDrop}
    >
      <canvas ref={canvas} aria-hidden className="sticky top-0 block" style={{ width, height: viewHeight }} />
      {scene.clips.map(({ clip, lane }) => (
        <button
          key={clip.id}
          type="button"
          className="pointer-events-none absolute overflow-hidden rounded-sm text-transparent"
          style={{
            left: Math.max(0, xOf(view, clip.at)),
            width: Math.max(
              6,
              Math.min(width, xOf(view, clip.at + clip.length)) - Math.max(0, xOf(view, clip.at)),
            ),
            top: lane.rises ? lane.top + CLIP_MARGIN : lane.top + lane.height - CLIP_MARGIN - NAME_STRIP,
            height: NAME_STRIP,
          }}
          aria-pressed={selected.includes(clip.id)}
          onFocus={() => {
            if (selected.includes(clip.id)) return;
            // Who goes past it by keys has not asked for its levels.
            store.getState().set({ placed: clip.id });
            store.getState().select(clip.id);
          }}
          aria-label={`Clip ${clip.name} on ${lane.track.name}, ${formatTimecode(clip.at, rate, frameRate)} to ${formatTimecode(clip.at + clip.length, rate, frameRate)}, gain ${formatDb(clip.gain)} dB`}
        />
      ))}
      <RideTrace layout={layout} view={view} width={width} height={viewHeight} scrollTop={scrollTop} />
      {layout.beneath > 0 && <BuriedMarks layout={layout} view={view} width={width} />}
      <DuckMarks layout={layout} view={view} width={width} />
      <HeldMarks layout={layout} view={view} width={width} />
      {layout.beneath > 0 && (
        <CommentMarks
          x={(sample) => xOf(view, sample)}
          width={width}
          top={layout.horizon.top + layout.horizon.height - 23}
        />
      )}
      {Object.keys(clips).length === 0 && layout.beneath > 0 && <Teaching layout={layout} />}
      <Playhead
        view={view}
        width={width}
        height={layout.height}
        horizonTop={layout.horizon.top}
        setView={setView}
      />
      {gesture?.shown?.readout && (
        <div
          role="status"
          className="figure pointer-events-none absolute z-20 rounded-md bg-ink px-2 py-1 text-[12px] whitespace-nowrap text-paper shadow-lg"
          style={readoutPlace(gesture.at, width)}
        >
          {gesture.shown.readout}
          <PeakAfter />
        </div>
      )}
      {ghost && <DropGhost {...ghost} view={view} width={width} />}
      {typing && <TypeIn request={typing} close={() => setTyping(null)} />}
    </div>
  );
}

/** Beside the pointer, the peak that the drag leads to. */
function PeakAfter() {
  const peak = useMix((s) => (s.trying ? s.triedPeak : null));
  if (peak === null) return null;
  return (
    <span
      className={peak > 0 ? "font-semibold" : "opacity-80"}
    >{` · peak ${formatDb(peak)}${peak > 0 ? " over" : ""}`}</span>
  );
}

/** What a drag of a target holds, as others are told. */
function heldBy(target: Target): string | null {
  if ("clip" in target) return `clip:${target.clip.id}`;
  if (!("wire" in target)) return null;
  return "clip" in target.wire ? `clip:${target.wire.clip}` : `fader:${target.wire.track}`;
}

function zoomed(view: View, factor: number, x: number): View {
  const perPx = view.perPx * factor;
  return { perPx, start: view.start + x * (view.perPx - perPx) };
}

/** Beside the pointer and above it, on the side where there is room. */
function readoutPlace({ x, y }: { x: number; y: number }, width: number): CSSProperties {
  const top = Math.max(2, y - 34);
  return x > width / 2 ? { right: width - x + 14, top } : { left: x + 14, top };
}
