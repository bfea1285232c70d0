import { useMemo } from "react";
import { useShallow } from "zustand/react/shallow";
import type { Layout, View } from "@/scene/geometry";
import { buildScene, DRAWN, type Drawn, type Preview, type Scene } from "@/scene/scene";
import { useMix } from "@/store/context";
import type { MixState } from "@/store/mixStore";

/** What is drawn: built anew when one of its parts changes, and with the playhead only while it stands still. */
export function useScene(layout: Layout, view: View, width: number, preview: Preview | null): Scene {
  const drawn = useMix(useShallow(drawnOf));
  return useMemo(
    () => buildScene(drawn, layout, view, width, preview),
    [drawn, layout, view, width, preview],
  );
}

function drawnOf(state: MixState): Drawn {
  const parts = Object.fromEntries(DRAWN.map((part) => [part, state[part]])) as Omit<Drawn, "playhead">;
  return { ...parts, playhead: state.playing ? -1 : state.playhead };
}
