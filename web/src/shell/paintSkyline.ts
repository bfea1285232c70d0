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
  rate: number;
}

/**
 * Speech above, the rest beneath, in bars of three pixels.
 *
 * @param perPx samples
 */
export function paintSkyline(
  ctx: CanvasRenderingContext2D,
  programme: Programme,
  outlines: Outlines,
  width: number,
  perPx: number,
): void {
  const style = getComputedStyle(document.documentElement);
  const [above, below] = peaksOf(programme, outlines, width, perPx);
  const size = (a: number) => Math.min(1, a ** 0.6) * (HEIGHT / 2 - 2);
  for (let c = 0; c < above.length; c++) {
    ctx.fillStyle = style.getPropertyValue("--speech");
    const up = size(above[c] ?? 0);
    ctx.fillRect(c * 3, HEIGHT / 2 - up, 2, up);
    ctx.fillStyle = style.getPropertyValue("--music");
    ctx.globalAlpha = 0.65;
    ctx.fillRect(c * 3, HEIGHT / 2 + 1, 2, size(below[c] ?? 0));
    ctx.globalAlpha = 1;
  }
  ctx.fillStyle = style.getPropertyValue("--ink");
  ctx.fillRect(0, HEIGHT / 2, width, 0.8);
  // Buried speech: a hatched foot under the speech, where the eye looks for it.
  ctx.fillStyle = style.getPropertyValue("--trouble");
  for (const { from, to, accepted } of programme.buried ?? []) {
    if (accepted !== null) continue;
    for (let x = from / perPx; x < to / perPx; x += 4) ctx.fillRect(x, 2, 2, 6);
    ctx.fillRect(from / perPx, HEIGHT / 2 - 1.5, Math.max(2, (to - from) / perPx), 3);
  }
}

/** The highest peaks of speech and of the rest, a value for each bar. */
function peaksOf(
  { clips, tracks, sources, rate }: Programme,
  outlines: Outlines,
  width: number,
  perPx: number,
): [Float32Array, Float32Array] {
  const columns = Math.floor(width / 3);
  const above = new Float32Array(columns);
  const below = new Float32Array(columns);
  const stems = new Map(tracks.map((t) => [t.id, t]));
  for (const clip of Object.values(clips)) {
    const track = stems.get(clip.track);
    const outline = outlines.get(clip.source, 320);
    if (!track || !outline || track.muted || clip.muted) continue;
    const into = track.stem === "speech" ? above : below;
    const own = decibelsOf(clip.level) + unlinkedGain(sources[clip.source]);
    const fader = 10 ** ((decibelsOf(track.fader) + own) / 20);
    const perPoint = (outline.msPerPoint * rate) / 1000;
    for (
      let c = Math.max(0, Math.floor(clip.at / perPx / 3));
      c < columns && c * 3 * perPx < clip.at + clip.length;
      c++
    ) {
      const source = Math.max(c * 3 * perPx, clip.at) - clip.at + clip.in;
      let peak = 0;
      for (let p = Math.floor(source / perPoint); p < (source + 3 * perPx) / perPoint; p++)
        peak = Math.max(peak, outline.points[p] ?? 0);
      into[c] = Math.max(into[c] ?? 0, (peak / 32768) * gainAt(clip.schedule, source) * fader);
    }
  }
  return [above, below];
}
