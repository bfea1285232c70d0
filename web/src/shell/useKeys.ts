import { useEffect } from "react";
import { usePlayer } from "@/player";
import type { View } from "@/scene/geometry";
import { useMixStore } from "@/store/context";
import type { Desk, Sheet } from "@/commands";
import { combinationOf, commandFor } from "@/commands/keymap";

interface Options {
  width: number;
  setView: (change: (view: View) => View) => void;
  show: (sheet: Sheet) => void;
}

const OWN_KEYS = "input, textarea, select, [role=dialog], [role=menu], [role=alertdialog], [role=radiogroup]";

/** After a click with the mouse, Space plays and stops again; who goes by keyboard keeps the focus and presses buttons with it. */
function handBackSpace(event: MouseEvent): void {
  const focused = document.activeElement;
  const byMouse = event.detail > 0;
  if (byMouse && focused instanceof HTMLElement && focused.matches("button, a") && !focused.closest(OWN_KEYS))
    focused.blur();
}

/** Runs the command of a pressed key, unless what has the focus needs that key itself. */
export function useKeys({ width, setView, show }: Options): void {
  const store = useMixStore();
  const player = usePlayer();
  useEffect(() => {
    const desk: Desk = { store, player, width, setView, show };
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (event.defaultPrevented || target.closest(OWN_KEYS)) return;
      if (target.closest("[role=slider], [role=tab]") && event.key.startsWith("Arrow")) return;
      if (
        (event.key === " " || event.key === "Enter") &&
        target.closest("button, a") &&
        !target.closest("[data-testid=timeline]")
      )
        return;
      // Escape gives the keys back to the timeline, from a button as from a field.
      if (event.key === "Escape" && target.closest("button, a")) target.blur();
      const combination = combinationOf(event);
      const command = combination ? commandFor(combination) : undefined;
      if (!command) return;
      event.preventDefault();
      command.run(desk, store.getState());
    };
    // From a part of the screen to the next one also out of a field, which keeps all other keys to itself.
    const onArea = (event: KeyboardEvent) => {
      const combination = combinationOf(event);
      const command = combination ? commandFor(combination) : undefined;
      if (command?.id !== "next-area" && command?.id !== "area-before") return;
      event.preventDefault();
      event.stopPropagation();
      command.run(desk, store.getState());
    };
    window.addEventListener("keydown", onArea, true);
    window.addEventListener("keydown", onKey);
    window.addEventListener("click", handBackSpace);
    return () => {
      window.removeEventListener("keydown", onArea, true);
      window.removeEventListener("keydown", onKey);
      window.removeEventListener("click", handBackSpace);
    };
  }, [store, player, setView, width, show]);
}
