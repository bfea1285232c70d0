import { useEffect, useState } from "react";
import type { Clip } from "@/api/schema";
import { usePlayer } from "@/player";
import { useMixStore } from "@/store/context";

/**
 * Lets what a plan would make of clips be heard in place of what they are, for as long as it is looked at.
 *
 * @param clips as they would be; undefined while that is not known
 */
export function usePlanned(clips: Clip[] | undefined) {
  const store = useMixStore();
  const player = usePlayer();
  const [after, setAfter] = useState(true);
  useEffect(() => {
    const planned = clips && after ? Object.fromEntries(clips.map((clip) => [clip.id, clip])) : null;
    store.getState().set({ planned });
  }, [store, clips, after]);
  useEffect(() => {
    const { playing } = store.getState();
    return () => {
      store.getState().set({ planned: null });
      // What was begun here ends here.
      if (!playing) player.stop();
    };
  }, [store, player]);
  return { after, setAfter };
}
