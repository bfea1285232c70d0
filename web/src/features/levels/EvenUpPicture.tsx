import { useCallback } from "react";
import type { EvenUpPlan } from "@/api/schema";
import { useMix } from "@/store/context";
import { rangeOf } from "./bands";
import { extentOf } from "./extentOf";
import { type Plot, PlanPicture } from "./PlanPicture";

/** Where each clip lies along the time: as it is, as it would be, and the way between. */
export function EvenUpPicture({ rows }: { rows: EvenUpPlan["rows"] }) {
  const clips = useMix((s) => s.clips);
  const draw = useCallback(
    (plot: Plot) => {
      for (const row of rows) {
        const clip = clips[row.clip];
        if (clip && row.now !== null)
          drawRow(plot, clip.at, clip.at + clip.length, row.now, row.after ?? row.now);
      }
    },
    [rows, clips],
  );
  const shown = rows.map((row) => row.clip);
  if (!shown.some((id) => clips[id])) return null;
  return (
    <PlanPicture
      label="Level of each clip, before and after"
      {...extentOf(clips, shown)}
      levels={rangeOf(rows.flatMap((row) => [row.now, row.after]))}
      draw={draw}
    >
      Each clip in dBFS: grey as it is, copper as it would be. Press to hear it from there; the wheel looks
      closer.
    </PlanPicture>
  );
}

function drawRow({ ctx, x, y, palette }: Plot, from: number, to: number, now: number, after: number): void {
  const left = x(from);
  const width = Math.max(3, x(to) - left - 1);
  const [before, then] = [y(now), y(after)];
  ctx.fillStyle = palette.copper;
  ctx.globalAlpha = 0.16;
  ctx.fillRect(left, Math.min(before, then), width, Math.abs(before - then));
  ctx.globalAlpha = 1;
  ctx.fillStyle = palette.faint;
  ctx.fillRect(left, before - 1, width, 2);
  ctx.fillStyle = palette.copper;
  ctx.fillRect(left, then - 1.5, width, 3);
}
