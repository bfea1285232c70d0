import type { Clip, Part } from "@/api/schema";
import { decibelsOf } from "@/lib/format";
import { Envelope } from "./envelope";
import { through } from "./filters";
import { SEGMENT_SECONDS, type Segments } from "./segments";

/** Where the timeline runs on the context's clock: position `from` sounds at time `start`. */
export interface Anchor {
  start: number;
  from: number;
  /** Samples of the mix per second. */
  rate: number;
  /** How fast it runs; 1 where missing. */
  speed?: number;
}

export function timeAt(anchor: Anchor, position: number): number {
  return anchor.start + (position - anchor.from) / (anchor.rate * (anchor.speed ?? 1));
}

export function positionAt(anchor: Anchor, time: number): number {
  return anchor.from + (time - anchor.start) * anchor.rate * (anchor.speed ?? 1);
}

/** Seconds that a clip's filters hear of its source before the clip begins, where there is time for it: what the core lets them hear is far more than enough. */
const RUN_UP = 0.3;

/** One way of a clip's sound into the mix: from channel to channel, and how loud at each moment. */
interface Way {
  gain: GainNode;
  envelope: Envelope;
}

/** One clip sounding: its segments one after the other through its ways, and a fade for when it is replaced. */
export class Voice {
  private readonly input: GainNode;
  private readonly fade: GainNode;
  private readonly ways: Way[];
  private readonly playing = new Set<AudioBufferSourceNode>();
  private next: number;
  /** Position of the source at which it begins to be heard. */
  private readonly begins: number;
  private readonly segmentLength: number;
  /** Segments that could not be started in time. */
  late = 0;
  /** Whether what comes next has not come yet. */
  lacks = false;
  /** Whether that is worth waiting for: what is let in in the middle of playing is, as soon as it sounds. */
  private waits: boolean;

  /** @param from timeline position, the first to be heard of this clip */
  constructor(
    readonly clip: Clip,
    private readonly context: BaseAudioContext,
    private readonly anchor: Anchor,
    private readonly segments: Segments,
    output: AudioNode,
    from: number,
  ) {
    this.segmentLength = SEGMENT_SECONDS * anchor.rate;
    // Always two channels: mono is the same sound on both, as in the core.
    this.input = new GainNode(context, { channelCount: 2, channelCountMode: "explicit" });
    this.fade = new GainNode(context);
    const level = new GainNode(context, { gain: 10 ** (decibelsOf(clip.level) / 20) });
    this.fade.connect(level).connect(output);
    const first = Math.max(from, clip.at);
    this.waits = first === clip.at || from === anchor.from;
    const shift = clip.at - clip.in;
    this.begins = first - shift;
    this.next = this.begins - this.runUp(first);
    const coloured = this.coloured(shift);
    this.ways = clip.parts.map((part) => {
      const gain = new GainNode(context);
      route(context, coloured, part, gain);
      gain.connect(this.fade);
      const timeOf = (source: number) => timeAt(anchor, source + shift);
      return { gain, envelope: new Envelope(gain.gain, part.schedule ?? clip.schedule, timeOf, this.begins) };
    });
  }

  /** Starts all that is to sound before a timeline position. */
  schedule(until: number): void {
    const clip = this.clip;
    const shift = clip.at - clip.in;
    const end = Math.min(until - shift, clip.in + clip.length);
    this.lacks = false;
    while (this.next < end) {
      const number = Math.floor(this.next / this.segmentLength);
      const buffer = this.segments.ready(clip.source, number);
      if (!buffer && this.next < this.begins) {
        this.next = this.begins;
        continue;
      }
      if (!buffer) {
        this.lacks = true;
        this.skipWhatIsPast(shift);
        return;
      }
      const stop = Math.min((number + 1) * this.segmentLength, clip.in + clip.length);
      for (const way of this.ways) way.envelope.writeTo(stop);
      this.start(buffer, this.next - number * this.segmentLength, stop - this.next, this.next + shift);
      this.next = stop;
      this.waits = true;
    }
    // The one after, too: where many clips sound, all of them want their next one at about the same time.
    if (this.next < clip.in + clip.length)
      this.segments.ready(clip.source, Math.floor(this.next / this.segmentLength));
  }

