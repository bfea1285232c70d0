import { type RefObject, useEffect, useRef } from "react";

/** Calls back for the wheel over an element that has the focus; without it the wheel scrolls what is around it, and moves nothing by accident. */
export function useWheel(element: RefObject<HTMLElement | null>, onWheel: (event: WheelEvent) => void): void {
  const latest = useRef(onWheel);
  useEffect(() => {
    latest.current = onWheel;
  });
  useEffect(() => {
    const node = element.current;
    const listen = (event: WheelEvent) => {
      if (event.ctrlKey || event.metaKey || document.activeElement !== node) return;
      event.preventDefault();
      event.stopPropagation();
      latest.current(event);
    };
    node?.addEventListener("wheel", listen, { passive: false });
    return () => node?.removeEventListener("wheel", listen);
  }, [element]);
}
