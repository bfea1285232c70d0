import { type KeyboardEvent, useRef } from "react";

/** ms after which a hand on the keys that does not press again has let go. */
export const KEYS_LET_GO = 350;

/**
 * What a slider tells while a hand is on it, and when it lets go. The slider of the library says nothing at the end of a drag
 * that comes back to where it began; then the loss of the pointer says it.
 */
export function useGrip(onMove: (value: number, held: boolean) => void) {
  const held = useRef<number | null>(null);
  const byPointer = useRef(false);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const end = () => {
    clearTimeout(timer.current);
    const value = held.current;
    held.current = null;
    if (value !== null) onMove(value, false);
  };
  return {
    // A fader that was dragged must not fall silent because somebody wants to go to the start.
    onKeyDown: (event: KeyboardEvent) => {
      if (event.key === "Home" || event.key === "End") event.preventDefault();
    },
    onPointerDown: () => {
      byPointer.current = true;
    },
    onValueChange: ([value]: number[]) => {
      if (value === undefined) return;
      held.current = value;
      onMove(value, true);
      clearTimeout(timer.current);
      if (!byPointer.current) timer.current = setTimeout(end, KEYS_LET_GO);
    },
    onLostPointerCapture: () => {
      byPointer.current = false;
      end();
    },
  };
}
