import type { Player } from "@/player";
import { clipsInRange } from "@/scene/levels";
import { type View } from "@/scene/geometry";
import type { Clip } from "@/api/schema";
import type { MixState, MixStore } from "@/store/mixStore";

/** What commands work with. */
export interface Desk {
  store: MixStore;
  player: Player;
  width: number;
  setView: (change: (view: View) => View) => void;
  /** Opens one of the sheets over the work. */
  show: (sheet: Sheet) => void;
}

export type Sheet = "keys" | "close-up" | "even-up" | "even-colour" | "steady" | "guide";

/** Something that can be done by one key. The map of keys can be changed; what a command does stands here alone. */
export interface Command {
  id: string;
  title: string;
  /** "D", "Shift+ArrowUp", "Ctrl+Z". */
  keys: string[];
  run(desk: Desk, state: MixState): void;
}

export interface CommandGroup {
  title: string;
  commands: Command[];
}

export function refuse(state: MixState, text: string): void {
  state.set({ notice: { kind: "error", text } });
}

/** Where playing is, or would begin. */
export function here(desk: Desk, state: MixState): number {
  return state.playing ? desk.player.position : state.playhead;
}

export function selectedClips(state: MixState): Clip[] {
  return state.selected.map((id) => state.clips[id]).filter((c) => c !== undefined);
}

/** The clips that a change to the range works on, with a reason in words when there are none. */
export function clipsUnder(state: MixState): string[] | null {
  const { range } = state;
  const clips = range ? clipsInRange(state, range) : [];
  if (range && clips.length) return clips;
  refuse(
    state,
    range
      ? "No clip lies under this range. Select one over a clip."
      : "Select a range first: drag across a lane, or press I and O.",
  );
  return null;
}
