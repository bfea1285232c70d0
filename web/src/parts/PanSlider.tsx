import { Slider } from "radix-ui";
import { useContext, useState } from "react";
import type { Track } from "@/api/schema";
import { useMoment } from "@/player";
import { RecorderContext } from "@/ride";
import { panAt, panLane } from "@/preview/lanes";
import { formatPan } from "@/preview/pan";
import { useMixStore } from "@/store/context";
import { useGrip } from "./useGrip";

interface Props {
  track: Track;
  disabled: boolean;
  className: string;
  /** Whether there is no room for what it reads in words. */
  bare?: boolean;
}

/** Where a track stands between left and right; by its pan lane, if it has one, at the moment heard. Double-click goes to the centre. */
export function PanSlider(props: Props) {
  const { track } = props;
  const follows = panLane(track).length > 0;
  return follows ? <Following {...props} /> : <Standing {...props} pan={track.pan} follows={false} />;
}

function Following(props: Props) {
  return <Standing {...props} pan={panAt(props.track, useMoment())} follows />;
}

function Standing({
  track,
  disabled,
  className,
  bare = false,
  pan: rest,
  follows,
}: Props & { pan: number; follows: boolean }) {
  const store = useMixStore();
  const recorder = useContext(RecorderContext);
  const [dragged, setDragged] = useState<number | null>(null);
  const pan = dragged ?? rest;
  const text = formatPan(pan);
  const set = (next: number, stood: number | null = null) => {
    const { edit, set: say } = store.getState();
    if (!follows)
      return void edit({ edit: "set-pan", track: track.id, pan: next }).then(() =>
        // Where the hand has moved on meanwhile, it still holds.
        setDragged((now) => (now === stood ? null : now)),
      );
    setDragged(null);
    const why = `“${track.name}” follows its pan lane. Ride it on the Desk, or edit the lane on the timeline.`;
    say({ notice: { kind: "error", text: why } });
  };
  const grip = useGrip((value, held) => {
    const near = Math.abs(value) < 0.04 && !held ? 0 : value;
    if (held) setDragged(value);
    if (!recorder?.isRiding(track.id)) return held || set(near, value);
    recorder.note(track.id, "pan", near, held);
    if (!held) setDragged(null);
  });
  return (
    <>
      <Slider.Root
        className={`relative flex h-6 shrink-0 touch-none items-center ${className}`}
        title={text}
        min={-1}
        max={1}
        step={0.01}
        disabled={disabled}
        value={[pan]}
        {...grip}
        onDoubleClick={() => set(0)}
      >
        <Slider.Track className="relative h-px flex-1 bg-line">
          <span aria-hidden className="absolute -top-[3px] left-1/2 h-[7px] w-px bg-faint" />
        </Slider.Track>
        <Slider.Thumb
          className="relative block size-[12px] rounded-full border border-faint bg-sheet after:absolute after:-inset-[7px] after:content-['']"
          aria-label={`Pan of ${track.name}`}
          aria-valuetext={text}
        />
      </Slider.Root>
      {!bare && <span className="figure text-note text-faint">{text}</span>}
    </>
  );
}
