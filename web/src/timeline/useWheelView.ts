import { type RefObject, useEffect } from "react";
import type { Layout, View } from "@/scene/geometry";
import { clampView } from "@/scene/viewport";
import { useMixStore } from "@/store/context";
import { placeIn } from "./pointer";

/** Wheel: along the time; with Ctrl, zoom where the pointer is; up and down is left to the page where it scrolls. */
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
      const { x } = placeIn(element, event);
      if (event.ctrlKey || event.metaKey) {
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
  }, [box, setView, width, store, layout.height, height]);
}

function zoomed(view: View, factor: number, x: number): View {
  const perPx = view.perPx * factor;
  return { perPx, start: view.start + x * (view.perPx - perPx) };
}
