import { useEffect, useState } from "react";
import { useMix } from "@/store/context";
import { usePlayer } from "./context";

/** The position that is heard, looked up ten times a second while playing; else where the playhead stands. */
export function useMoment(): number {
  const player = usePlayer();
  const playing = useMix((s) => s.playing);
  const playhead = useMix((s) => s.playhead);
  const [moment, setMoment] = useState(playhead);
  useEffect(() => {
    if (!playing) return;
    const timer = setInterval(() => setMoment(player.position), 100);
    return () => clearInterval(timer);
  }, [player, playing]);
  return playing ? moment : playhead;
}
