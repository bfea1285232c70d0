import { useMix, useMixStore } from "./context";

/** Whether a track is heard alone, and the way to change that: with the others that are, or as the only one. */
export function useSolo(track: string): [boolean, (alone: boolean) => void] {
  const store = useMixStore();
  const solo = useMix((s) => s.solo.includes(track));
  const toggle = (alone: boolean) => {
    const all = store.getState().solo;
    if (alone) store.getState().set({ solo: solo && all.length === 1 ? [] : [track] });
    else store.getState().set({ solo: solo ? all.filter((id) => id !== track) : [...all, track] });
  };
  return [solo, toggle];
}
