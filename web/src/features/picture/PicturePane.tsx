import { useQuery } from "@tanstack/react-query";
import { ChevronDown, ChevronUp } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { api } from "@/api/client";
import type { Picture } from "@/api/schema";
import { useMoment, usePlayer } from "@/player";
import { frameAt, sampleOfFrame } from "@/preview/timecode";
import { useMix, useMixStore } from "@/store/context";
import { DetachedPicture } from "./DetachedPicture";

/** Farther off than this while playing, the picture is set right; nearer, the eye does not see it. Seconds. */
const TOLERANCE = 0.06;

/** The picture that belongs to the moment: in step with the sound, frame by frame when it stands, and out of the way on demand. */
export function PicturePane() {
  const project = useMix((s) => s.project.id);
  const strip = useMix((s) => s.strip);
  const [aside, setAside] = useState(() => localStorage.getItem("wattage-picture") === "aside");
  const showing = useShowing(strip);
  const { data = [] } = useQuery({
    queryKey: ["sources", project],
    queryFn: () => api.sources(project),
    enabled: strip.length > 0,
    refetchInterval: (query) => (query.state.data?.some((s) => s.picture === "making") ? 1000 : false),
  });
  if (strip.length === 0) return null;
  const state = data.find((s) => s.id === showing?.source)?.picture;
  const put = () => {
    localStorage.setItem("wattage-picture", aside ? "here" : "aside");
    setAside(!aside);
  };
  return (
    <section aria-label="Picture" className="border-b border-line">
      <button
        type="button"
        className="flex w-full cursor-pointer items-center justify-between min-h-6 px-3 py-1 text-faint"
        aria-expanded={!aside}
        onClick={put}
      >
        <span className="caps">Picture</span>
        {aside ? <ChevronDown size={14} aria-hidden /> : <ChevronUp size={14} aria-hidden />}
        <span className="sr-only">{aside ? "show the picture" : "put the picture aside"}</span>
      </button>
      {!aside && (
        <div className="relative aspect-video bg-black">
          {showing && state === "ready" ? (
            <Screen key={showing.source} picture={showing} />
          ) : (
            <p className="absolute inset-0 grid place-content-center px-4 text-center text-[12px] text-[#cfc8b8]">
              {!showing
                ? "No picture at this moment"
                : state === "failed"
                  ? "The picture of this file cannot be shown"
                  : "The picture is being made; the sound is ready"}
            </p>
          )}
        </div>
      )}
      {!aside && showing && <DetachedPicture id={showing.id} />}
    </section>
  );
}

/** The part of the strip under the playhead, also while playing. */
function useShowing(strip: Picture[]): Picture | null {
  const at = useMoment();
  return strip.find((p) => at >= p.at && at < p.at + p.length) ?? null;
}

function Screen({ picture }: { picture: Picture }) {
  const player = usePlayer();
  const store = useMixStore();
  const video = useRef<HTMLVideoElement>(null);
  const playing = useMix((s) => s.playing);
  const playhead = useMix((s) => s.playhead);
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
