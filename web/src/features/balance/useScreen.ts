import { useCallback, useEffect, useState } from "react";
import { useMixStore } from "@/store/context";

interface Kept {
  heights: Record<string, number>;
  hiddenWires: string[];
}

/** How this screen is arranged: kept in the browser, since it is nobody else's matter and no part of the mix. */
export function useScreen() {
  const store = useMixStore();
  const project = store.getState().project.id;
  const [panelWidth, setWidth] = useState(() => Number(localStorage.getItem("wattage-panel")) || 296);
  const [guide, setGuideShown] = useState(
    () => store.getState().length === 0 && localStorage.getItem("wattage-guide") !== "aside",
  );
  useEffect(() => {
    const key = `wattage-lanes-${project}`;
    const stored = JSON.parse(localStorage.getItem(key) ?? "null") as Kept | null;
    if (stored) store.getState().set(stored);
    return store.subscribe((now, before) => {
      if (now.heights === before.heights && now.hiddenWires === before.hiddenWires) return;
      const { heights, hiddenWires } = now;
      localStorage.setItem(key, JSON.stringify({ heights, hiddenWires }));
    });
  }, [store, project]);
  const setPanelWidth = useCallback((width: number) => {
    localStorage.setItem("wattage-panel", String(width));
    setWidth(width);
  }, []);
  const setGuide = useCallback((shown: boolean) => {
    localStorage.setItem("wattage-guide", shown ? "here" : "aside");
    setGuideShown(shown);
  }, []);
  return { panelWidth, setPanelWidth, guide, setGuide };
}
