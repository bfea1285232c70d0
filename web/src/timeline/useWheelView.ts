import { type RefObject, useEffect } from "react";
import { clampHeight, laneAt, type Layout, type View } from "@/scene/geometry";
import { clampView } from "@/scene/viewport";
import { useMixStore } from "@/store/context";
import { placeIn } from "./pointer";

/** Wheel: along the time; with Ctrl, zoom where the pointer is; with Alt, the height of a lane, with Shift as well that of all; up and down is left to the page where it scrolls. */
export function useWheelView(
  box: RefObject<HTMLElement | null>,
  layout: Layout,
  size: { width: number; height: number },
  setView: (change: (view: View) => View) => void,
): void {
  const store = useMixStore();
  const { width, height } = size;
  useEffect(() => {
    const element = box.current;
    const onWheel = (event: WheelEvent) => {
      const { x, y } = placeIn(element, event);
      if (event.altKey) {
        event.preventDefault();
        const under = laneAt(layout, y);
        const lanes = event.shiftKey ? layout.lanes : under ? [under] : [];
        const factor = Math.exp(-(event.deltaY || event.deltaX) * 0.002);
        const taller = lanes.map(({ track, height: now }) => [track.id, clampHeight(now * factor)] as const);
        const { heights, set } = store.getState();
        set({ heights: { ...heights, ...Object.fromEntries(taller) } });
      } else if (event.ctrlKey || event.metaKey) {
        event.preventDefault();
        setView((v) => clampView(zoomed(v, Math.exp(event.deltaY * 0.002), x), width, store.getState()));
      } else if (
        event.shiftKey ||
        Math.abs(event.deltaX) > Math.abs(event.deltaY) ||
        layout.height <= height
      ) {
        event.preventDefault();
        const by = Math.abs(event.deltaX) > Math.abs(event.deltaY) ? event.deltaX : event.deltaY;
        setView((v) => clampView({ ...v, start: v.start + by * v.perPx }, width, store.getState()));
      }
    };
    element?.addEventListener("wheel", onWheel, { passive: false });
    return () => element?.removeEventListener("wheel", onWheel);
  }, [box, setView, width, store, layout, height]);
}

function zoomed(view: View, factor: number, x: number): View {
  const perPx = view.perPx * factor;
  return { perPx, start: view.start + x * (view.perPx - perPx) };
}
