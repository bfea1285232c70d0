import { Segments, SEGMENT_SECONDS } from "../../src/player/segments";
import { StemBus, TrackStrip } from "../../src/player/strip";
import { Voice } from "../../src/player/voice";
import type { OpenedMix, Stem } from "../../src/api/schema";
import { decibelsOf } from "../../src/lib/format";

/**
 * Plays a project with the player's own voices and strips into an OfflineAudioContext, and compares every sample with the
 * float WAV that the PHP core rendered of the same mix. Returns the largest difference in dBFS.
 */
async function residual(
  project: string,
  delivery: string,
): Promise<{ residualDbfs: number; peak: number; frames: number }> {
  const opened = (await (await fetch(`/api/projects/${project}/mix`)).json()) as OpenedMix;
  const { mix } = opened;
  const context = new OfflineAudioContext(2, mix.length, mix.rate);
  const segments = new Segments(context, async (source, number) =>
    (await fetch(`/api/sources/${source}/segments/${number}`)).arrayBuffer(),
  );
  for (const clip of mix.clips) {
    for (
      let s = Math.floor(clip.in / (SEGMENT_SECONDS * mix.rate));
      s * SEGMENT_SECONDS * mix.rate < clip.in + clip.length;
      s++
    ) {
      await segments.load(clip.source, s);
    }
  }
  const anchor = { start: 0, from: 0, rate: mix.rate };
  const programme = new GainNode(context, { gain: 10 ** (decibelsOf(mix.faders.programme) / 20) });
  programme.connect(context.destination);
  const bus = (stem: Stem) => {
    const made = new StemBus(context, programme);
    made.set(mix.faders[stem], 0, 0);
    return made;
  };
  for (const track of mix.tracks) {
    const strip = new TrackStrip(context, bus(track.stem).input);
    strip.set(track, !track.muted, 0, 0);
    strip.follow(track, anchor, 0);
    strip.writeTo(mix.length);
    for (const clip of mix.clips.filter((c) => c.track === track.id)) {
      new Voice(
        clip,
        context,
        anchor,
        segments,
        clip.ducked === false ? strip.direct : strip.input,
        0,
      ).schedule(mix.length);
    }
  }
  const played = await context.startRendering();
  const bytes = await (await fetch(`/api/deliveries/${delivery}/file`)).arrayBuffer();
  const rendered = new Float32Array(bytes.slice(bytes.byteLength - mix.length * 8));
  let worst = 0;
  let peak = 0;
  for (const channel of [0, 1]) {
    const data = played.getChannelData(channel);
    for (let i = 0; i < mix.length; i++) {
      worst = Math.max(worst, Math.abs((data[i] ?? 0) - (rendered[2 * i + channel] ?? 0)));
      peak = Math.max(peak, Math.abs(rendered[2 * i + channel] ?? 0));
    }
  }
  return { residualDbfs: 20 * Math.log10(worst), peak: 20 * Math.log10(peak), frames: played.length };
}

declare global {
  interface Window {
    residual?: typeof residual;
  }
}
window.residual = residual;
