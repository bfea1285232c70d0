import type { MixState } from "@/store/mixStore";
import { clipsInRange } from "@/scene/levels";
import { countOf } from "@/store/chosen";
import { frameAt, sampleOfFrame } from "@/preview/timecode";
import { type CommandGroup, type Desk, here, refuse, selectedClips } from "./command";

/** At both ends of the range what lies under it, or at the playhead the selected clips. Nothing that is not framed is cut. */
export function split(desk: Desk, state: MixState): void {
  const { range, selected } = state;
  if (!range && selected.length === 0)
    return refuse(state, "Select the clips to split, or a range across them; Ctrl+A selects all.");
  const moments = range ? [range.from, range.to] : [here(desk, state)];
  const ids = range ? clipsInRange(state, range) : selected;
  const cuts = ids.flatMap((clip) => {
    const c = state.clips[clip];
    return c ? moments.filter((m) => m > c.at && m < c.at + c.length).map((m) => ({ clip, at: m })) : [];
  });
  if (cuts.length) void state.edit({ edit: "split", cuts });
  else
    refuse(state, "There is nothing to split there: put the playhead, or a range, inside a selected clip.");
}

/** What Delete would take away now, in words; nothing where it would take nothing. */
export function deleteTakes(state: MixState): string {
  const { chosen, range, selected, clips, tracks } = state;
  const count = countOf(chosen);
  if (count) return `Delete takes ${count === 1 ? "the chosen keyframe" : `the ${count} chosen keyframes`}.`;
  if (range) {
    const names = range.tracks?.map((id) => tracks.find((t) => t.id === id)?.name ?? "").join(", ");
    return `Delete takes the sound of the range, on ${names ?? "all tracks"}; Shift+Delete also closes the gap.`;
  }
  const [first] = selected;
  if (first === undefined) return "";
  return `Delete takes ${selected.length === 1 ? `“${clips[first]?.name}”` : `${selected.length} clips`}.`;
}

export function remove(state: MixState, close: boolean): void {
  const { chosen, range, selected } = state;
  if (chosen.length && !close) void state.edit({ edit: "remove-keyframes", chosen });
  else if (range)
    void state.edit({
      edit: "remove-range",
      from: range.from,
      to: range.to,
      ...(close ? { close } : {}),
      ...(range.tracks ? { tracks: range.tracks } : {}),
    });
  else if (selected.length) void state.edit({ edit: "remove-clips", clips: selected, close });
  else refuse(state, "Select what is to be removed: keyframes, clips, or a range to cut out.");
}

function trimTo(desk: Desk, state: MixState, edge: "from" | "to"): void {
  const at = here(desk, state);
  const clip = selectedClips(state).find((c) => at > c.at && at < c.at + c.length);
  if (!clip)
    return refuse(state, "Select a clip and put the playhead inside it; then it is trimmed to there.");
  const [from, to] = edge === "from" ? [at, clip.at + clip.length] : [clip.at, at];
  void state.edit({ edit: "trim-clip", clip: clip.id, from, to });
}

function frame(state: MixState, at: number): number {
  return sampleOfFrame(frameAt(at, state.rate, state.frameRate) + 1, state.rate, state.frameRate) - at;
}

function slip(state: MixState, by: 1 | -1): void {
  const clip = selectedClips(state)[0];
  if (clip) void state.edit({ edit: "slip-clip", clip: clip.id, later: by * frame(state, 0) });
  else refuse(state, "Select a clip first; then another part of its source can be slipped into it.");
}

function move(state: MixState, by: 1 | -1): void {
  if (state.selected.length)
    void state.edit({ edit: "move-clips", clips: state.selected, later: by * frame(state, 0) });
  else refuse(state, "Select clips first; then they move frame by frame.");
}

function insertTime(desk: Desk, state: MixState): void {
  const { range } = state;
  const at = range?.from ?? here(desk, state);
  const length = range ? range.to - range.from : state.rate;
  const tracks = range?.tracks ? { tracks: range.tracks } : {};
  void state.edit({ edit: "insert-time", at, length, ...tracks });
}

function needClips(state: MixState, act: (clips: string[]) => void): void {
  if (state.selected.length) act(state.selected);
  else refuse(state, "Select clips first.");
}

export const ARRANGE: CommandGroup = {
  title: "Arrange",
  commands: [
    { id: "split", title: "Split at the playhead, or at both ends of the range", keys: ["/"], run: split },
    {
      id: "join",
      title: "Join the selected clips",
      keys: ["J"],
      run: (_d, s) => needClips(s, (clips) => void s.edit({ edit: "join-clips", clips })),
    },
    {
      id: "duplicate",
      title: "Duplicate the selected clips",
      keys: ["Ctrl+D"],
      run: (_d, s) => needClips(s, (clips) => void s.edit({ edit: "duplicate-clips", clips })),
    },
    {
      id: "remove",
      title: "Remove what is framed: keyframes, the range, or clips",
      keys: ["Delete", "Backspace"],
      run: (_d, s) => remove(s, false),
    },
    {
      id: "remove-close",
      title: "Remove clips, or cut out the range, and close the gap",
      keys: ["Shift+Delete"],
      run: (_d, s) => remove(s, true),
    },
    {
      id: "insert-time",
      title: "Insert blank time: as long as the range, or a second",
      keys: ["Insert"],
      run: insertTime,
    },
    {
      id: "trim-start",
      title: "Trim the start to the playhead",
      keys: ["["],
      run: (d, s) => trimTo(d, s, "from"),
    },
    { id: "trim-end", title: "Trim the end to the playhead", keys: ["]"], run: (d, s) => trimTo(d, s, "to") },
    {
      id: "close-up",
      title: "Close-up: trim dead air",
      keys: ["W"],
      run: (d, s) => needClips(s, () => d.show("close-up")),
    },
    {
      id: "move-back",
      title: "Clips a frame earlier",
      keys: ["Ctrl+ArrowLeft"],
      run: (_d, s) => move(s, -1),
    },
    { id: "move-forth", title: "Clips a frame later", keys: ["Ctrl+ArrowRight"], run: (_d, s) => move(s, 1) },
    {
      id: "slip-back",
      title: "Slip the sound a frame back",
      keys: ["Alt+ArrowLeft"],
      run: (_d, s) => slip(s, -1),
    },
    {
      id: "slip-forth",
      title: "Slip the sound a frame forth",
      keys: ["Alt+ArrowRight"],
      run: (_d, s) => slip(s, 1),
    },
    { id: "undo", title: "Undo", keys: ["Ctrl+Z"], run: (_d, s) => void s.undo() },
    { id: "redo", title: "Redo", keys: ["Ctrl+Shift+Z"], run: (_d, s) => void s.redo() },
  ],
};
