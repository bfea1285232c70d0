import { useEffect, useState } from "react";
import { useMix } from "@/store/context";
import { usePlayer } from "./context";

/**
 * The position that is heard, looked up ten times a second while playing; else where the playhead stands.
 *
 * @param followed whether it is of interest at all; nothing is drawn anew for it where not
 */
export function useMoment(followed = true): number {
  const player = usePlayer();
  const playing = useMix((s) => s.playing);
  const playhead = useMix((s) => (followed ? s.playhead : 0));
  const [moment, setMoment] = useState(playhead);
  useEffect(() => {
    if (!playing || !followed) return;
    const timer = setInterval(() => setMoment(player.position), 100);
    return () => clearInterval(timer);
  }, [player, playing, followed]);
  return playing ? moment : playhead;
}
