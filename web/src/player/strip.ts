import type { Level, Stretch, Track } from "@/api/schema";
import { decibelsOf } from "@/lib/format";
import { levelLane, panLane, panOn } from "@/preview/lanes";
import { gainAt } from "@/preview/schedule";
import { type GivingWay, givingWay } from "@/store/screen";
import { Envelope } from "./envelope";
import { BandStage, ColourStage } from "./filters";
import { LevelMeter } from "./meter";
import { type Anchor, timeAt } from "./voice";

const ratioOf = (level: Level) => 10 ** (decibelsOf(level) / 20);

/**
 * A track in the audio graph. Clips that give way come together in `input` and may lose the band of speech, others in `direct`; then come
 * its colour, lanes, fader, what is listened to, and pan: the order that the core renders in.
 */
export class TrackStrip {
  readonly input: GainNode;
  readonly direct: GainNode;
  private band: BandStage | null = null;
  private readonly colour: ColourStage;
  private readonly moves: GainNode;
  private readonly fader: GainNode;
  private readonly gate: GainNode;
  private readonly pan: StereoPannerNode;
  readonly meter: LevelMeter;
  private envelopes: Envelope[] = [];
  private pans: { points: { at: number; pan: number }[]; next: number; anchor: Anchor } | null = null;
  /** Level and pan that a hand holds; null where the lanes are followed. */
  private held: { level: number | null; pan: number | null } = { level: null, pan: null };

  constructor(
    private readonly context: BaseAudioContext,
    private output: AudioNode,
  ) {
    // Always two channels, so that mono and stereo clips pan by the same law, as in the core.
    const bus = () => new GainNode(context, { channelCount: 2, channelCountMode: "explicit" });
    this.input = bus();
    this.direct = bus();
    this.colour = new ColourStage(context);
    this.moves = new GainNode(context);
    this.fader = new GainNode(context, { gain: 0 });
    this.gate = new GainNode(context);
    this.pan = new StereoPannerNode(context);
    this.input.connect(this.colour.input);
    this.direct.connect(this.colour.input);
    this.colour.output
      .connect(this.moves)
      .connect(this.fader)
      .connect(this.gate)
      .connect(this.pan)
      .connect(output);
    this.meter = new LevelMeter(context, this.pan);
  }

  /** Another way out, when the track becomes of another stem. */
  leadTo(output: AudioNode): void {
    if (output === this.output) return;
    this.pan.disconnect(this.output);
    this.pan.connect(output);
    this.output = output;
  }

  /** All that does not move by itself. */
  set(track: Track, heard: boolean, at: number, glide: number): void {
    turn(this.gate.gain, heard ? 1 : 0, at, glide);
    this.colour.set(track.filters, glide > 0);
    turn(this.fader.gain, levelLane(track).length ? 1 : ratioOf(track.fader), at, glide);
    if (!panLane(track).length && this.held.pan === null) turn(this.pan.pan, track.pan, at, glide);
  }

  /**
   * Follows the lanes from a position on.
   *
   * @param giving how it gives way, in place of the track's own lanes while a rule is tried
   */
  follow(track: Track, anchor: Anchor, from: number, giving: GivingWay = givingWay(track)): void {
    const at = Math.max(0, timeAt(anchor, from));
    const timeOf = (position: number) => timeAt(anchor, position);
    this.envelopes = [];
    const write = (param: AudioParam, schedule: Stretch[] | undefined) => {
      hold(param, at);
      if (schedule?.length) this.envelopes.push(new Envelope(param, schedule, timeOf, from));
      else param.setValueAtTime(1, at);
    };
    write(this.input.gain, giving.all);
    if (giving.band?.length) this.band ??= this.withBand();
    if (this.band) write(this.band.left, giving.band);
    if (this.held.level === null) write(this.moves.gain, track.levels);
    const points = panLane(track);
    this.pans = null;
    if (points.length && this.held.pan === null) {
      hold(this.pan.pan, at);
      this.pan.pan.setValueAtTime(panOn(points, from, track.pan), at);
      this.pans = { points, next: points.findIndex((p) => p.at > from), anchor };
    }
  }

  private withBand(): BandStage {
    this.input.disconnect();
    const band = new BandStage(this.context, this.input);
    band.output.connect(this.colour.input);
    return band;
  }

  /** Writes the lanes up to a position. */
  writeTo(position: number): void {
    for (const envelope of this.envelopes) envelope.writeTo(position);
    const { pans } = this;
    if (!pans || pans.next < 0) return;
    for (let point = pans.points[pans.next]; point; point = pans.points[++pans.next]) {
      this.pan.pan.linearRampToValueAtTime(point.pan, timeAt(pans.anchor, point.at));
      if (point.at > position) {
        pans.next++;
        return;
      }
    }
  }

  /** A hand on the fader, dB, or on the pan: what is in the lanes is not followed meanwhile. */
  ride(part: "level" | "pan", value: number | null, hasLane: boolean): void {
    const now = this.context.currentTime;
    this.held[part] = value;
    if (value === null) return;
    const param = part === "pan" ? this.pan.pan : hasLane ? this.moves.gain : this.fader.gain;
    if (part === "level" && hasLane)
      this.envelopes = this.envelopes.filter((envelope) => !envelope.writes(this.moves.gain));
    if (part === "pan") this.pans = null;
    hold(param, now);
    param.setTargetAtTime(part === "pan" ? value : value <= -60 ? 0 : 10 ** (value / 20), now, 0.01);
  }

  /**
   * A control that was let go of goes from where it is to where its lane will have it, straight in dB, as the ride is stored.
   *
   * @param position where the lane takes over, `glide` seconds from now
   */
  glideBack(part: "level" | "pan", track: Track, position: number, glide: number): void {
    const { currentTime: now } = this.context;
    const param = part === "pan" ? this.pan.pan : levelLane(track).length ? this.moves.gain : this.fader.gain;
    hold(param, now);
    if (part === "pan") {
      param.linearRampToValueAtTime(panOn(panLane(track), position, track.pan), now + glide);
      return;
    }
    const target = levelLane(track).length ? gainAt(track.levels ?? [], position) : ratioOf(track.fader);
    if (target > 0) param.exponentialRampToValueAtTime(target, now + glide);
    else param.linearRampToValueAtTime(0, now + glide);
  }

  close(): void {
    this.pan.disconnect();
  }
}

/** Leaves a parameter where it is at a moment, and forgets what was to come. */
function hold(param: AudioParam, at: number): void {
  if ("cancelAndHoldAtTime" in param) param.cancelAndHoldAtTime(at);
  else (param as AudioParam).cancelScheduledValues(at);
}

function turn(param: AudioParam, value: number, at: number, glide: number): void {
  if (glide === 0) {
    param.setValueAtTime(value, at);
  } else {
    param.cancelScheduledValues(at);
    param.setTargetAtTime(value, at, glide);
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

  set(fader: Level, at: number, glide: number): void {
    turn(this.input.gain, ratioOf(fader), at, glide);
  }
}
