import { Slider } from "radix-ui";
import { useContext, useState } from "react";
import type { Track } from "@/api/types";
import { RecorderContext } from "@/features/ride";
import { useMixStore } from "@/store/context";

/** Where a track stands between left and right. Double-click goes to the centre. */
export function PanSlider({
  track,
  disabled,
  className,
}: {
  track: Track;
  disabled: boolean;
  className: string;
}) {
  const store = useMixStore();
  const recorder = useContext(RecorderContext);
  const [dragged, setDragged] = useState<number | null>(null);
  const pan = dragged ?? track.pan;
  const text =
    Math.abs(pan) < 0.005 ? "centre" : `${Math.round(Math.abs(pan) * 100)} ${pan < 0 ? "left" : "right"}`;
  return (
    <>
      <Slider.Root
        className={`relative flex h-4 touch-none items-center ${className}`}
        min={-1}
        max={1}
        step={0.01}
        disabled={disabled}
        value={[pan]}
        onValueChange={([v = 0]) => {
          setDragged(v);
          recorder?.note(track.id, "pan", v, true);
        }}
        onValueCommit={([v = 0]) => {
          const near = Math.abs(v) < 0.04 ? 0 : v;
          if (recorder?.isRiding(track.id)) {
            recorder.note(track.id, "pan", near, false);
            setDragged(null);
            return;
          }
          void store
            .getState()
            .edit({ edit: "set-pan", track: track.id, pan: near })
            .then(() => setDragged(null));
        }}
        onDoubleClick={() => void store.getState().edit({ edit: "set-pan", track: track.id, pan: 0 })}
      >
        <Slider.Track className="relative h-px flex-1 bg-line">
          <span aria-hidden className="absolute -top-[3px] left-1/2 h-[7px] w-px bg-faint" />
        </Slider.Track>
        <Slider.Thumb
          className="block size-[9px] rounded-full border border-faint bg-sheet"
          aria-label={`Pan of ${track.name}`}
          aria-valuetext={text}
        />
      </Slider.Root>
      <span className="figure text-[11px] text-faint">{text}</span>
    </>
  );
}
