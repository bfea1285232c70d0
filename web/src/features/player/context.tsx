import { createContext, useContext, useEffect, useState } from "react";
import { useMix } from "@/store/context";
import type { Levels, Player } from "./player";

export const PlayerContext = createContext<Player | null>(null);

export function usePlayer(): Player {
  const player = useContext(PlayerContext);
  if (!player) throw new Error("There is no player here.");
  return player;
}

/** Peaks that fall back at 20 dB a second, read once a frame while playing and until they have fallen. */
export function useLevels(): Levels | null {
  const player = usePlayer();
  const playing = useMix((s) => s.playing);
  const [levels, setLevels] = useState<Levels | null>(null);
  useEffect(() => {
    let frame = 0;
    let last = performance.now();
    let shown: Levels | null = null;
    const draw = (now: number) => {
      shown = fallen(shown, player.levels(), ((now - last) / 1000) * 20);
      last = now;
      setLevels(shown);
      if (playing || shown.programme.some((peak) => peak > -60)) frame = requestAnimationFrame(draw);
    };
    frame = requestAnimationFrame(draw);
    return () => cancelAnimationFrame(frame);
  }, [player, playing]);
  return levels;
}

function fallen(before: Levels | null, now: Levels, by: number): Levels {
  const pair = (old: [number, number] | undefined, fresh: [number, number]): [number, number] =>
    old ? [Math.max(old[0] - by, fresh[0]), Math.max(old[1] - by, fresh[1])] : fresh;
  return {
    programme: pair(before?.programme, now.programme),
    tracks: Object.fromEntries(
      Object.entries(now.tracks).map(([id, peaks]) => [id, pair(before?.tracks[id], peaks)]),
    ),
  };
}
