import type { Side } from "@/api/schema";
import { soundArea, xOf } from "../geometry";
import type { DrawnClip, Scene } from "../scene";
import { piecesOf } from "../bySamples";
import { SoundGain } from "../soundGain";
import { soundHeight } from "../soundHeight";
import type { Brush } from "./sound";

/** CSS px between samples from which each has a dot of its own. */
const DOTS = 5;

/** From near the wave itself, about the middle of its lane, after all gains: so that the shape of a click is found and cut. */
export function drawTrace(
  { ctx, sounds, palette }: Brush,
  scene: Scene,
  drawn: DrawnClip,
  ink: string,
  side?: Side,
): void {
  const { clip, lane } = drawn;
  const { view } = scene;
  const area = soundArea(lane, side);
  const middle = (area.top + area.bottom) / 2;
  const shift = clip.at - clip.in;
  const from = Math.max(clip.in, Math.floor(view.start - shift) - 1);
  const to = Math.min(clip.in + clip.length, Math.ceil(view.start + scene.width * view.perPx - shift) + 2);
  ctx.fillStyle = palette.line;
  ctx.fillRect(xOf(view, from + shift), middle, (to - from) / view.perPx, 0.6);
  const pieces = from < to ? piecesOf(sounds.samples, clip.source, from, to) : null;
  if (!pieces) return;
  const gain = SoundGain.of(drawn, side);
  const opaque = ctx.globalAlpha;
  ctx.strokeStyle = ink;
  ctx.fillStyle = ink;
  ctx.lineWidth = 1.3;
  ctx.lineJoin = "round";
  const channels = pieces[0]?.channels(side).length ?? 0;
  // The right channel lies behind the left one, fainter.
  for (let c = channels - 1; c >= 0; c--) {
    ctx.globalAlpha = opaque * (c === 0 ? 1 : 0.45);
    ctx.beginPath();
    const dots: number[] = [];
    for (const piece of pieces) {
      const samples = piece.channels(side)[c];
      for (let at = Math.max(from, piece.from); at < Math.min(to, piece.to); at++) {
        const value = (samples?.[at - piece.from] ?? 0) * gain.at(at);
        const size = (soundHeight(Math.abs(value), "linear") * (area.bottom - area.top)) / 2;
        const [x, y] = [xOf(view, at + shift), middle - Math.sign(value) * size];
        ctx.lineTo(x, y);
        if (view.perPx * DOTS <= 1) dots.push(x, y);
      }
    }
    ctx.stroke();
    for (let i = 0; i < dots.length; i += 2)
      ctx.fillRect((dots[i] ?? 0) - 1.6, (dots[i + 1] ?? 0) - 1.6, 3.2, 3.2);
  }
  ctx.globalAlpha = opaque;
}
