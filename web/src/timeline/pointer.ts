/** Where an event of the page is within an element, px. */
export function placeIn(
  element: HTMLElement | null,
  event: { clientX: number; clientY: number },
): { x: number; y: number } {
  const rect = element?.getBoundingClientRect();
  return { x: event.clientX - (rect?.left ?? 0), y: event.clientY - (rect?.top ?? 0) };
}
