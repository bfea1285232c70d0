import type { Edit, Source } from "@/api/schema";
import { newId } from "@/lib/ids";
import { formatTimecode } from "@/preview/timecode";
import { clipsOf, type MixState, type MixStore } from "@/store/mixStore";

/**
 * Places a recording at the playhead: on the track of the clip that was selected, else on the first that is free there. Where something is
 * in the way it says what.
 */
export async function placeHere(store: MixStore, source: Source): Promise<void> {
  const state = store.getState();
  const length = source.frames ?? 1;
  const [first] = state.selected;
  const own = first === undefined || first === state.placed ? undefined : state.clips[first]?.track;
  const tracks =
    own === undefined ? state.tracks.filter((t) => !t.locked) : state.tracks.filter((t) => t.id === own);
  const track = tracks.find((t) => inTheWay(state, t.id, length) === undefined);
  const [nearest] = tracks;
  if (!track && nearest) {
    const clip = inTheWay(state, nearest.id, length);
    const from = formatTimecode(clip?.at ?? 0, state.rate, state.frameRate);
    const to = formatTimecode((clip?.at ?? 0) + (clip?.length ?? 0), state.rate, state.frameRate);
    const text = `“${clip?.name}” is in the way on ${nearest.name}, ${from} to ${to}. Put the playhead behind it, or drag the recording to where it is to lie.`;
    state.set({ notice: { kind: "error", text } });
    return;
  }
  const clip = newId("clip");
  const where = track
    ? { track: track.id }
    : { track: newId("track"), name: "Speech", stem: "speech" as const };
  const edit: Edit = { edit: "add-clip", ...where, clip, source: source.id, at: state.playhead };
  if (!(await state.edit(edit))) return;
  store.getState().set({ placed: clip });
  store.getState().select(clip);
}

function inTheWay({ clips, playhead }: MixState, track: string, length: number) {
  return clipsOf(clips, track).find((c) => c.at < playhead + length && c.at + c.length > playhead);
}
