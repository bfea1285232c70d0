import type { Clip, Track } from "@/api/types";
import type { MixState, MixStore } from "@/store/mixStore";
import { PeakMeter } from "./meter";
import { SEGMENT_SECONDS, Segments } from "./segments";
import { TrackStrip } from "./strip";
import { type Anchor, positionAt, timeAt, Voice } from "./voice";

/** Seconds of sound started ahead. Timers of a page in the background run once a second; this outlasts that. */
const AHEAD = 3;
const TICK_MS = 120;
/** Seconds until a change is heard: enough to be written before it sounds, far below what feels slow. */
const SOON = 0.06;
const CROSSFADE = 0.015;

export interface Levels {
  programme: [number, number];
  tracks: Record<string, [number, number]>;
}

/** Plays the mix in the store from anywhere, and follows every edit of it while playing. */
export class Player {
  private context: AudioContext | null = null;
  private segments: Segments | null = null;
  private master: GainNode | null = null;
  private programme: PeakMeter | null = null;
  private readonly strips = new Map<string, TrackStrip>();
  private readonly voices = new Map<string, Voice>();
  private anchor: Anchor | null = null;
  private timer: ReturnType<typeof setInterval> | undefined;
  private attempt = 0;
  private lateBefore = 0;

  constructor(
    private readonly store: MixStore,
    private readonly fetchSegment: (source: string, number: number) => Promise<ArrayBuffer>,
  ) {}

  /** Follows the store until the returned function is called, which also falls silent. */
  attach(): () => void {
    const unsubscribe = this.store.subscribe((now, before) => this.follow(now, before));
    return () => {
      unsubscribe();
      this.close();
    };
  }

  /** Segments that did not sound in time since the player was made; shown nowhere, but counted by tests. */
  get late(): number {
    return [...this.voices.values()].reduce((sum, voice) => sum + voice.late, this.lateBefore);
  }

  get position(): number {
    if (!this.anchor || !this.context) return this.store.getState().playhead;
    const latency = Math.min(this.context.outputLatency || 0, 0.3);
    return Math.max(
      this.anchor.from,
      Math.round(positionAt(this.anchor, this.context.currentTime - latency)),
    );
  }

  levels(): Levels {
    const silent: [number, number] = [-Infinity, -Infinity];
    return {
      programme: this.programme?.read() ?? silent,
      tracks: Object.fromEntries([...this.strips].map(([id, strip]) => [id, strip.meter.read()])),
    };
  }

  toggle(): void {
    if (this.store.getState().playing) this.stop();
    else void this.play();
  }

  async play(from = this.store.getState().playhead): Promise<void> {
    const context = this.open();
    const attempt = ++this.attempt;
    this.halt();
    const state = this.store.getState();
    const start = from >= state.length ? 0 : from;
    this.store.getState().set({ playing: true, playhead: start });
    await context.resume();
    await this.loadFirst(start);
    if (attempt !== this.attempt) return;
    // On a whole frame of the context's clock, so that segments join without being resampled.
    const begin = Math.ceil((context.currentTime + SOON) * context.sampleRate) / context.sampleRate;
    this.anchor = { start: begin, from: start, rate: state.rate };
    this.master?.gain.cancelScheduledValues(0);
    this.master?.gain.setValueAtTime(1, context.currentTime);
    for (const track of this.store.getState().tracks)
      this.strip(track).set(track, this.isHeard(track), context.currentTime, 0);
    this.tick();
    this.timer = setInterval(() => this.tick(), TICK_MS);
  }

  stop(): void {
    this.attempt++;
    const position = this.position;
    this.halt();
    this.store.getState().set({ playing: false, playhead: Math.min(position, this.store.getState().length) });
  }

  /** Goes to a position, and goes on from there when playing. */
  seek(position: number): void {
    const to = Math.max(0, Math.round(position));
    if (this.store.getState().playing) void this.play(to);
    else this.store.getState().set({ playhead: to });
  }

  private close(): void {
    this.attempt++;
    this.halt();
    void this.context?.close();
    this.context = null;
    this.strips.clear();
  }

  private open(): AudioContext {
    if (this.context) return this.context;
    const context = new AudioContext({ sampleRate: this.store.getState().rate, latencyHint: "interactive" });
    this.context = context;
    this.segments = new Segments(context, this.fetchSegment);
    this.master = new GainNode(context);
    this.master.connect(context.destination);
    this.programme = new PeakMeter(context, this.master);
    return context;
  }

