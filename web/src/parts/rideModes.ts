import type { Track } from "@/api/schema";
import { useMix, useMixStore } from "@/store/context";
import type { RideMode } from "@/store/screen";

type Mode = "off" | RideMode;

export const RIDES: { mode: Mode; hint: string }[] = [
  { mode: "off", hint: "lanes are kept but not followed" },
  { mode: "read", hint: "lanes are followed, nothing is written" },
  { mode: "touch", hint: "writes only while a hand is on it, then glides back" },
  { mode: "latch", hint: "writes from the first touch until playing stops" },
  { mode: "write", hint: "writes from play to stop, then goes to touch" },
];

/** How a track is ridden. Off is part of the mix, the others are a matter of this screen. */
export function useRideMode(track: Track): [Mode, (next: Mode) => void] {
  const store = useMixStore();
  const mode = useMix((s) => s.modes[track.id] ?? "read");
  const off = track.lanes?.off === true;
  const choose = (next: Mode) => {
    const { modes, set, edit } = store.getState();
    if (next !== "off") set({ modes: { ...modes, [track.id]: next } });
    if ((next === "off") !== off) void edit({ edit: "set-lanes-off", track: track.id, off: next === "off" });
  };
  return [off ? "off" : mode, choose];
}
