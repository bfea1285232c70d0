import type { View } from "./geometry";

/** The finest zoom has 20 px for a sample, the coarsest shows a bit more than the whole programme. */
const FINEST = 0.05;

export function clampView(view: View, width: number, mix: { length: number; rate: number }): View {
  const whole = Math.max(mix.length, 30 * mix.rate);
  const perPx = Math.min(Math.max(view.perPx, FINEST), (whole * 1.15) / Math.max(1, width));
  const last = Math.max(0, whole * 1.1 - perPx * width);
  return { perPx, start: Math.round(Math.min(Math.max(0, view.start), last)) };
}

/** The whole programme in view. */
export function fitAll(width: number, mix: { length: number; rate: number }): View {
  return clampView({ start: 0, perPx: Infinity }, width, mix);
}

export function fitSpan(
  from: number,
  to: number,
  width: number,
  mix: { length: number; rate: number },
): View {
  const margin = (to - from) * 0.08;
  return clampView(
    { start: from - margin, perPx: (to - from + 2 * margin) / Math.max(1, width) },
    width,
    mix,
  );
}

/** Zooms about the middle. */
export function zoomBy(
  view: View,
  factor: number,
  width: number,
  mix: { length: number; rate: number },
  about?: number,
): View {
  const centre =
    about !== undefined && about >= view.start && about <= view.start + width * view.perPx
      ? about
      : view.start + (width * view.perPx) / 2;
  const perPx = view.perPx * factor;
  return clampView({ perPx, start: centre - ((centre - view.start) / view.perPx) * perPx }, width, mix);
}
