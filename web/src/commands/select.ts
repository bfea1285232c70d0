import type { Chosen, Keyframe, WireId } from "@/api/schema";
import { newId } from "@/lib/ids";
import { onlyOne } from "@/store/chosen";
import { laneAtHand, partAtHand, type Wire, wireIn, wireOf } from "@/store/wires";
import { onceMeasured, openStretches } from "./buried";
import { clipsOf, type MixState } from "@/store/mixStore";
import { clipsInRange } from "@/scene/levels";
import { type CommandGroup, type Desk, here, refuse, selectedClips } from "./command";

/**
 * Sets one end of the range. An end set before the beginning swaps the two, and a beginning after the end opens a new range.
 * Clicks elsewhere leave such a range alone, so that one can look for its other end.
 */
function setRange(state: MixState, end: "from" | "to", at: number): void {
  const track = selectedClips(state)[0]?.track ?? partAtHand(state)?.track;
  const { from, to, tracks } = state.range ?? { from: 0, to: state.length, tracks: track ? [track] : null };
  const ends =
    end === "from"
      ? { from: at, to: to > at ? to : Math.max(state.length, at + 1) }
      : at > from
        ? { from, to: at }
        : { from: at, to: from };
  if (ends.to > ends.from) state.set({ range: { ...ends, tracks, marked: true } });
  else refuse(state, "A range must end after it starts: move the playhead first.");
}

function chooseAllClips(state: MixState): void {
  const clips = state.tracks.flatMap((t) => clipsOf(state.clips, t.id).map((c) => c.id));
  if (clips.length) state.set({ selected: clips, chosen: [], range: null });
  else refuse(state, "There are no clips yet.");
}

/** The wires whose keyframes are gone through or chosen: those under the range, the lane at hand, or the selected clips. */
function wiresAtHand(state: MixState): Wire[] {
  const { range, selected } = state;
  const lane = laneAtHand(state);
  const ids: WireId[] = lane
    ? [lane]
    : (range ? clipsInRange(state, range) : selected).map((clip) => ({ clip }));
  return ids.map((id) => wireIn(state, id)).filter((wire) => wire !== null);
}

/** To the keyframe before or after; when there is none, says why. */
function stepKeyframe(desk: Desk, state: MixState, by: 1 | -1): void {
  const now = onlyOne(state.chosen);
  const [clip] = selectedClips(state);
  const id = now?.wire ?? laneAtHand(state) ?? (clip && wireOf(clip));
  const wire = id && wireIn(state, id);
  if (!wire) return refuse(state, "Select a clip first; then its keyframes can be gone through.");
  const { ahead } = wire;
  const curve = wire.curve.filter((k) => k.at >= wire.from && k.at <= wire.to);
  const from = now?.at ?? here(desk, state) + ahead;
  const found: Keyframe | undefined =
    by > 0 ? curve.find((k) => k.at > from) : curve.findLast((k) => k.at < from);
  if (!found) {
    const where = by > 0 ? "after" : "before";
    const why = curve.length ? `no keyframe ${where} this one` : "no keyframes";
    return refuse(state, `“${wire.name}” has ${why}.`);
  }
  state.set({
    chosen: [{ ...wire.id, keyframes: [found.at] }],
    selected: "clip" in wire.id ? [wire.id.clip] : [],
  });
  desk.player.seek(found.at - ahead);
}

function stepClip(desk: Desk, state: MixState, by: 1 | -1): void {
  const now = selectedClips(state)[0];
  const track = now?.track ?? state.tracks[0]?.id;
  const clips = track ? clipsOf(state.clips, track) : [];
  const at = now ? clips.findIndex((c) => c.id === now.id) : -1;
  const next = clips[at + by];
  if (!next) return refuse(state, `There is no clip ${by > 0 ? "after" : "before"} this one on its track.`);
  state.select(next.id);
  desk.player.seek(next.at);
}

/** The keyframes under the range, or all of the lane at hand or of the selected clips. */
function chooseKeyframes(state: MixState): void {
  const { range } = state;
  const chosen = wiresAtHand(state).flatMap((wire): Chosen[] => {
    const keyframes = wire.curve
      .filter((k) => {
        const at = k.at - wire.ahead;
        return range ? at >= range.from && at <= range.to : k.at >= wire.from && k.at <= wire.to;
      })
      .map((k) => k.at);
    return keyframes.length ? [{ ...wire.id, keyframes }] : [];
  });
  if (chosen.length) state.set({ chosen });
  else refuse(state, "There are no keyframes in the range, on the lane at hand, or in the selected clips.");
}