  /** Whether it would fall silent before a time of the context's clock for want of what comes next. */
  runsOut(time: number): boolean {
    const { clip, anchor } = this;
    return this.lacks && this.waits && timeAt(anchor, this.next + clip.at - clip.in) < time;
  }

  /** Its sound through its filters: they hear what comes before the clip, and ring on after it, but only what lies within is let through. */
  private coloured(shift: number): AudioNode {
    const { clip, context, anchor } = this;
    if (!clip.filters?.length) return this.input;
    const gate = new GainNode(context, { gain: 0 });
    // A quarter of a sample early, as steps of envelopes are.
    const at = (source: number) => Math.max(0, timeAt(anchor, source + shift - 0.25));
    gate.gain.setValueAtTime(1, at(this.begins));
    gate.gain.setValueAtTime(0, at(clip.in + clip.length));
    return through(context, this.input, clip.filters).connect(gate);
  }

  /** Samples of the source that its filters can hear before the first that is to sound. */
  private runUp(first: number): number {
    if (!this.clip.filters?.length) return 0;
    const wanted = Math.min(RUN_UP * this.anchor.rate, this.begins);
    const possible = (timeAt(this.anchor, first) - this.context.currentTime - 0.02) * this.anchor.rate;
    return Math.max(0, Math.floor(Math.min(wanted, possible)));
  }

  fadeIn(at: number, seconds: number): void {
    this.fade.gain.setValueAtTime(0, at);
    this.fade.gain.linearRampToValueAtTime(1, at + seconds);
  }

  fadeOut(at: number, seconds: number): void {
    this.fade.gain.setValueAtTime(1, at);
    this.fade.gain.linearRampToValueAtTime(0, at + seconds);
    for (const node of this.playing) node.stop(at + seconds);
    setTimeout(() => this.fade.disconnect(), 1000 * (at + seconds - this.context.currentTime) + 200);
  }

  /** A segment that does not come in time must not hold up those after it. */
  private skipWhatIsPast(shift: number): void {
    const now = positionAt(this.anchor, this.context.currentTime) - shift;
    if (this.next < now) {
      this.late++;
      this.next = Math.min(Math.ceil(now + 0.1 * this.anchor.rate), this.clip.in + this.clip.length);
    }
  }

  private start(buffer: AudioBuffer, offset: number, frames: number, position: number): void {
    const speed = this.anchor.speed ?? 1;
    const node = new AudioBufferSourceNode(this.context, { buffer, playbackRate: speed });
    node.connect(this.input);
    const when = timeAt(this.anchor, position);
    const missed = this.context.currentTime - when;
    // What filters hear before the clip begins is no sound that was missed.
    if (
      this.context.currentTime >
      timeAt(this.anchor, Math.max(position, this.begins + this.clip.at - this.clip.in))
    )
      this.late++;
    const skip = Math.max(0, Math.ceil(missed * this.anchor.rate * speed));
    if (skip < frames) {
      node.start(
        timeAt(this.anchor, position + skip),
        (offset + skip) / buffer.sampleRate,
        (frames - skip) / buffer.sampleRate,
      );
      this.playing.add(node);
      node.onended = () => {
        this.playing.delete(node);
        node.disconnect();
      };
    }
  }
}

/** Connects through a matrix of gains; straight where it is the usual one. */
function route(context: BaseAudioContext, input: AudioNode, part: Part, output: AudioNode): void {
  const [ll = 1, rl = 0, lr = 0, rr = 1] = part.routing;
  if (ll === 1 && rl === 0 && lr === 0 && rr === 1) {
    input.connect(output);
    return;
  }
  const splitter = new ChannelSplitterNode(context, { numberOfOutputs: 2 });
  const merger = new ChannelMergerNode(context, { numberOfInputs: 2 });
  input.connect(splitter);
  for (const [gain, from, to] of [
    [ll, 0, 0],
    [rl, 1, 0],
    [lr, 0, 1],
    [rr, 1, 1],
  ] as const) {
    if (gain !== 0) splitter.connect(new GainNode(context, { gain }), from).connect(merger, 0, to);
  }
  merger.connect(output);
}
