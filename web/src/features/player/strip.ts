import type { Track } from "@/api/types";
import { decibelsOf } from "@/lib/format";
import { LevelMeter } from "./meter";

/** A track in the audio graph: its clips come together, then fader, pan and meter. */
export class TrackStrip {
  readonly input: GainNode;
  private readonly level: GainNode;
  private readonly pan: StereoPannerNode;
  readonly meter: LevelMeter;

  constructor(
    context: BaseAudioContext,
    private output: AudioNode,
  ) {
    // Always two channels, so that mono and stereo clips pan by the same law, as in the core.
    this.input = new GainNode(context, { channelCount: 2, channelCountMode: "explicit" });
    this.level = new GainNode(context, { gain: 0 });
    this.pan = new StereoPannerNode(context);
    this.input.connect(this.level).connect(this.pan).connect(output);
    this.meter = new LevelMeter(context, this.pan);
  }

  /** Another way out, when the track becomes of another stem. */
  leadTo(output: AudioNode): void {
    if (output === this.output) return;
    this.pan.disconnect(this.output);
    this.pan.connect(output);
    this.output = output;
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

/** A stem in the audio graph: its tracks come together. */
export class StemBus {
  readonly input: GainNode;
  readonly meter: LevelMeter;

  constructor(context: BaseAudioContext, output: AudioNode) {
    this.input = new GainNode(context);
    this.input.connect(output);
    this.meter = new LevelMeter(context, this.input);
  }
}
