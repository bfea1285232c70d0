import { useMemo } from "react";
import { useShallow } from "zustand/react/shallow";
import type { Layout, View } from "@/scene/geometry";
import { buildScene, type Drawn, type Preview, type Scene } from "@/scene/scene";
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
  const {
    clips,
    tracks,
    sources,
    selected,
    chosen,
    range,
    length,
    rate,
    frameRate,
    markers,
    strip,
    adjustable,
  } = state;
  const {
    revision,
    hiddenWires,
    solo,
    figures,
    aim,
    captions,
    stretch,
    duckTry,
    duckPlan,
    activeLane,
    closed,
  } = state;
  return {
    clips,
    tracks,
    sources,
    selected,
    chosen,
    range,
    length,
    rate,
    frameRate,
    markers,
    strip,
    adjustable,
    revision,
    hiddenWires,
    solo,
    figures,
    aim,
    captions,
    stretch,
    duckTry,
    duckPlan,
    activeLane,
    closed,
    playhead: state.playing ? -1 : state.playhead,
  };
}
