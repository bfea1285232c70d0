import type { MixState } from "@/store/mixStore";

/** Says of what sounds in the selected range whether it is speech; across all tracks it is meant of those of speech. */
export async function markRange(state: MixState, as: "speech" | "other" | "found"): Promise<void> {
  const { range, tracks, edit, set } = state;
  if (!range) {
    set({ notice: { kind: "error", text: "Select a range over the speech first." } });
    return;
  }
  const meant = range.tracks ?? tracks.filter((t) => t.stem === "speech").map((t) => t.id);
  if (meant.length === 0) {
    set({ notice: { kind: "error", text: "There is no track of speech." } });
    return;
  }
  await edit({ edit: "mark-speech", tracks: meant, from: range.from, to: range.to, as });
}