  private halt(): void {
    clearInterval(this.timer);
    const now = this.context?.currentTime ?? 0;
    for (const voice of this.voices.values()) {
      this.lateBefore += voice.late;
      voice.fadeOut(now, CROSSFADE);
    }
    this.voices.clear();
    this.anchor = null;
  }

  private async loadFirst(from: number): Promise<void> {
    const { clips, rate } = this.store.getState();
    const length = SEGMENT_SECONDS * rate;
    const soon = Object.values(clips).filter((c) => c.at < from + rate && c.at + c.length > from);
    await Promise.all(
      soon.map((c) =>
        this.segments?.load(c.source, Math.floor((Math.max(from, c.at) - c.at + c.in) / length)),
      ),
    );
  }

  private tick(): void {
    const { anchor, context } = this;
    if (!anchor || !context) return;
    const state = this.store.getState();
    const now = positionAt(anchor, context.currentTime);
    if (now >= state.length) {
      this.stop();
      return;
    }
    const until = now + AHEAD * anchor.rate;
    const audible = now < anchor.from ? anchor.from : now + SOON * anchor.rate;
    for (const clip of Object.values(state.clips)) {
      if (clip.at < until && clip.at + clip.length > audible && !this.voices.has(clip.id))
        this.begin(clip, audible);
    }
    for (const [id, voice] of this.voices) {
      voice.schedule(until);
      if (voice.clip.at + voice.clip.length < now - anchor.rate) {
        this.lateBefore += voice.late;
        this.voices.delete(id);
      }
    }
  }

  /** @param from timeline position from which it is to be heard */
  private begin(clip: Clip, from: number): Voice | null {
    const track = this.store.getState().tracks.find((t) => t.id === clip.track);
    if (!track || !this.context || !this.anchor || !this.segments) return null;
    const voice = new Voice(
      clip,
      this.context,
      this.anchor,
      this.segments,
      this.strip(track).input,
      Math.round(from),
    );
    this.voices.set(clip.id, voice);
    return voice;
  }

  private strip(track: Track): TrackStrip {
    const known = this.strips.get(track.id);
    if (known) return known;
    if (!this.context || !this.master) throw new Error("The player is not open.");
    const strip = new TrackStrip(this.context, this.master);
    strip.set(track, this.isHeard(track), this.context.currentTime, 0);
    this.strips.set(track.id, strip);
    return strip;
  }

  private isHeard(track: Track): boolean {
    const { solo } = this.store.getState();
    return !track.muted && (solo.length === 0 || solo.includes(track.id));
  }

  private follow(now: MixState, before: MixState): void {
    if (!this.context) return;
    if (now.tracks !== before.tracks || now.solo !== before.solo) {
      for (const track of now.tracks)
        this.strips.get(track.id)?.set(track, this.isHeard(track), this.context.currentTime, 0.008);
      for (const [id, strip] of this.strips) {
        if (!now.tracks.some((t) => t.id === id)) {
          strip.close();
          this.strips.delete(id);
        }
      }
    }
    if (now.clips !== before.clips && this.anchor) void this.replaceChanged(now.clips);
  }

  /** Lets clips that are another now sound anew, from a moment hence, crossing over from how they sounded before. */
  private async replaceChanged(clips: Record<string, Clip>): Promise<void> {
    const attempt = this.attempt;
    const changed = [...this.voices.values()].filter((voice) => clips[voice.clip.id] !== voice.clip);
    await Promise.all(changed.map((voice) => this.loadAround(clips[voice.clip.id])));
    const { context, anchor } = this;
    if (attempt !== this.attempt || !context || !anchor) return;
    const at = context.currentTime + SOON;
    for (const voice of changed) {
      if (this.voices.get(voice.clip.id) !== voice) continue;
      this.lateBefore += voice.late;
      voice.fadeOut(at, CROSSFADE);
      this.voices.delete(voice.clip.id);
      const clip = this.store.getState().clips[voice.clip.id];
      const from = Math.round(positionAt(anchor, at));
      if (clip && clip.at + clip.length > from)
        this.begin(clip, from)?.fadeIn(timeAt(anchor, Math.max(from, clip.at)), CROSSFADE);
    }
    this.tick();
  }

  private async loadAround(clip: Clip | undefined): Promise<void> {
    if (!clip || !this.anchor || !this.context) return;
    const soon = positionAt(this.anchor, this.context.currentTime + SOON) - clip.at + clip.in;
    if (soon < clip.in || soon >= clip.in + clip.length) return;
    const number = Math.floor(soon / (SEGMENT_SECONDS * this.anchor.rate));
    await this.segments?.load(clip.source, number);
  }
}
