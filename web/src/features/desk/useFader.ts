import { useCallback, useState } from "react";
import type { Track } from "@/api/types";
import { useMoment, usePlayer } from "@/features/player";
import { FADER_BOTTOM, faderAt, useRecorder } from "@/features/ride";
import { decibelsOf } from "@/lib/format";
import { useMix, useMixStore } from "@/store/context";

/** Where the fader of a track stands, and what moving it does: rides it, or sets it; with those that are linked. */
export function useFader(track: Track) {
  const store = useMixStore();
  const player = usePlayer();
  const recorder = useRecorder();
  const moment = useMoment();
  const [dragged, setDragged] = useState<number | null>(null);
  const hasLane = !track.lanes?.off && (track.lanes?.level?.length ?? 0) > 0;
  const riding = useMix((s) => s.writing.includes(track.id));
  const rest = hasLane ? faderAt(track, moment) : Math.max(FADER_BOTTOM, decibelsOf(track.fader));

  const move = useCallback(
    (value: number, held: boolean, when: number, alone: boolean) => {
      const { tracks, linked, playing, set, edit } = store.getState();
      const own = tracks.find((t) => t.id === track.id);
      if (!own) return;
      const others =
        !alone && linked.includes(own.id)
          ? tracks.filter((t) => t.id !== own.id && linked.includes(t.id))
          : [];
      if (playing && recorder.isRiding(own.id)) {
        recorder.note(own.id, "level", value, held, when);
        const by = value - faderAt(own, player.position);
        for (const other of others)
          if (recorder.isRiding(other.id))
            recorder.note(other.id, "level", faderAt(other, player.position) + by, held, when);
        setDragged(held ? value : null);
        return;
      }
      if (hasLane) {
        setDragged(null);
        if (held)
          set({
            notice: {
              kind: "error",
              text: `“${own.name}” follows its level lane. Choose touch, latch or write and play to ride it, or off to use the fader.`,
            },
          });
        return;
      }
      player.ride(own.id, "level", held ? value : null);
      if (held) {
        setDragged(value);
        return;
      }
      const by = value - Math.max(FADER_BOTTOM, decibelsOf(own.fader));
      const level = (db: number) =>
        db <= FADER_BOTTOM ? "silence" : Math.round(Math.min(12, db) * 100) / 100;
      if (Math.abs(by) < 0.005) {
        setDragged(null);
        return;
      }
      const faders = [
        { track: own.id, fader: level(value) },
        ...others
          .filter((t) => !t.lanes?.level?.length && t.fader !== "silence")
          .map((t) => ({ track: t.id, fader: level(decibelsOf(t.fader) + by) })),
      ];
      void edit({ edit: "set-faders", faders }).then(() => setDragged(null));
    },
    [store, player, recorder, track.id, hasLane],
  );

  return { value: dragged ?? rest, move, riding, hasLane };
}
