import { useCallback } from "react";
import type { Track } from "@/api/schema";
import { useMoment, usePlayer } from "@/player";
import { decibelsOf } from "@/lib/format";
import { levelLane } from "@/preview/lanes";
import { useMix, useMixStore } from "@/store/context";
import { useRecorder } from "./context";
import { moveFader } from "./moveFader";
import { FADER_BOTTOM, faderAt } from "./recorder";

/** Where the fader of a track stands, and the way to move it. */
export function useFader(track: Track) {
  const store = useMixStore();
  const player = usePlayer();
  const recorder = useRecorder();
  const grip = useMix((s) => s.grips[track.id]);
  const riding = useMix((s) => s.writing.includes(track.id));
  const hasLane = levelLane(track).length > 0;
  const moment = useMoment(hasLane);
  const rest = hasLane ? faderAt(track, moment) : Math.max(FADER_BOTTOM, decibelsOf(track.fader));
  const move = useCallback(
    (db: number, held: boolean, when: number, alone: boolean) =>
      moveFader({ store, player, recorder }, track.id, db, held, when, alone),
    [store, player, recorder, track.id],
  );
  return { value: grip ?? rest, move, riding, hasLane };
}
