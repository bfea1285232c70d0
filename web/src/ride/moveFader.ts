import type { Track } from "@/api/schema";
import type { Player } from "@/player";
import { decibelsOf } from "@/lib/format";
import { levelLane } from "@/preview/lanes";
import type { MixStore } from "@/store/mixStore";
import { FADER_BOTTOM, faderAt, type Recorder } from "./recorder";

interface Hands {
  store: MixStore;
  player: Player;
  recorder: Recorder;
}

const within = (db: number) => Math.max(FADER_BOTTOM, Math.min(12, db));
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
  const grip = (values: Record<string, number | null>) => {
    const grips: Record<string, number | null> = { ...store.getState().grips, ...values };
    set({
      grips: Object.fromEntries(Object.entries(grips).filter((g): g is [string, number] => g[1] !== null)),
    });
  };
  if (playing && recorder.isRiding(id)) {
    const stands = (track: Track) => store.getState().grips[track.id] ?? faderAt(track, player.position);
    const by = db - stands(own);
    const ridden = [own, ...others.filter((t) => recorder.isRiding(t.id))];
    const values = ridden.map((t) => [t.id, t.id === id ? db : within(stands(t) + by)] as const);
    for (const [track, value] of values) recorder.note(track, "level", value, held, when);
    // What goes on being written stays where it was left, and the next touch begins there.
    grip(
      Object.fromEntries(
        values.map(([t, value]) => [t, held || recorder.isWriting(t, "level") ? value : null]),
      ),
    );
    return;
  }
  if (levelLane(own).length) {
    grip({ [id]: null });
    if (held)
      set({
        notice: {
          kind: "error",
          text: `“${own.name}” follows its level lane. Choose touch, latch or write and play to ride it, or off to use the fader.`,
        },
      });
    return;
  }
  const by = db - Math.max(FADER_BOTTOM, decibelsOf(own.fader));
  const free = others.filter((t) => !levelLane(t).length && t.fader !== "silence");
  const values = [[id, db] as const, ...free.map((t) => [t.id, within(decibelsOf(t.fader) + by)] as const)];
  // Where a hand has moved on meanwhile, it still holds.
  const letGo = () => {
    const { grips } = store.getState();
    const rest = values.filter(([track, value]) => grips[track] === undefined || grips[track] === value);
    for (const [track] of rest) player.ride(track, "level", null);
    grip(Object.fromEntries(rest.map(([track]) => [track, null])));
  };
  if (held) {
    for (const [track, value] of values) player.ride(track, "level", value);
    grip(Object.fromEntries(values));
    return;
  }
  if (Math.abs(by) < 0.005) {
    letGo();
    return;
  }
  const faders = values.map(([track, value]) => ({ track, fader: toSend(value) }));
  void edit({ edit: "set-faders", faders }).then(letGo);
}

/** A level typed for a fader: those that are linked with it move by the same dB. */
export function typeFader(store: MixStore, track: string, fader: string): Promise<boolean> {
  const { linked, edit } = store.getState();
  const others = linked.includes(track) ? linked.filter((id) => id !== track) : [];
  return edit({ edit: "set-fader", track, fader, ...(others.length ? { linked: others } : {}) });
}
