import type { Filters } from "@/api/schema";
import { CORE } from "@/preview/constants";

/** Seconds that filters hear before what they make is let through, and in which it takes the place of what was before. */
const RUN_UP = 0.1;
const CROSSFADE = 0.03;

/**
 * Filters one after the other, asked to be what the core's are. Their last output; the input itself where there are none. Nodes with coefficients of one's own would
 * each take 40 ms to make: they listen to themselves ring out first.
 */
export function through(context: BaseAudioContext, input: AudioNode, filters: Filters): AudioNode {
  return filters.reduce<AudioNode>(
    (before, { kind, hertz, q, db }) =>
      before.connect(
        new BiquadFilterNode(context, {
          type: kind,
          frequency: hertz,
          Q: kind === "highpass" ? 20 * Math.log10(q) : q,
          gain: db,
        }),
      ),
    input,
  );
}

const bus = (context: BaseAudioContext, gain = 1) =>
  new GainNode(context, { gain, channelCount: 2, channelCountMode: "explicit" });

/** The band of speech in what passes, and how much of it is left: N(x) + g·(x − N(x)), as in the core. */
export class BandStage {
  readonly output: AudioNode;
  readonly left: AudioParam;

  constructor(context: BaseAudioContext, input: AudioNode) {
    const output = bus(context);
    const taken = bus(context);
    const without = through(context, input, [...CORE.filters.speechBand]);
    without.connect(output);
    without.connect(bus(context, -1)).connect(taken);
    input.connect(taken);
    taken.connect(output);
    this.output = output;
    this.left = taken.gain;
  }
}

/** Filters that may become others while it plays: the new ones listen for a moment, and then take the place of the old. */
export class ColourStage {
  readonly input: GainNode;
  readonly output: GainNode;
  private last: GainNode;
  private known = "[]";

  constructor(private readonly context: BaseAudioContext) {
    this.input = bus(context);
    this.output = bus(context);
    this.last = bus(context);
    this.input.connect(this.last).connect(this.output);
  }

  /** @param sounds whether something may be sounding, so that one has to go over into the other */
  set(filters: Filters = [], sounds: boolean): void {
    const wanted = JSON.stringify(filters);
    if (wanted === this.known) return;
    this.known = wanted;
    const before = this.last;
    const entry = bus(this.context);
    this.input.connect(entry);
    this.last = bus(this.context, sounds ? 0 : 1);
    through(this.context, entry, filters).connect(this.last).connect(this.output);
    if (!sounds) {
      before.disconnect();
      return;
    }
    const at = this.context.currentTime + RUN_UP;
    this.last.gain.setValueAtTime(0, at);
    this.last.gain.linearRampToValueAtTime(1, at + CROSSFADE);
    before.gain.setValueAtTime(1, at);
    before.gain.linearRampToValueAtTime(0, at + CROSSFADE);
    setTimeout(() => before.disconnect(), 1000 * (RUN_UP + CROSSFADE) + 300);
  }
}
