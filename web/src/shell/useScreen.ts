import { useCallback, useEffect, useState } from "react";
import { keep, readKept } from "@/lib/kept";
import { useMixStore } from "@/store/context";
import type { MixState } from "@/store/mixStore";
import type { ScreenState } from "@/store/screen";

/** What of the screen is taken up again when the project is opened anew. */
const KEPT = [
  "heights",
  "heightScale",
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
  const [panelWidth, setWidth] = useState(
    () => Number(localStorage.getItem("wattage-panel")) || usualWidth(window.innerWidth),
  );
  const [guide, setGuideShown] = useState(() => {
    const kind = guideFor(store.getState());
    return localStorage.getItem(GUIDES[kind]) === "aside" ? null : kind;
  });
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
  const setGuide = useCallback(
    (shown: boolean) => {
      const kind = guideFor(store.getState());
      localStorage.setItem(GUIDES[kind], shown ? "here" : "aside");
      setGuideShown(shown ? kind : null);
    },
    [store],
  );
  return { panelWidth, setPanelWidth, guide, setGuide };
}

/** A fifth of a large window, for what is written and shown there; what the words need in a small one. */
function usualWidth(window: number): number {
  return window >= 1700 ? Math.min(640, Math.round(window / 4.8)) : 296;
}

/** Where it is kept that somebody knows their way. */
const GUIDES = { first: "wattage-guide", tour: "wattage-tour" };

/** An empty project shows the first steps, one with something in it a way around. */
function guideFor({ length }: MixState): keyof typeof GUIDES {
  return length === 0 ? "first" : "tour";
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
