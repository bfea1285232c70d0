import { useEffect } from "react";
import { usePlayer } from "@/player";
import { faderAt, moveFader, useRecorder } from "@/ride";
import { dbAt, partOf } from "@/parts/Fader";
import { inDeskOrder } from "@/store/order";
import { useMixStore } from "@/store/context";
import { Decoder, encode } from "./midi";
import type { Port } from "./ports";

/** A fader of the bank that has not moved for so long has been let go: control changes do not say so. */
const LET_GO_MS = 350;
const FOLLOW_MS = 80;

/** Lets a bank move the faders of the desk, and its own follow them. */
export function useBank(port: Port | null): void {
  const store = useMixStore();
  const player = usePlayer();
  const recorder = useRecorder();
  useEffect(() => {
    if (!port) return;
    const decoder = new Decoder();
    const held = new Map<string, ReturnType<typeof setTimeout>>();
    const sent = new Map<number, number>();
    const stop = port.listen((message, when) => {
      const move = decoder.read(message);
      const track = inDeskOrder(store.getState().tracks)[move?.strip ?? -1];
      if (!move || !track || move.control !== "level" || store.getState().project.role === "viewer") return;
      const db = Math.round(dbAt(move.place) * 100) / 100;
      sent.set(move.strip, move.place);
      moveFader({ store, player, recorder }, track.id, db, true, when, false);
      clearTimeout(held.get(track.id));
      held.set(
        track.id,
        setTimeout(() => {
          held.delete(track.id);
          moveFader({ store, player, recorder }, track.id, db, false, performance.now(), false);
        }, LET_GO_MS),
      );
    });
    // Its faders go where those of the desk are, but for those that a hand holds.
    const follow = setInterval(() => {
      const { tracks, grips } = store.getState();
      inDeskOrder(tracks).forEach((track, strip) => {
        if (held.has(track.id)) return;
        const place = partOf(grips[track.id] ?? faderAt(track, player.position));
        if (Math.abs((sent.get(strip) ?? -1) - place) < 0.001) return;
        sent.set(strip, place);
        decoder.forget(strip);
        for (const message of encode({ strip, control: "level", place })) port.send(message);
      });
    }, FOLLOW_MS);
    return () => {
      stop();
      clearInterval(follow);
      held.forEach((timer) => clearTimeout(timer));
    };
  }, [port, store, player, recorder]);
}
