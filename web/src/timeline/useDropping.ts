import { type DragEvent, type RefObject, useState } from "react";
import type { Layout, View } from "@/scene/geometry";
import { useMixStore } from "@/store/context";
import { type Drop, dropAt, dropped } from "./drops";
import { placeIn } from "./pointer";

export const SOURCE_DRAG = "application/x-wattage-source";

/** Sources that are carried over the lanes: where one would lie, and its being laid there. */
export function useDropping(box: RefObject<HTMLElement | null>, layout: Layout, view: View) {
  const store = useMixStore();
  const [ghost, setGhost] = useState<{ drop: Drop; x: number; y: number } | null>(null);
  const dropUnder = (event: DragEvent) => {
    const { x, y } = placeIn(box.current, event);
    return { x, y, drop: dropAt({ state: store.getState(), layout, view }, x, y, event.altKey) };
  };

  const onDrop = (event: DragEvent) => {
    const source = event.dataTransfer.getData(SOURCE_DRAG);
    if (!source) return;
    event.preventDefault();
    event.stopPropagation();
    setGhost(null);
    const { drop } = dropUnder(event);
    const { carried, set, edit } = store.getState();
    if (drop.kind === "refused") {
      set({ notice: { kind: "error", text: drop.why } });
      return;
    }
    const done = dropped(drop, carried?.source === source ? carried : { source, name: "New" });
    void edit(done.edit).then((ok) => {
      if (!ok) return;
      store.getState().set({ placed: done.clip });
      store.getState().select(done.clip);
    });
  };

  const handlers = {
    onDragOver: (event: DragEvent) => {
      if (!event.dataTransfer.types.includes(SOURCE_DRAG)) return;
      event.preventDefault();
      setGhost(dropUnder(event));
    },
    onDragLeave: (event: DragEvent) => {
      if (!event.currentTarget.contains(event.relatedTarget as Node | null)) setGhost(null);
    },
    onDrop,
  };
  return { ghost, handlers };
}
