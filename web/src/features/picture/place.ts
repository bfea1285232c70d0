import { create } from "zustand";
import { keep, readKept } from "@/lib/kept";
import type { Place } from "./Floating";

const KEPT = "wattage-picture-place";

interface Kept {
  /** Out of the way. */
  aside: boolean;
  /** Where it floats, as large as it was drawn; null where it stands in the panel. */
  floating: Place | null;
}

/** Where the picture stands: kept for whoever works at this browser. */
export const usePicturePlace = create<Kept & { put: (change: Partial<Kept>) => void }>((set, get) => ({
  aside: false,
  floating: null,
  ...readKept<Kept>(KEPT),
  put: (change) => {
    set(change);
    const { aside, floating } = get();
    keep(KEPT, { aside, floating });
  },
}));