function chooseClips(state: MixState): void {
  const clips = state.range ? clipsInRange({ ...state, selected: [] }, state.range) : [];
  if (clips.length) state.set({ selected: clips, chosen: [] });
  else refuse(state, "Select a range over clips first; then this selects them.");
}

function stepMarker(desk: Desk, state: MixState, by: 1 | -1): void {
  const now = here(desk, state);
  const found =
    by > 0 ? state.markers.find((m) => m.at > now) : state.markers.findLast((m) => m.at < now - 1);
  if (found) desk.player.seek(found.at);
  else refuse(state, `There is no marker ${by > 0 ? "after" : "before"} the playhead.`);
}

function stepBuried(desk: Desk, state: MixState, by: 1 | -1): void {
  const stretches = openStretches(state);
  const from = state.stretch ?? here(desk, state);
  const found = by > 0 ? stretches.find((b) => b.from > from) : stretches.findLast((b) => b.from < from);
  if (!found)
    return refuse(
      state,
      stretches.length
        ? `There is no buried speech ${by > 0 ? "after" : "before"} this.`
        : "No speech is buried.",
    );
  state.set({ stretch: found.from });
  desk.player.seek(found.from);
}

export const SELECT: CommandGroup = {
  title: "Select and mark",
  commands: [
    {
      id: "range-in",
      title: "The range starts here",
      keys: ["I"],
      run: (d, s) => setRange(s, "from", here(d, s)),
    },
    {
      id: "range-out",
      title: "The range ends here",
      keys: ["O"],
      run: (d, s) => setRange(s, "to", here(d, s)),
    },
    {
      id: "keyframe-before",
      title: "The keyframe before",
      keys: ["B"],
      run: (d, s) => stepKeyframe(d, s, -1),
    },
    { id: "keyframe-after", title: "The keyframe after", keys: ["N"], run: (d, s) => stepKeyframe(d, s, 1) },
    { id: "clip-before", title: "The clip before", keys: ["PageUp"], run: (d, s) => stepClip(d, s, -1) },
    { id: "clip-after", title: "The clip after", keys: ["PageDown"], run: (d, s) => stepClip(d, s, 1) },
    {
      id: "choose-keyframes",
      title: "All keyframes of the range or the clips",
      keys: ["E"],
      run: (_d, s) => chooseKeyframes(s),
    },
    {
      id: "choose-clips",
      title: "All clips under the range",
      keys: ["Shift+E"],
      run: (_d, s) => chooseClips(s),
    },
    { id: "all-clips", title: "All clips", keys: ["Ctrl+A"], run: (_d, s) => chooseAllClips(s) },
    {
      id: "next-buried",
      title: "The next buried speech",
      keys: ["G"],
      run: (d) => onceMeasured(d.store, (s) => stepBuried(d, s, 1)),
    },
    {
      id: "previous-buried",
      title: "The buried speech before",
      keys: ["Shift+G"],
      run: (d) => onceMeasured(d.store, (s) => stepBuried(d, s, -1)),
    },
    {
      id: "marker",
      title: "Set a marker",
      keys: ["M"],
      run: (d, s) =>
        void s.edit({
          edit: "add-marker",
          marker: newId("marker"),
          at: here(d, s),
          name: `Marker ${s.markers.length + 1}`,
        }),
    },
    { id: "marker-before", title: "The marker before", keys: ["<"], run: (d, s) => stepMarker(d, s, -1) },
    { id: "marker-after", title: "The marker after", keys: [">"], run: (d, s) => stepMarker(d, s, 1) },
    {
      id: "let-go",
      title: "Give up a drag, then the keyframes, the range, the clips",
      keys: ["Escape"],
      run: (_d, s) => {
        if (s.chosen.length) s.set({ chosen: [], notice: null });
        else if (s.range) s.set({ range: null, looping: false, notice: null });
        else s.set({ selected: [], notice: null });
      },
    },
  ],
};
