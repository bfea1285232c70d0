import { useCallback, useState } from "react";
import { keep, readKept } from "@/lib/kept";
import { useMix } from "@/store/context";
import type { Room } from "./TopBar";

/** What stands beside the work, view by view: kept for each person who works at this browser. */
export interface Arrangement {
  /** Whether the panel at the right is shown. */
  panel: Record<Room, boolean>;
  /** Whether a large meter stands beside the clips. */
  meter: boolean;
}

const USUAL: Arrangement = {
  // The faders and the lane that is ridden need the room.
  panel: { balance: true, intake: true, desk: false, handover: true },
  meter: false,
};

export function useArrangement() {
  const kept = `wattage-arrangement-${useMix((s) => s.me.id)}`;
  const [arrangement, set] = useState<Arrangement>(() => ({ ...USUAL, ...readKept<Arrangement>(kept) }));
  const arrange = useCallback(
    (change: (now: Arrangement) => Arrangement) => {
      set((now) => {
        const next = change(now);
        keep(kept, next);
        return next;
      });
    },
    [kept],
  );
  return [arrangement, arrange] as const;
}
