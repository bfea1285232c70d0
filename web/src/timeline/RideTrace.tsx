import { useEffect, useRef, memo } from "react";
import { usePlayer } from "@/player";
import { useRecorder } from "@/ride";
import { useMix } from "@/store/context";
import { isArmed } from "@/store/screen";
import { type Layout, type View, xOf, yOfDb } from "@/scene/geometry";

interface Props {
  layout: Layout;
  view: View;
  width: number;
  height: number;
  scrollTop: number;
}

/** What a ride writes, drawn while it is written: a strong line in copper, which stays until the lane itself has come. */
export const RideTrace = memo(function RideTrace(props: Props) {
  const riding = useMix((s) => (s.playing || s.keeping) && s.tracks.some((t) => isArmed(s.modes, t.id)));
  return riding ? <Trace {...props} /> : null;
});

function Trace({ layout, view, width, height, scrollTop }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const player = usePlayer();
  const recorder = useRecorder();
  useEffect(() => {
    const element = canvas.current;
    const ctx = element?.getContext("2d");
    if (!element || !ctx) return;
    const ratio = window.devicePixelRatio || 1;
    element.width = Math.round(width * ratio);
    element.height = Math.round(height * ratio);
    const copper = getComputedStyle(document.documentElement).getPropertyValue("--copper").trim();
    let frame = 0;
    const draw = () => {
      ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
      ctx.clearRect(0, 0, width, height);
      ctx.translate(0, -scrollTop);
      ctx.strokeStyle = ctx.fillStyle = copper;
      ctx.lineWidth = 3;
      ctx.lineJoin = "round";
      for (const { track, samples, whole, live } of recorder.traces) {
        const lane = layout.lanes.find((l) => l.track.id === track);
        if (!lane || samples.length === 0) continue;
        ctx.beginPath();
        let held = false;
        for (const [at, level, hand] of samples) {
          const [x, y] = [xOf(view, at), yOfDb(lane, level)];
          if (held || (whole && at !== samples[0]?.[0])) ctx.lineTo(x, y);
          else ctx.moveTo(x, y);
          held = hand === 1;
        }
        const last = samples.at(-1);
        if (live && last) {
          const [x, y] = [xOf(view, player.position), yOfDb(lane, last[1])];
          ctx.lineTo(x, y);
          ctx.stroke();
          ctx.beginPath();
          ctx.arc(x, y, 5, 0, 2 * Math.PI);
          ctx.fill();
        } else ctx.stroke();
      }
      frame = requestAnimationFrame(draw);
    };
    draw();
    return () => cancelAnimationFrame(frame);
  }, [player, recorder, layout, view, width, height, scrollTop]);
  return (
    <canvas
      ref={canvas}
      aria-hidden
      data-testid="ride-trace"
      className="pointer-events-none absolute left-0 z-10"
      style={{ width, height, top: scrollTop }}
    />
  );
}
