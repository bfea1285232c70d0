import type { Clip, Stem, Track } from "@/api/schema";
import { decibelsOf } from "@/lib/format";
import { levelLane } from "@/preview/lanes";
import type { MixState, MixStore } from "@/store/mixStore";
import { type GivingWay, givingWay, whyUnheard } from "@/store/screen";
import { LevelMeter, type Reading } from "./meter";
import { pitchKeeper } from "./stretcher";
import { StemBus, TrackStrip } from "./strip";
import { type Anchor, positionAt } from "./voice";

/** Seconds that a fader or a switch takes to be where it is set, so that it does not click. */
const SET = 0.008;

export interface Levels {
  programme: Reading;
  stems: Partial<Record<Stem, Reading>>;
  tracks: Record<string, Reading>;
}

/** The way from clips to the loudspeaker: a strip for each track, a bus for each stem, the programme's fader, and what keeps the pitch. */
export class Mixer {
  private readonly strips = new Map<string, TrackStrip>();
  private readonly buses = new Map<Stem, StemBus>();
  private readonly master: GainNode;
  private programme: LevelMeter;
  private keeper: { speed: number; node: AudioNode } | null = null;

  /** @param ahead seconds of a lane that are written ahead */
  constructor(
    private readonly context: AudioContext,
    private readonly store: MixStore,
    private readonly ahead: number,
  ) {
    this.master = new GainNode(context);
    this.master.connect(context.destination);
    this.programme = new LevelMeter(context, this.master);
  }

  levels(): Levels {
    return {
      programme: this.programme.read(),
      stems: Object.fromEntries([...this.buses].map(([stem, bus]) => [stem, bus.meter.read()])),
      tracks: Object.fromEntries([...this.strips].map(([id, strip]) => [id, strip.meter.read()])),
    };
  }

  /** Where the sound of a clip goes in. */
  inputOf(clip: Clip, track: Track): AudioNode {
    const strip = this.strip(track);
    return clip.ducked === false ? strip.direct : strip.input;
  }

  /** Makes what is not there yet: that takes time, so it is done before playing begins. */
  setUp(): void {
    for (const track of this.store.getState().tracks) this.strip(track);
  }

  /** Everything as it is in the mix, at once, and lanes from a position on. */
  begin(anchor: Anchor, from: number): void {
    this.trim(0);
    for (const track of this.store.getState().tracks) this.set(track, 0);
    this.followAll(anchor, from);
  }

  followAll(anchor: Anchor, from: number): void {
    for (const track of this.store.getState().tracks) this.followLanes(track, anchor, from);
  }

  /** For a short taste of one track: its strip as it is at a position. */
  taste(track: Track, anchor: Anchor, until: number): void {
    this.set(track, 0);
    this.followLanes(track, anchor, anchor.from);
    this.strip(track).writeTo(until);
  }

  writeTo(position: number): void {
    for (const strip of this.strips.values()) strip.writeTo(position);
  }

  /** Lanes that are others now are followed from a moment hence. */
  refollow(track: Track, anchor: Anchor, soon: number): void {
    const now = positionAt(anchor, this.context.currentTime + soon);
    this.followLanes(track, anchor, Math.max(anchor.from, Math.round(now)));
    this.strip(track).writeTo(now + this.ahead * (anchor.speed ?? 1) * anchor.rate);
  }

  /**
   * A hand on a control of a track; null lets go.
   *
   * @param glide seconds in which what is let go of goes back to its lane
   * @param soon seconds until what is written is heard
   */
  ride(
    track: Track,
    part: "level" | "pan",
    value: number | null,
    glide: number,
    anchor: Anchor | null,
    soon: number,
  ): void {
    const strip = this.strip(track);
    strip.ride(part, value, levelLane(track).length > 0);
    if (value !== null) return;
    if (glide > 0 && anchor) {
      const at = positionAt(anchor, this.context.currentTime + glide);
      strip.glideBack(part, track, at, glide);
      this.followLanes(track, anchor, Math.round(at));
      strip.writeTo(at + this.ahead * (anchor.speed ?? 1) * anchor.rate);
    } else {
      this.set(track, SET);
      if (anchor) this.refollow(track, anchor, soon);
    }
  }

  /** Faders, switches and tracks that are others now. */
  follow(now: MixState, before: MixState): void {
    if (now.trim !== before.trim || now.faders !== before.faders) this.trim(0.02);
    if (now.faders !== before.faders)
      for (const [stem, bus] of this.buses) bus.set(now.faders[stem], this.context.currentTime, SET);
    if (now.tracks === before.tracks && now.solo === before.solo && now.listening === before.listening)
      return;
    for (const track of now.tracks) {
      if (!this.strips.has(track.id)) continue;
      this.set(track, SET);
      this.strip(track).leadTo(this.bus(track.stem).input);
    }
    for (const [id, strip] of this.strips) {
      if (!now.tracks.some((t) => t.id === id)) {
        strip.close();
        this.strips.delete(id);
      }
    }
  }

  async keepPitch(speed: number): Promise<void> {
    const { context, master } = this;
    if (speed === (this.keeper?.speed ?? 1)) return;
    this.keeper?.node.disconnect();
    master.disconnect();
    this.keeper = null;
    this.programme = new LevelMeter(context, master);
    if (speed === 1) {
      master.connect(context.destination);
      return;
    }
    try {
      const node = await pitchKeeper(context, speed);
      this.keeper = { speed, node };
      master.connect(node).connect(context.destination);
    } catch {
      master.connect(context.destination); // this browser cannot: then the pitch goes with the speed
    }
  }

  /** The programme's fader, and what the louder of two states is turned down by. */
  private trim(glide: number): void {
    const { gain } = this.master;
    const { trim, faders } = this.store.getState();
    gain.cancelScheduledValues(this.context.currentTime);
    gain.setTargetAtTime(10 ** ((trim + decibelsOf(faders.programme)) / 20), this.context.currentTime, glide);
  }

  private set(track: Track, glide: number): void {
    this.strip(track).set(track, this.isHeard(track), this.context.currentTime, glide);
  }

  private strip(track: Track): TrackStrip {
    const known = this.strips.get(track.id);
    if (known) return known;
    const strip = new TrackStrip(this.context, this.bus(track.stem).input);
    strip.set(track, this.isHeard(track), this.context.currentTime, 0);
    this.strips.set(track.id, strip);
    return strip;
  }

  private bus(stem: Stem): StemBus {
    const known = this.buses.get(stem);
    if (known) return known;
    const bus = new StemBus(this.context, this.master);
    bus.set(this.store.getState().faders[stem], this.context.currentTime, 0);
    this.buses.set(stem, bus);
    return bus;
  }

  private followLanes(track: Track, anchor: Anchor, from: number): void {
    this.strip(track).follow(track, anchor, from, this.duckingOf(track));
  }

  /** The lanes of ducking, or those that a rule would make while it is tried. */
  private duckingOf(track: Track): GivingWay {
    return this.store.getState().duckTry?.[track.id] ?? givingWay(track);
  }

  private isHeard(track: Track): boolean {
    return whyUnheard(this.store.getState(), track) === null;
  }
}
