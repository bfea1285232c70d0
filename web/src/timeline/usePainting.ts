import { type RefObject, useLayoutEffect, useMemo, useState } from "react";
import { drawTimeline, paletteOf, SoundTiles } from "@/scene/paint";
import type { Scene } from "@/scene/scene";
import { useSounds } from "@/scene/sounds";
import { useTheme } from "@/store/theme";

/** Paints the scene once a frame at most, at the pixels of the device. */
export function usePainting(
  canvas: RefObject<HTMLCanvasElement | null>,
  scene: Scene,
  scrollTop: number,
  height: number,
): void {
  const theme = useTheme();
  const { sounds, arrived } = useSounds(scene.rate);
  const tiles = useMemo(() => new SoundTiles(), []);
  const [left, setLeft] = useState(0);
  const palette = paletteOf(theme);
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
      const more = drawTimeline({ ctx, palette, sounds, tiles, ratio }, scene, scrollTop, height);
      performance.measure("timeline-draw", { start: begun, end: performance.now() });
      if (more) setLeft((n) => n + 1);
    });
    return () => cancelAnimationFrame(frame);
  }, [canvas, scene, sounds, tiles, scrollTop, height, width, arrived, left, palette]);
}
