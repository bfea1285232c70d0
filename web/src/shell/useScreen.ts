import { useCallback, useEffect, useState } from "react";
import { keep, readKept } from "@/lib/kept";
import { useMixStore } from "@/store/context";
import type { MixState } from "@/store/mixStore";
import type { ScreenState } from "@/store/screen";

/** What of the screen is taken up again when the project is opened anew. */
const KEPT = [
  "heights",
  "hiddenWires",
  "linked",
  "modes",
  "glide",
  "afterPass",
  "preRoll",
  "settings",
  "playhead",
] as const satisfies (keyof ScreenState)[];

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
    const stored = readKept<Partial<ScreenState>>(key);
    if (stored) store.getState().set(stillThere(stored, store.getState()));
    return store.subscribe((now, before) => {
      if (KEPT.every((part) => now[part] === before[part])) return;
      keep(key, Object.fromEntries(KEPT.map((part) => [part, now[part]])));
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

/** Without what belongs to tracks that are gone, and with the playhead within the programme. */
function stillThere(
  stored: Partial<ScreenState>,
  { tracks, length, settings }: MixState,
): Partial<ScreenState> {
  const ids = new Set(tracks.map((t) => t.id));
  return {
    ...stored,
    settings: { ...settings, ...stored.settings },
    ...(stored.linked && { linked: stored.linked.filter((id) => ids.has(id)) }),
    ...(stored.modes && {
      modes: Object.fromEntries(Object.entries(stored.modes).filter(([id]) => ids.has(id))),
    }),
    ...(stored.playhead !== undefined && { playhead: Math.min(stored.playhead, length) }),
  };
}
