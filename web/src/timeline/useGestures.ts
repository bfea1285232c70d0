import { type PointerEvent, type RefObject, useEffect, useEffectEvent, useRef, useState } from "react";
import type { Edit } from "@/api/schema";
import { type Player, usePlayer } from "@/player";
import { sampleAt } from "@/scene/geometry";
import { CURSORS, HINTS, hitTest, type Target } from "@/scene/hit";
import type { Preview } from "@/scene/scene";
import { useMixStore } from "@/store/context";
import type { MixStore } from "@/store/mixStore";
import { chooseAt, chooseBeside } from "./clicks";
import type { Gesture, Outcome, Shown } from "./gesture";
import { placeIn } from "./pointer";
import { startGesture } from "./startGesture";
import type { Scene } from "@/scene/scene";

interface Point {
  x: number;
  y: number;
}

interface Drag {
  gesture: Gesture;
  target: Target;
  shown: Shown | null;
  from: Point;
  at: Point;
}

/** What a drag shows, from its beginning until the server has answered. */
export function useDragging() {
  const [drag, setDrag] = useState<Drag | null>(null);
  const [settling, setSettling] = useState<Preview | null>(null);
  return { drag, setDrag, setSettling, preview: drag?.shown?.preview ?? settling };
}

/** Clicks and drags on the canvas. */
export function useGestures(
  box: RefObject<HTMLElement | null>,
  scene: Scene,
  dragging: ReturnType<typeof useDragging>,
  { busy, onHint }: { busy: boolean; onHint: (hint: string) => void },
) {
  const store = useMixStore();
  const player = usePlayer();
  const { view } = scene;
  const { drag, setDrag, setSettling } = dragging;
  const pointer = useRef<Point>(null);
  const [cursor, setCursor] = useState("default");
  const [scrubbing, setScrubbing] = useState(false);
  const tryEdit = useTried();
  useHeld(drag?.target ?? null);
  useGivingUp(drag !== null, () => {
    setDrag(null);
    store.getState().set({ looking: null });
    tryEdit(null);
  });

  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    if (event.button !== 0 || busy) return;
    const at = placeIn(box.current, event);
    const target = hitTest(scene, at.x, at.y);
    if (!target) return;
    if (!event.shiftKey) chooseAt(store.getState(), target);
    event.currentTarget.setPointerCapture(event.pointerId);
    if (target.kind === "playhead") {
      setScrubbing(true);
      return;
    }
    const { ramp } = store.getState().settings;
    const ctrl = event.ctrlKey || event.metaKey;
    const gesture = startGesture(target, scene, store.getState(), {
      ...at,
      ctrl,
      shift: event.shiftKey,
      ramp,
    });
    if (gesture) setDrag({ gesture, target, shown: null, from: at, at });
  };

  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    const at = placeIn(box.current, event);
    pointer.current = at;
    if (scrubbing) {
      void player.scrub(Math.min(Math.max(0, sampleAt(view, at.x)), store.getState().length));
      return;
    }
    if (!drag) {
      const target = hitTest(scene, at.x, at.y);
      setCursor(target ? CURSORS[target.kind] : "default");
      onHint(target ? HINTS[target.kind] : "");
      return;
    }
    if (!drag.shown && Math.hypot(at.x - drag.from.x, at.y - drag.from.y) < 3) return;
    const shown = drag.gesture.move(at.x, at.y, {
      axis: event.shiftKey,
      fine: event.ctrlKey || event.metaKey,
      free: event.altKey,
    });
    setDrag({ ...drag, shown, at });
    store.getState().set({ looking: Math.max(0, sampleAt(view, at.x)) });
    tryEdit(drag.gesture.commit().edit ?? null);
  };

  const onPointerUp = (event: PointerEvent<HTMLDivElement>) => {
    setScrubbing(false);
    tryEdit(null);
    if (!drag) return;
    setDrag(null);
    store.getState().set({ looking: null });
    if (drag.shown) finish(store, drag.gesture.commit(), setSettling, drag.shown);
    else if (event.shiftKey) chooseBeside(store.getState(), drag.target);
    else clicked(store, player, drag.target, sampleAt(view, placeIn(box.current, event).x));
  };

  const handlers = {
    onPointerDown,
    onPointerMove,
    onPointerUp,
    onPointerCancel: () => {
      setDrag(null);
      store.getState().set({ looking: null });
      setScrubbing(false);
    },
    onPointerLeave: () => {
      pointer.current = null;
      onHint("");
    },
  };
  return { handlers, pointer, cursor: drag?.target.kind === "name" ? "grabbing" : cursor };
}

/** A press without a drag. */
function clicked(store: MixStore, player: Player, target: Target, at: number): void {
  const now = store.getState();
  if (["horizon", "lane", "body", "mute-span"].includes(target.kind)) {
    if (!now.range?.marked) now.set({ range: null, looping: false });
    now.set({ chosen: [] });
    player.seek(Math.min(at, Math.max(now.length, 0)));
    if (target.kind === "lane") now.select(null);
  }
  if (target.kind === "marker") player.seek(target.marker.at);
}

/** What a drag has led to is done, and shown as it was dragged until the server has answered. */
function finish(
  store: MixStore,
  result: Outcome,
  settle: (preview: Preview | null) => void,
  shown: Shown,
): void {
  const now = store.getState();
  // What is framed now is the range, and no longer keyframes chosen before.
  if (result.range !== undefined) now.set({ range: result.range, chosen: [] });
  if (!result.edit) {
    if (result.chosen) now.set({ chosen: result.chosen });
    return;
  }
  settle(shown.preview);
  void now.edit(result.edit, { instead: result.instead ?? false }).then((done) => {
    if (done && result.chosen) store.getState().set({ chosen: result.chosen });
    settle(null);
  });
}

/** What a drag would make is measured a few times a second, and no longer once it is let go. */
function useTried() {
  const store = useMixStore();
  const waiting = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  return (edit: Edit | null) => {
    clearTimeout(waiting.current);
    if (edit === null) store.getState().set({ trying: null });
    else waiting.current = setTimeout(() => store.getState().set({ trying: edit }), 90);
  };
}

/** Others see what is dragged here. */
function useHeld(target: Target | null) {
  const store = useMixStore();
  const held = target && heldBy(target);
  useEffect(() => {
    store.getState().set({ held });
  }, [store, held]);
}

/** Escape gives up a drag before it means anything else. */
function useGivingUp(dragging: boolean, giveUp: () => void) {
  const onEscape = useEffectEvent(giveUp);
  useEffect(() => {
    if (!dragging) return undefined;
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== "Escape") return;
      onEscape();
      event.stopPropagation();
    };
    window.addEventListener("keydown", onKey, true);
    return () => window.removeEventListener("keydown", onKey, true);
  }, [dragging]);
}

/** What a drag of a target holds, as others are told. */
function heldBy(target: Target): string | null {
  if ("clip" in target) return `clip:${target.clip.id}`;
  if (!("wire" in target)) return null;
  return "clip" in target.wire ? `clip:${target.wire.clip}` : `fader:${target.wire.track}`;
}
