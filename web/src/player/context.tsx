import { createContext, useContext, useEffect, useState } from "react";
import { useMix } from "@/store/context";
import { type Reading, SILENT } from "./meter";
import type { Levels } from "./mixer";
import type { Player } from "./player";

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
      if (playing || shown.programme.peak.some((peak) => peak > -60)) frame = requestAnimationFrame(draw);
    };
    frame = requestAnimationFrame(draw);
    return () => cancelAnimationFrame(frame);
  }, [player, playing]);
  return levels;
}

function fallen(before: Levels | null, now: Levels, by: number): Levels {
  const one = (old: Reading | undefined, fresh: Reading): Reading =>
    old
      ? {
          peak: [Math.max(old.peak[0] - by, fresh.peak[0]), Math.max(old.peak[1] - by, fresh.peak[1])],
          average: fresh.average,
        }
      : fresh;
  const each = <K extends string>(
    old: Partial<Record<K, Reading>> | undefined,
    fresh: Partial<Record<K, Reading>>,
  ) =>
    Object.fromEntries(
      Object.entries<Reading | undefined>(fresh).map(([id, reading]) => [
        id,
        one(old?.[id as K], reading ?? SILENT),
      ]),
    ) as Record<K, Reading>;
  return {
    programme: one(before?.programme, now.programme),
    stems: each(before?.stems, now.stems),
    tracks: each(before?.tracks, now.tracks),
  };
}
