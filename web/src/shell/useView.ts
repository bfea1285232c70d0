import { useCallback, useEffect, useRef, useState } from "react";
import type { View } from "@/scene/geometry";
import { clampView, fitAll } from "@/scene/viewport";
import { useMixStore } from "@/store/context";
import { useKeptPlace } from "./useKeptPlace";

/** What part of the time is seen. The first look shows the beginning closely enough to work; a short programme shows whole. */
export function useView(project: string, width: number) {
  const store = useMixStore();
  const [view, setViewState] = useState<View>({ start: 0, perPx: 48 });
  const kept = useKeptPlace(project, view);
  const setView = useCallback((change: (v: View) => View) => setViewState(change), []);
  const shown = useRef(false);
  useEffect(() => {
    if (width <= 0 || shown.current) return;
    shown.current = true;
    const state = store.getState();
    const long = state.length > 90 * state.rate;
    setViewState(
      kept
        ? clampView(kept.view, width, state)
        : long
          ? clampView({ start: 0, perPx: (80 * state.rate) / width }, width, state)
          : fitAll(width, state),
    );
  }, [width, store, kept]);
  return [view, setView] as const;
}
