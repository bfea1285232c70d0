import { formatDb } from "@/lib/format";
import { formatTimecode } from "@/preview/timecode";
import { CLIP_MARGIN, NAME_STRIP, xOf } from "@/scene/geometry";
import type { Scene } from "@/scene/scene";
import { useMix, useMixStore } from "@/store/context";

/** A button over the name of each clip, so that keyboards and screen readers reach what is painted. */
export function ClipButtons({ scene }: { scene: Scene }) {
  const store = useMixStore();
  const selected = useMix((s) => s.selected);
  const { view, width, rate, frameRate } = scene;
  return scene.clips.map(({ clip, lane }) => (
    <button
      key={clip.id}
      type="button"
      className="pointer-events-none absolute overflow-hidden rounded-sm text-transparent"
      style={{
        left: Math.max(0, xOf(view, clip.at)),
        width: Math.max(
          6,
          Math.min(width, xOf(view, clip.at + clip.length)) - Math.max(0, xOf(view, clip.at)),
        ),
        top: lane.rises ? lane.top + CLIP_MARGIN : lane.top + lane.height - CLIP_MARGIN - NAME_STRIP,
        height: NAME_STRIP,
      }}
      aria-pressed={selected.includes(clip.id)}
      onFocus={() => {
        if (selected.includes(clip.id)) return;
        // Who goes past it by keys has not asked for its levels.
        store.getState().set({ placed: clip.id });
        store.getState().select(clip.id);
      }}
      aria-label={`Clip ${clip.name} on ${lane.track.name}, ${formatTimecode(clip.at, rate, frameRate)} to ${formatTimecode(clip.at + clip.length, rate, frameRate)}, gain ${formatDb(clip.gain)} dB`}
    />
  ));
}
