import { api } from "@/api/client";
import type { Levels, Side } from "@/api/schema";
import { clipsOf, type MixState } from "@/store/mixStore";
import { looseChange, rampsFor } from "@/store/screen";
import { curveOf, laneAtHand } from "@/store/wires";
import { withinDip } from "@/preview/dip";
import { stretchAt } from "./buried";
import { runRules } from "./runRules";
import { clipsInRange } from "@/scene/levels";
import { type CommandGroup, clipsUnder, type Desk, here, refuse, selectedClips } from "./command";

/** Keyframes if any are chosen, else the range, else the clips. A change just made to the range is made stronger, not doubled. */
function nudge(state: MixState, by: number): void {
  const { chosen, range } = state;
  if (chosen.length) {
    void state.edit({ edit: "move-keyframes", chosen, later: 0, by });
    return;
  }
  if (range) {
    const last = looseChange(state);
    if (last?.edit === "dip-range" && typeof last.by === "number") {
      void state.edit({ ...last, by: withinDip(Math.round((last.by + by) * 100) / 100) }, { instead: true });
      return;
    }
    if (last?.edit === "set-range" && typeof last.level === "number") {
      void state.edit({ ...last, level: Math.round((last.level + by) * 100) / 100 }, { instead: true });
      return;
    }
    void changeRange(state, { edit: "dip-range", by });
    return;
  }
  if (state.selected.length) void state.edit({ edit: "change-clip-gain", clips: state.selected, by });
  else refuse(state, "Select clips, keyframes or a range first; then this changes their level.");
}

/** The lane that is edited in place of clips, where the range lies on its track alone. */
export function laneUnder(state: MixState) {
  const { range } = state;
  const lane = range?.tracks?.length === 1 ? laneAtHand({ ...state, chosen: [] }) : null;
  return range && lane && range.tracks?.[0] === lane.track
    ? { ...lane, from: range.from, to: range.to }
    : null;
}

type RangeChange =
  | { edit: "dip-range"; by: number | string }
  | { edit: "set-range"; level: number | string }
  | { edit: "reset-range" };

/** The one channel that a change to the range works on: where each clip under it is opened, and one of them is worked on by channel. */
export function sideUnder(state: MixState): Side | undefined {
  const { side, closed, range } = state;
  if (!side || !range) return undefined;
  const clips = clipsInRange(state, range);
  const apart = clips.every((id) => state.clips[id]?.channels?.left !== undefined && !closed.includes(id));
  return clips.includes(side.clip) && apart ? side.side : undefined;
}

/** Makes a change to the selected range, with ramps as they are set. */
export async function changeRange(state: MixState, change: RangeChange): Promise<boolean> {
  const lane = laneUnder(state);
  const ramps = rampsFor(state.settings, kindOf(change));
  if (lane) return state.edit({ ...change, ...lane, ...ramps });
  const clips = clipsUnder(state);
  const { range } = state;
  if (!clips || !range) return false;
  const channel = sideUnder(state);
  const on = channel ? { clips, channel } : { clips };
  return state.edit({ ...change, ...on, from: range.from, to: range.to, ...ramps });
}

/** What a change does, as far as its ramps depend on it. */
function kindOf(change: RangeChange): number | "silence" {
  if (change.edit === "set-range")
    return change.level === "silence" || change.level === "-inf" ? "silence" : -1;
  return change.edit === "dip-range" ? Number(change.by) || -1 : -1;
}

/** Brings all that rises above the ceiling down to it: in the range, or in the selected clips. */
async function tameAll(state: MixState): Promise<void> {
  const { range, settings, project } = state;
  const clips = range ? clipsInRange(state, range) : state.selected;
  if (!clips.length) return refuse(state, "Select a clip or a range first; then its peaks can be tamed.");
  try {
    const where = range ? { from: range.from, to: range.to } : {};
    const peaks = await api.peaks(project.id, { clips, ceiling: settings.ceiling, ...where });
    if (!peaks.length)
      return refuse(state, `Nothing there rises above ${settings.ceiling} dBFS: there is nothing to tame.`);
    const notches = peaks.map(({ clip, at, by, before, after, hold }) => ({
      clip,
      at,
      by,
      before,
      after,
      hold,
    }));
    await state.edit({ edit: "tame", notches });
  } catch (error) {
    refuse(state, error instanceof Error ? error.message : String(error));
  }
}

