import { useEffect, useRef } from "react";
import type { Picture } from "@/api/schema";
import { useMoment, usePlayer } from "@/player";
import { frameAt, sampleOfFrame } from "@/preview/timecode";
import { useMix, useMixStore } from "@/store/context";

/** Farther off than this while playing, the picture is set right; nearer, the eye does not see it. Seconds. */
const TOLERANCE = 0.06;

/** The part of the strip under the playhead, also while playing; while something is dragged, that under the pointer. */
export function useShowing(): Picture | null {
  const strip = useMix((s) => s.strip);
  const moment = useMoment();
  const at = useMix((s) => s.looking) ?? moment;
  return strip.find((p) => at >= p.at && at < p.at + p.length) ?? null;
}

export function Screen({ picture }: { picture: Picture }) {
  const player = usePlayer();
  const store = useMixStore();
  const video = useRef<HTMLVideoElement>(null);
  const playing = useMix((s) => s.playing && !s.waiting && s.looking === null);
  const playhead = useMix((s) => s.looking ?? s.playhead);
  const speed = useMix((s) => s.speed);
  useEffect(() => {
    const element = video.current;
    if (!element) return;
    const { rate, frameRate } = store.getState();
    if (!playing) {
      element.pause();
      // The middle of the frame, so that rounding never shows its neighbour.
      const frame = frameAt(playhead, rate, frameRate);
      const middle = (sampleOfFrame(frame, rate, frameRate) + sampleOfFrame(frame + 1, rate, frameRate)) / 2;
      element.currentTime = Math.max(0, (middle - picture.at + picture.in) / rate);
      return;
    }
    let frame = 0;
    const follow = () => {
      const wanted = (player.position - picture.at + picture.in) / rate;
      if (Math.abs(element.currentTime - wanted) > TOLERANCE && !element.seeking)
        element.currentTime = wanted;
      if (element.paused && player.position > playhead) void element.play().catch(() => undefined);
      frame = requestAnimationFrame(follow);
    };
    element.playbackRate = speed;
    follow();
    return () => {
      cancelAnimationFrame(frame);
      element.pause();
    };
  }, [player, store, playing, playhead, picture, speed]);
  return (
    <video
      ref={video}
      data-testid="picture"
      className="absolute inset-0 size-full object-contain"
      src={`/api/sources/${picture.source}/picture`}
      muted
      playsInline
      preload="auto"
      aria-label="Picture of the programme"
    />
  );
}
