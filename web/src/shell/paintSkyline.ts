import type { Buried, Clip, MixSource, Track } from "@/api/schema";
import { decibelsOf, unlinkedGain } from "@/lib/format";
import { gainAt } from "@/preview/schedule";
import type { Outlines } from "@/scene/outlines";

export const HEIGHT = 40;

interface Programme {
  clips: Record<string, Clip>;
  tracks: Track[];
  sources: Record<string, MixSource>;
  buried: Buried[] | undefined;
  moreBuried: number[][] | undefined;
  rate: number;
}

/**
 * Speech above, the rest beneath, a column for each device pixel.
 *
 * @param width CSS px
 * @param perPx samples per CSS px
 * @param ratio device px per CSS px
 */
export function paintSkyline(
  ctx: CanvasRenderingContext2D,
  programme: Programme,
  outlines: Outlines,
  width: number,
  perPx: number,
  ratio: number,
): void {
  const style = getComputedStyle(document.documentElement);
  const [above, below] = peaksOf(programme, outlines, Math.floor(width * ratio), perPx / ratio);
  const size = (a: number) => Math.min(1, a ** 0.6) * (HEIGHT / 2 - 2);
  const middle = HEIGHT / 2;
  ctx.fillStyle = style.getPropertyValue("--speech");
  above.forEach((amplitude, c) =>
    ctx.fillRect(c / ratio, middle - size(amplitude), 1 / ratio, size(amplitude)),
  );
  ctx.fillStyle = style.getPropertyValue("--music");
  ctx.globalAlpha = 0.65;
  below.forEach((amplitude, c) => ctx.fillRect(c / ratio, middle + 1, 1 / ratio, size(amplitude)));
  ctx.globalAlpha = 1;
  ctx.fillStyle = style.getPropertyValue("--ink");
  ctx.fillRect(0, HEIGHT / 2, width, 0.8);
  // Buried speech: a hatched foot under the speech, where the eye looks for it.
  ctx.fillStyle = style.getPropertyValue("--trouble");
  const open = programme.buried?.filter((b) => b.accepted === null).map((b) => [b.from, b.to]) ?? [];
  for (const [from = 0, to = 0] of [...open, ...(programme.moreBuried ?? [])]) {
    for (let x = from / perPx; x < to / perPx; x += 4) ctx.fillRect(x, 2, 2, 6);
    ctx.fillRect(from / perPx, HEIGHT / 2 - 1.5, Math.max(2, (to - from) / perPx), 3);
  }
}

/** The highest peaks of speech and of the rest, a value for each column. */
function peaksOf(
  { clips, tracks, sources, rate }: Programme,
  outlines: Outlines,
  columns: number,
  perColumn: number,
): [Float32Array, Float32Array] {
  const above = new Float32Array(columns);
  const below = new Float32Array(columns);
  const byId = new Map(tracks.map((t) => [t.id, t]));
  for (const clip of Object.values(clips)) {
    const track = byId.get(clip.track);
    const outline = outlines.get(clip.source, 320);
    if (!track || !outline || track.muted || clip.muted) continue;
    const into = track.stem === "speech" ? above : below;
    const own = decibelsOf(clip.level) + unlinkedGain(sources[clip.source]);
    const fader = 10 ** ((decibelsOf(track.fader) + own) / 20);
    const perPoint = (outline.msPerPoint * rate) / 1000;
    const last = Math.min(columns - 1, Math.floor((clip.at + clip.length) / perColumn));
    for (let c = Math.max(0, Math.floor(clip.at / perColumn)); c <= last; c++) {
      const source = Math.max(c * perColumn, clip.at) - clip.at + clip.in;
      let peak = 0;
      for (let p = Math.floor(source / perPoint); p < (source + perColumn) / perPoint; p++)
        peak = Math.max(peak, outline.points[p] ?? 0);
      into[c] = Math.max(into[c] ?? 0, (peak / 32768) * gainAt(clip.schedule, source) * fader);
    }
  }
  return [above, below];
}