function fadeTo(desk: Desk, state: MixState, edge: "in" | "out"): void {
  const at = here(desk, state);
  const under = selectedClips(state).filter((c) => at > c.at && at < c.at + c.length);
  const clip = under[0];
  if (!clip)
    return refuse(state, "Select a clip and put the playhead inside it; then it fades as far as there.");
  const length = edge === "in" ? at - clip.at : clip.at + clip.length - at;
  void state.edit({ edit: "set-fade", clips: under.map((c) => c.id), edge, length });
}

function addKeyframe(desk: Desk, state: MixState): void {
  const at = here(desk, state);
  const lane = laneAtHand(state);
  if (lane) {
    void state.edit({ edit: "add-keyframe", ...lane, at });
    return;
  }
  const clip = selectedClips(state).find((c) => at >= c.at && at <= c.at + c.length);
  if (clip) void state.edit({ edit: "add-keyframe", clip: clip.id, at });
  else refuse(state, "Select a clip and put the playhead over it; then a keyframe is added there.");
}

function copyNeighbour(state: MixState, from: "previous" | "next"): void {
  const { chosen } = state;
  if (chosen.length) void state.edit({ edit: "copy-neighbour", chosen, from });
  else refuse(state, `Choose keyframes first; then they take the level of the ${from} one.`);
}

function copyLevels(state: MixState): void {
  const clip = selectedClips(state)[0];
  if (!clip) return refuse(state, "Select the clip to copy the levels of.");
  const clipboard: Levels = {
    gain: clip.gain,
    curve: curveOf(clip)
      .filter((k) => k.at >= clip.in && k.at <= clip.in + clip.length)
      .map((k) => ({ ...k, at: k.at - clip.in })),
    fadeIn: clip.fadeIn ?? { length: 0, shape: "equal-power" },
    fadeOut: clip.fadeOut ?? { length: 0, shape: "equal-power" },
  };
  state.set({ clipboard, notice: { kind: "done", text: `Copied the levels of “${clip.name}”.` } });
}

function pasteLevels(state: MixState): void {
  const { clipboard, selected } = state;
  if (!clipboard) return refuse(state, "Copy the levels of a clip first.");
  if (!selected.length) return refuse(state, "Select the clips that are to get the copied levels.");
  void state.edit({ edit: "paste-levels", clips: selected, ...clipboard });
}

/** One clip's level for all on its track, or for those under the range. */
function spread(state: MixState, to: "track" | "range"): void {
  const clip = selectedClips(state)[0];
  if (!clip) return refuse(state, "Select the clip whose level is to be spread.");
  const { range } = state;
  if (to === "range" && !range) return refuse(state, "Select the range to spread the level to.");
  const clips =
    to === "track" || !range
      ? clipsOf(state.clips, clip.track).map((c) => c.id)
      : clipsInRange({ ...state, selected: [] }, range);
  const others = clips.filter((id) => id !== clip.id);
  if (others.length) void state.edit({ edit: "spread-level", clip: clip.id, clips: others });
  else refuse(state, "There is no other clip to spread the level to.");
}

/** At a plain cut: the two clips that are selected, or the one that is and the next on its track. */
function crossOver(state: MixState): void {
  const [first, second] = selectedClips(state).sort((a, b) => a.at - b.at);
  if (!first) return refuse(state, "Select the clip that is to cross over with the next one, or both.");
  const next = second ?? clipsOf(state.clips, first.track).find((c) => c.at >= first.at + first.length);
  if (!next || next.track !== first.track)
    return refuse(
      state,
      `No clip follows “${first.name}” on its track, so there is nothing to cross over to.`,
    );
  void state.edit({ edit: "cross-over", earlier: first.id, later: next.id, length: "0.5 s" });
}

function withClips(state: MixState, why: string, run: () => void): void {
  if (state.selected.length) run();
  else refuse(state, why);
}

function clearStretch(desk: Desk, state: MixState): void {
  const stretch = stretchAt(state, here(desk, state));
  const dip = stretch?.dipEdit ?? null;
  if (!state.figures) return refuse(state, "Where speech is buried is still being measured.");
  if (!stretch) return refuse(state, "No buried speech here. G goes to the next.");
  if (!dip)
    return refuse(state, "No dip within 40 dB clears this. Lift the speech, or accept it under “Speech”.");
  void state.edit(dip);
}

