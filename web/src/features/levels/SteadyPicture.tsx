import { useCallback } from "react";
import type { SteadyPlan } from "@/api/schema";
import { useMix } from "@/store/context";
import { type Band, bandOf, rangeOf } from "./bands";
import { type Plot, PlanPicture } from "./PlanPicture";

/** Levels that a plan tells a second. */
const PER_SECOND = 5;
/** Seconds that a band is of, at least: shorter ones show syllables and not the level. */
const SECONDS = 3;
/** Px between the points of a band. */
const STEP = 2;

/** How loud the speech of a clip is along it: a band as it is, one as it would be. */
export function SteadyPicture({ row }: { row: SteadyPlan["rows"][number] }) {
  const clip = useMix((s) => s.clips[row.clip]);
  const rate = useMix((s) => s.rate);
  const at = clip?.at ?? 0;
  const draw = useCallback(
    (plot: Plot) => {
      const perValue = rate / PER_SECOND;
      const bands = (levels: (number | null)[]) => bandsAlong(plot, levels, at, perValue);
      drawBands(plot, bands(row.levelsBefore), plot.palette.faint, 0.22);
      drawBands(plot, bands(row.levelsAfter), plot.palette.copper, 0.34);
    },
    [row, rate, at],
  );
  if (!clip) return null;
  return (
    <PlanPicture
      label="Level of the speech along the clip, before and after"
      from={at}
      to={at + clip.length}
      levels={rangeOf([...row.levelsBefore, ...row.levelsAfter])}
      draw={draw}
    >
      Speech in dBFS: grey as it is, copper as it would be. A line is the middle of {SECONDS} s or more, its
      band holds eight moments of ten. Press to hear it from there; the wheel looks closer.
    </PlanPicture>
  );
}

type Place = { x: number; band: Band | null };

function bandsAlong(
  { width, from, to, x }: Plot,
  levels: (number | null)[],
  at: number,
  perValue: number,
): Place[] {
  const perStep = ((to - from) / width) * STEP;
  const half = Math.max(perStep, SECONDS * PER_SECOND * perValue) / 2;
  return Array.from({ length: Math.ceil(width / STEP) + 1 }, (_, i) => {
    const middle = from + i * perStep - at;
    const [first, end] = [middle - half, middle + half].map((sample) => Math.round(sample / perValue));
    return { x: x(middle + at), band: bandOf(levels, first ?? 0, end ?? 0) };
  });
}

function drawBands({ ctx, y }: Plot, places: Place[], ink: string, opacity: number): void {
  ctx.fillStyle = ink;
  ctx.strokeStyle = ink;
  ctx.lineWidth = 1.8;
  for (const piece of piecesOf(places)) {
    ctx.globalAlpha = opacity;
    ctx.beginPath();
    piece.forEach(([x, band]) => ctx.lineTo(x, y(band.high)));
    [...piece].reverse().forEach(([x, band]) => ctx.lineTo(x, y(band.low)));
    ctx.fill();
    ctx.globalAlpha = 1;
    ctx.beginPath();
    piece.forEach(([x, band]) => ctx.lineTo(x, y(band.middle)));
    ctx.stroke();
  }
}

/** The stretches in which somebody speaks, each by itself. */
function piecesOf(places: Place[]): [number, Band][][] {
  const pieces: [number, Band][][] = [];
  let open = false;
  for (const { x, band } of places) {
    if (band && open) pieces.at(-1)?.push([x, band]);
    else if (band) pieces.push([[x, band]]);
    open = band !== null;
  }
  return pieces;
}
