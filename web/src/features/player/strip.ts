import type { Track } from "@/api/types";
import { decibelsOf } from "@/lib/format";
import { PeakMeter } from "./meter";

/** A track in the audio graph: its clips come together, then fader, pan and meter. */
export class TrackStrip {
  readonly input: GainNode;
  private readonly level: GainNode;
  private readonly pan: StereoPannerNode;
  readonly meter: PeakMeter;

  constructor(context: BaseAudioContext, output: AudioNode) {
    // Always two channels, so that mono and stereo clips pan by the same law, as in the core.
    this.input = new GainNode(context, { channelCount: 2, channelCountMode: "explicit" });
    this.level = new GainNode(context, { gain: 0 });
    this.pan = new StereoPannerNode(context);
    this.input.connect(this.level).connect(this.pan).connect(output);
    this.meter = new PeakMeter(context, this.pan);
  }

  set(track: Track, heard: boolean, at: number, glide: number): void {
    const gain = heard ? 10 ** (decibelsOf(track.fader) / 20) : 0;
    for (const [param, value] of [
      [this.level.gain, gain],
      [this.pan.pan, track.pan],
    ] as const) {
      if (glide === 0) {
        param.setValueAtTime(value, at);
      } else {
        param.cancelScheduledValues(at);
        param.setTargetAtTime(value, at, glide);
      }
    }
  }

  close(): void {
    this.pan.disconnect();
  }
}
