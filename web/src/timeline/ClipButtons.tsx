import { memo } from "react";
import type { Clip } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { formatTimecode } from "@/preview/timecode";
import { CLIP_MARGIN, type Lane, NAME_STRIP, type View, xOf } from "@/scene/geometry";
import type { Scene } from "@/scene/scene";
import { useMix, useMixStore } from "@/store/context";

/** A button over the name of each clip, so that keyboards and screen readers reach what is painted. */
export function ClipButtons({ scene }: { scene: Scene }) {
  return scene.clips.map(({ clip, lane }) => (
    <ClipButton key={clip.id} clip={clip} lane={lane} view={scene.view} width={scene.width} />
  ));
}

interface Props {
  clip: Clip;
  lane: Lane;
  view: View;
  width: number;
}

/** Drawn anew where its own clip is another, and not with every move of a drag. */
const ClipButton = memo(function ClipButton({ clip, lane, view, width }: Props) {
  const store = useMixStore();
  const selected = useMix((s) => s.selected.includes(clip.id));
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  const left = Math.max(0, xOf(view, clip.at));
  const right = Math.min(width, xOf(view, clip.at + clip.length));
  const top = lane.top + CLIP_MARGIN;
  return (
    <button
      type="button"
      className="pointer-events-none absolute overflow-hidden rounded-sm text-transparent"
      style={{ left, width: Math.max(6, right - left), top, height: NAME_STRIP }}
      aria-pressed={selected}
      onFocus={() => {
        if (selected) return;
        // Who goes past it by keys has not asked for its levels.
        store.getState().set({ placed: clip.id });
        store.getState().select(clip.id);
      }}
      aria-label={`Clip ${clip.name} on ${lane.track.name}, ${formatTimecode(clip.at, rate, frameRate)} to ${formatTimecode(clip.at + clip.length, rate, frameRate)}, gain ${formatDb(clip.gain)} dB`}
    />
  );
});
