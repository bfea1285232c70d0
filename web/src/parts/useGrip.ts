import { useRef } from "react";

/**
 * What a slider tells while a hand is on it, and when it lets go. The slider of the library says nothing at the end where the
 * value is what it was at the start; then the loss of the pointer says it.
 */
export function useGrip(onMove: (value: number, held: boolean) => void) {
  const held = useRef<number | null>(null);
  const end = (value: number) => {
    held.current = null;
    onMove(value, false);
  };
  return {
    onValueChange: ([value]: number[]) => {
      if (value === undefined) return;
      held.current = value;
      onMove(value, true);
    },
    onValueCommit: ([value]: number[]) => value !== undefined && end(value),
    onLostPointerCapture: () => held.current !== null && end(held.current),
  };
}
