import { type RefObject, useLayoutEffect, useState } from "react";

/** Beside the lanes stand their heads, px. */
export const HEADS_WIDTH = 208;

/** The size of the lanes that are seen, px, without their heads; as long as another view stands in their place, that of the room there is. */
export function useLanesSize(scroller: RefObject<HTMLElement | null>, panelWidth: number) {
  const [size, setSize] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const element = scroller.current;
    if (!element) return;
    const measure = () => {
      const room = element.parentElement;
      const width = element.clientWidth || (room?.clientWidth ?? 0) - panelWidth;
      const height = element.clientHeight || (room?.clientHeight ?? 0);
      if (width > HEADS_WIDTH) setSize({ width: width - HEADS_WIDTH, height });
    };
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    if (element.parentElement) observer.observe(element.parentElement);
    return () => observer.disconnect();
  }, [scroller, panelWidth]);
  return size;
}
