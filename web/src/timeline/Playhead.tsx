import { useEffect, useEffectEvent, useRef, memo } from "react";
import { usePlayer } from "@/player";
import { useMix, useMixStore } from "@/store/context";
import type { View } from "@/scene/geometry";
import { clampView } from "@/scene/viewport";

interface Props {
  view: View;
  width: number;
  height: number;
  horizonTop: number;
  setView: (change: (view: View) => View) => void;
}

/** A line moved by itself once a frame, so that nothing else is drawn anew while playing. */
export const Playhead = memo(function Playhead({ view, width, height, horizonTop, setView }: Props) {
  const line = useRef<HTMLDivElement>(null);
  const player = usePlayer();
  const store = useMixStore();
  const playing = useMix((s) => s.playing);
  const playhead = useMix((s) => s.playhead);
  useEffect(() => {
    let frame = 0;
    const draw = () => {
      const position = playing ? player.position : store.getState().playhead;
      const x = (position - view.start) / view.perPx;
      if (line.current) {
        line.current.style.transform = `translateX(${x}px)`;
        line.current.style.visibility = x < -1 || x > width ? "hidden" : "visible";
      }
      // The page turns when the playhead reaches its edge.
      if (playing && x > width * 0.97 && x < width * 1.2)
        setView((v) =>
          clampView({ ...v, start: position - width * 0.06 * v.perPx }, width, store.getState()),
        );
      if (playing) frame = requestAnimationFrame(draw);
    };
    draw();
    return () => cancelAnimationFrame(frame);
  }, [player, store, playing, playhead, view, width, setView]);
  // Put elsewhere, it is shown there. Where it stood at first, or where playing has stopped, one may look at something else.
  const before = useRef<{ playing: boolean } | null>(null);
  const show = useEffectEvent((at: number, playing: boolean) => {
    const x = (at - view.start) / view.perPx;
    const stopped = before.current?.playing && !playing;
    if (before.current && !stopped && width > 0 && (x < 0 || x > width))
      setView((v) => clampView({ ...v, start: at - width * 0.06 * v.perPx }, width, store.getState()));
    before.current = { playing };
  });
  useEffect(() => show(playhead, playing), [playhead, playing]);
  return (
    <div
      ref={line}
      aria-hidden
      className="pointer-events-none absolute top-0 left-0 z-10 w-0"
      style={{ height }}
    >
      <div className="absolute inset-y-0 -left-[0.75px] w-[1.5px] bg-ink" />
      <div className="absolute -left-[5px] size-[10px] rotate-45 bg-ink" style={{ top: horizonTop - 4 }} />
    </div>
  );
});
