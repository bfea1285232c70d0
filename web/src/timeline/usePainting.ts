import { type RefObject, useLayoutEffect } from "react";
import { drawTimeline, readPalette } from "@/scene/paint";
import type { Scene } from "@/scene/scene";
import { useOutlines } from "@/scene/useOutlines";
import { useTheme } from "@/store/theme";

/** Paints the scene once a frame at most, at the pixels of the device. */
export function usePainting(
  canvas: RefObject<HTMLCanvasElement | null>,
  scene: Scene,
  scrollTop: number,
  height: number,
): void {
  const theme = useTheme();
  const { outlines, arrived } = useOutlines();
  const { width } = scene;
  useLayoutEffect(() => {
    const element = canvas.current;
    const ctx = element?.getContext("2d");
    if (!element || !ctx || width === 0) return;
    const ratio = window.devicePixelRatio || 1;
    const frame = requestAnimationFrame(() => {
      if (element.width !== Math.round(width * ratio) || element.height !== Math.round(height * ratio)) {
        element.width = Math.round(width * ratio);
        element.height = Math.round(height * ratio);
      }
      const begun = performance.now();
      drawTimeline(ctx, scene, readPalette(document.documentElement), outlines, scrollTop, height, ratio);
      performance.measure("timeline-draw", { start: begun, end: performance.now() });
    });
    return () => cancelAnimationFrame(frame);
  }, [canvas, scene, outlines, scrollTop, height, width, arrived, theme]);
}
