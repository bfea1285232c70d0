import type { Player } from "@/features/player";
import { decibelsOf } from "@/lib/format";
import { levelLane } from "@/lib/lanes";
import type { MixStore } from "@/store/mixStore";
import { FADER_BOTTOM, faderAt, type Recorder } from "./recorder";

interface Hands {
  store: MixStore;
  player: Player;
  recorder: Recorder;
}

const toSend = (db: number) => (db <= FADER_BOTTOM ? "silence" : Math.round(Math.min(12, db) * 100) / 100);

/**
 * A fader of a track is moved: it is ridden where a pass is under way, else set when it is let go; with those that are linked.
 *
 * @param db where it stands now
 * @param held whether a hand is on it
 * @param when performance time of the event
 * @param alone whether linked ones stay
 */
export function moveFader(
  hands: Hands,
  id: string,
  db: number,
  held: boolean,
  when: number,
  alone: boolean,
): void {
  const { store, player, recorder } = hands;
  const { tracks, linked, playing, set, edit } = store.getState();
  const own = tracks.find((t) => t.id === id);
  if (!own) return;
  const others =
    !alone && linked.includes(id) ? tracks.filter((t) => t.id !== id && linked.includes(t.id)) : [];
  const grip = (value: number | null) => {
    const rest = Object.entries(store.getState().grips).filter(([track]) => track !== id);
    set({ grips: Object.fromEntries(value === null ? rest : [...rest, [id, value] as const]) });
  };
  if (playing && recorder.isRiding(id)) {
    recorder.note(id, "level", db, held, when);
    const by = db - faderAt(own, player.position);
    for (const other of others)
      if (recorder.isRiding(other.id))
        recorder.note(other.id, "level", faderAt(other, player.position) + by, held, when);
    grip(held ? db : null);
    return;
  }
  if (levelLane(own).length) {
    grip(null);
    if (held)
      set({
        notice: {
          kind: "error",
          text: `“${own.name}” follows its level lane. Choose touch, latch or write and play to ride it, or off to use the fader.`,
        },
      });
    return;
  }
  player.ride(id, "level", held ? db : null);
  if (held) {
    grip(db);
    return;
  }
  const by = db - Math.max(FADER_BOTTOM, decibelsOf(own.fader));
  if (Math.abs(by) < 0.005) {
    grip(null);
    return;
  }
  const faders = [
    { track: id, fader: toSend(db) },
    ...others
      .filter((t) => !t.lanes?.level?.length && t.fader !== "silence")
      .map((t) => ({ track: t.id, fader: toSend(decibelsOf(t.fader) + by) })),
  ];
  void edit({ edit: "set-faders", faders }).then(() => grip(null));
}
