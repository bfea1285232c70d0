import { type RefObject, useLayoutEffect, useState } from "react";

/** The width of an element as it is now, CSS px. */
export function useWidth(element: RefObject<HTMLElement | null>): number {
  return useSize(element).width;
}

/** The inner size of an element as it is now, CSS px. */
export function useSize(element: RefObject<HTMLElement | null>): { width: number; height: number } {
  const [size, setSize] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const { current } = element;
    if (!current) return undefined;
    const measure = () => setSize({ width: current.clientWidth, height: current.clientHeight });
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(current);
    return () => observer.disconnect();
  }, [element]);
  return size;
}
