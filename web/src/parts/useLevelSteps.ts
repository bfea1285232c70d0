import { type KeyboardEvent, type RefObject, useRef } from "react";
import { KEYS_LET_GO } from "./useGrip";
import { useWheel } from "./useWheel";

/** @param when performance time of the event; `alone` where the others that are linked are to stay */
export type OnLevel = (db: number, held: boolean, when: number, alone: boolean) => void;

interface Options {
  disabled: boolean;
  /** What each key steps by, dB; with Shift a tenth of it. */
  keys: Partial<Record<string, number>>;
  /** The level that lies so many dB from the present one, within what there is. */
  stepped: (by: number) => number;
  onMove: OnLevel;
}

/** Keys, the wheel (half a dB) and the double click (0 dB) of a control for a level. */
export function useLevelSteps(
  box: RefObject<HTMLElement | null>,
  { disabled, keys, stepped, onMove }: Options,
) {
  const release = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const step = (by: number, when: number, alone: boolean) => {
    const next = stepped(by);
    clearTimeout(release.current);
    onMove(next, true, when, alone);
    // A hand that does not press again has let go.
    release.current = setTimeout(() => onMove(next, false, performance.now(), alone), KEYS_LET_GO);
  };
  useWheel(box, (event) => !disabled && step(event.deltaY < 0 ? 0.5 : -0.5, event.timeStamp, event.altKey));
  return {
    onKeyDown: (event: KeyboardEvent) => {
      const by = keys[event.key];
      if (disabled || by === undefined) return;
      event.preventDefault();
      event.stopPropagation();
      step(by * (event.shiftKey ? 0.1 : 1), event.timeStamp, event.altKey);
    },
    onDoubleClick: (event: { timeStamp: number; altKey: boolean }) => {
      if (disabled) return;
      onMove(0, true, event.timeStamp, event.altKey);
      onMove(0, false, event.timeStamp, event.altKey);
    },
  };
}
