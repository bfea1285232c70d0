/** A canvas ready to be drawn on in CSS px at the pixels of the device; null where there is nothing to draw on. */
export function crisp(
  canvas: HTMLCanvasElement | null,
  width: number,
  height: number,
): { ctx: CanvasRenderingContext2D; ratio: number } | null {
  const ctx = canvas?.getContext("2d");
  if (!canvas || !ctx) return null;
  const ratio = window.devicePixelRatio || 1;
  canvas.width = width * ratio;
  canvas.height = height * ratio;
  ctx.scale(ratio, ratio);
  return { ctx, ratio };
}
