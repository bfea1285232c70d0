import { useCallback, useEffect, useState } from "react";
import { useMixStore } from "@/store/context";

/** Which place of the panel is open; it follows what is taken up: a clip, a lane, a stretch of speech, a comment. */
export function useTab() {
  const store = useMixStore();
  const [tab, setTab] = useState(() => (store.getState().tracks.length === 0 ? "sources" : "clip"));
  useEffect(
    () =>
      store.subscribe((now, before) => {
        // A rule that is tried stays open: clips are chosen for it.
        if (now.duckDraft) return;
        const lane = now.activeLane !== before.activeLane;
        const [first] = now.selected;
        const chosen = now.selected !== before.selected && first !== undefined && first !== now.placed;
        if (now.selected !== before.selected && first !== now.placed) now.set({ placed: null });
        if (lane || chosen) setTab("clip");
        if (now.stretch !== before.stretch && now.stretch !== null) setTab("speech");
        if (now.comment !== before.comment && now.comment !== null) setTab("markers");
      }),
    [store],
  );

  const showHistory = useCallback(() => setTab((t) => (t === "versions" ? "clip" : "versions")), []);
  return [tab, setTab, showHistory] as const;
}