export const LEVELS: CommandGroup = {
  title: "Levels",
  commands: [
    {
      id: "up-1",
      title: "1 dB up: keyframes, range or clips",
      keys: ["ArrowUp"],
      run: (_d, s) => nudge(s, 1),
    },
    { id: "down-1", title: "1 dB down", keys: ["ArrowDown"], run: (_d, s) => nudge(s, -1) },
    { id: "up-01", title: "0.1 dB up", keys: ["Shift+ArrowUp"], run: (_d, s) => nudge(s, 0.1) },
    { id: "down-01", title: "0.1 dB down", keys: ["Shift+ArrowDown"], run: (_d, s) => nudge(s, -0.1) },
    { id: "up-3", title: "3 dB up", keys: ["Ctrl+ArrowUp"], run: (_d, s) => nudge(s, 3) },
    { id: "down-3", title: "3 dB down", keys: ["Ctrl+ArrowDown"], run: (_d, s) => nudge(s, -3) },
    {
      id: "dip",
      title: "Dip the range by the last amount",
      keys: ["D"],
      run: (_d, s) => void changeRange(s, { edit: "dip-range", by: s.settings.by }),
    },
    {
      id: "silence",
      title: "Silence the range",
      keys: ["Shift+D"],
      run: (_d, s) => void changeRange(s, { edit: "set-range", level: "silence" }),
    },
    {
      id: "reset-range",
      title: "Reset the range",
      keys: ["Z"],
      run: (_d, s) => void changeRange(s, { edit: "reset-range" }),
    },
    {
      id: "clear",
      title: "Clear the buried speech at hand: dip what covers it",
      keys: ["S"],
      run: clearStretch,
    },
    {
      id: "even-up",
      title: "Even up the selected clips…",
      keys: ["Shift+K"],
      run: (d, s) => withClips(s, "Select the clips to bring to one level.", () => d.show("even-up")),
    },
    {
      id: "even-colour",
      title: "Even up the colour of the selected clips…",
      keys: ["Shift+Q"],
      run: (d, s) =>
        withClips(s, "Select the clips to bring to the colour of another.", () => d.show("even-colour")),
    },
    {
      id: "steady",
      title: "Steady the speech in the selected clips…",
      keys: ["Shift+S"],
      run: (d, s) => withClips(s, "Select the clips whose speech is to be steadied.", () => d.show("steady")),
    },
    {
      id: "duck",
      title: "Bring ducking up to date with the speech",
      keys: ["Shift+U"],
      run: (d, s) =>
        s.rules.length ? void runRules(d.store) : refuse(s, "There is no rule yet. Make one under “Duck”."),
    },
    {
      id: "tame",
      title: "Tame the peaks of the range or the clips",
      keys: ["T"],
      run: (_d, s) => void tameAll(s),
    },
    { id: "keyframe", title: "A keyframe at the playhead", keys: ["K"], run: addKeyframe },
    {
      id: "from-previous",
      title: "Take the level of the previous keyframe",
      keys: ["P"],
      run: (_d, s) => copyNeighbour(s, "previous"),
    },
    {
      id: "from-next",
      title: "Take the level of the next keyframe",
      keys: ["Shift+P"],
      run: (_d, s) => copyNeighbour(s, "next"),
    },
    { id: "fade-in", title: "Fade in up to the playhead", keys: ["F"], run: (d, s) => fadeTo(d, s, "in") },
    {
      id: "fade-out",
      title: "Fade out from the playhead",
      keys: ["Shift+F"],
      run: (d, s) => fadeTo(d, s, "out"),
    },
    {
      id: "cross-over",
      title: "Cross over with the next clip, or the two selected",
      keys: ["Ctrl+/"],
      run: (_d, s) => crossOver(s),
    },
    {
      id: "clip-mute",
      title: "Mute the selected clips, or let them be heard",
      keys: ["Shift+M"],
      run: (_d, s) =>
        withClips(s, "Select the clips to mute.", () => {
          const muted = selectedClips(s).some((c) => !c.muted);
          void s.edit({ edit: "set-clips-muted", clips: s.selected, muted });
        }),
    },
    { id: "copy", title: "Copy the levels of the clip", keys: ["Ctrl+C"], run: (_d, s) => copyLevels(s) },
    { id: "paste", title: "Paste levels to the clips", keys: ["Ctrl+V"], run: (_d, s) => pasteLevels(s) },
    {
      id: "spread-range",
      title: "Spread the clip’s level over the range",
      keys: ["H"],
      run: (_d, s) => spread(s, "range"),
    },
    {
      id: "spread-track",
      title: "Spread the clip’s level over its track",
      keys: ["Shift+H"],
      run: (_d, s) => spread(s, "track"),
    },
  ],
};
