import type { Clip } from "@/api/schema";
import type { MixState, MixStore } from "@/store/mixStore";
import { soundingClips } from "@/store/screen";
import { Clock } from "./clock";
import { Mixer, type Levels } from "./mixer";
import { SILENT } from "./meter";
import { Segments } from "./segments";
import { Supply } from "./supply";
import { type Anchor, positionAt, timeAt, Voice } from "./voice";

/** Seconds of sound started ahead. Timers of a page in the background run once a second; this outlasts that. */
const AHEAD = 3;
const TICK_MS = 120;
/** Seconds that it may take to make a clip's way into the mix. */
const SETTING_UP = 0.004;
/** Waiting for sound is shown when it has lasted so long, ms. */
const SHOWN = 300;
/** Playing stops to wait for sound that runs out before the next look but one, which is later where the page is busy or in the background. */
const LOOKS = 1.7;
/** Seconds before the end of a loop at which its next turn is prepared: longer than a busy page keeps a timer waiting. */
const TURN = 0.8;
/** Seconds until a change is heard: enough to be written before it sounds, far below what feels slow. */
const SOON = 0.06;
const CROSSFADE = 0.015;

/** Plays the mix in the store from anywhere, and follows every edit of it while playing. */
export class Player {
  private context: AudioContext | null = null;
  private segments: Segments | null = null;
  private supply: Supply | null = null;
  private mixer: Mixer | null = null;
  private readonly voices = new Map<string, Voice>();
  private anchor: Anchor | null = null;
  /** A jump that is prepared but has not sounded yet: until then the old anchor says where playing is. */
  private turn: { at: number; before: Anchor } | null = null;
  private readonly clock = new Clock();
  private scrubbed = 0;
  private timer: ReturnType<typeof setInterval> | undefined;
  private attempt = 0;
  /** When it was last seen to that all sounds, on the clock of the sound; null before it begins. */
  private looked: number | null = null;
  private lateBefore = 0;
  private readonly jumps = new Set<(from: number, to: number) => void>();

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

  /** Tells whenever playing goes on from elsewhere, by a seek or at the end of a loop: from where, and to where. */
  onJump(listener: (from: number, to: number) => void): () => void {
    this.jumps.add(listener);
    return () => this.jumps.delete(listener);
  }

  /** Segments that did not sound in time since the player was made; shown nowhere, but counted by tests. */
  get late(): number {
    return [...this.voices.values()].reduce((sum, voice) => sum + voice.late, this.lateBefore);
  }

  /** Seconds on the clock of the sound, which stands still while the machine is too busy to make any; 0 before the first sound. */
  get clockTime(): number {
    return this.context?.currentTime ?? 0;
  }

  get position(): number {
    if (!this.anchor || !this.context) return this.store.getState().playhead;
    return Math.round(this.heardAt(this.anchor, this.context, this.context.currentTime));
  }

  /** The position that is heard at a moment of the page's clock, ms. */
  positionAtTime(when: number): number {
    const { anchor, context } = this;
    if (!anchor || !context) return this.position;
    this.clock.observe(context.currentTime, performance.now());
    return this.heardAt(anchor, context, this.clock.at(when));
  }

  /** @param time of the audio clock; what was written then is heard a little later */
  private heardAt(now: Anchor, context: AudioContext, time: number): number {
    const heard = time - Math.min(context.outputLatency || 0, 0.3);
    const anchor = this.turn && heard < this.turn.at ? this.turn.before : now;
    return Math.max(anchor.from, positionAt(anchor, heard));
  }

  levels(): Levels {
    return this.mixer?.levels() ?? { programme: SILENT, stems: {}, tracks: {} };
  }

  toggle(): void {
    if (this.store.getState().playing) this.stop();
    else void this.play();
  }

  async play(from = this.store.getState().playhead): Promise<void> {
    const { context } = this.open();
    const attempt = ++this.attempt;
    const state = this.store.getState();
    const before = state.playing ? this.position : null;
    this.halt();
    const start = this.startFrom(from);
    this.store.getState().set({ playing: true, playhead: start, playedFrom: start });
    if (before !== null) this.jumped(before, start);
    await context.resume();
    await this.beginAt(start, attempt);
  }

  /** Begins to sound at a position as soon as what sounds there has come. */
  private async beginAt(start: number, attempt: number): Promise<void> {
    const { context, mixer, supply } = this.open();
    const { rate, speed, set } = this.store.getState();
    const shown = setTimeout(() => attempt === this.attempt && set({ waiting: true }), SHOWN);
    await Promise.all([supply.bringFirst(start), mixer.keepPitch(speed)]);
    clearTimeout(shown);
    if (attempt !== this.attempt) return;
    set({ waiting: false });
    // What there is to set up is set up first, and what remains takes time as well.
    mixer.setUp();
    const lead =
      SOON +
      SETTING_UP * supply.soonAt(start).reduce((sum, clip) => sum + 1 + (clip.filters?.length ?? 0) / 3, 0);
    // On a whole frame of the context's clock, so that segments join without being resampled.
    const begin = Math.ceil((context.currentTime + lead) * context.sampleRate) / context.sampleRate;
    this.anchor = { start: begin, from: start, rate, speed };
    mixer.begin(this.anchor, start);
    // Before the first look, which may stop it: one that begins afterwards would go on for ever.
    this.timer = setInterval(() => this.tick(), TICK_MS);
    this.tick();
  }

  /** What is heard is the mix, whole: where a part of it has not come, playing waits for it. A ride ends and begins anew there, as at any jump. */
  private async waitForSound(): Promise<void> {
    const attempt = ++this.attempt;
    const at = this.position;
    this.halt();
    this.store.getState().set({ playhead: at });
    this.jumped(at, at);
    await this.beginAt(at, attempt);
  }

  stop(): void {
    this.attempt++;
    const position = this.position;
    this.halt();
    this.store
      .getState()
      .set({ playing: false, waiting: false, playhead: Math.min(position, this.store.getState().length) });
  }

  /** A short taste of the sound at a position, as the playhead is dragged over it. */
  async scrub(position: number): Promise<void> {
    const { rate } = this.store.getState();
    const clips = soundingClips(this.store.getState());
    this.store.getState().set({ playhead: position });
    const { context, mixer, supply } = this.open();
    await context.resume();
    if (this.isPlaying() || context.currentTime < this.scrubbed) return;
    this.scrubbed = context.currentTime + 0.07;
    await Promise.all(supply.soonAt(position).map((clip) => supply.bring(clip, position, 0.12)));
    if (this.isPlaying() || !this.segments) return; // playing may have begun meanwhile
    const start = context.currentTime + 0.01;
    for (const clip of Object.values(clips)) {
      const track = this.store.getState().tracks.find((t) => t.id === clip.track);
      if (!track || clip.at > position || clip.at + clip.length <= position) continue;
      mixer.taste(track, { start, from: position, rate }, position + 0.12 * rate);
      const taste = new Voice(
        clip,
        context,
        { start, from: position, rate },
        this.segments,
        mixer.inputOf(clip, track),
        position,
      );
      taste.schedule(position + 0.12 * rate);
      taste.fadeIn(start, 0.01);
      taste.fadeOut(start + 0.1, 0.02);
    }
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
    this.mixer = null;
  }

  private open(): { context: AudioContext; mixer: Mixer; supply: Supply } {
    if (this.context && this.mixer && this.supply)
      return { context: this.context, mixer: this.mixer, supply: this.supply };
    const context = new AudioContext({ sampleRate: this.store.getState().rate, latencyHint: "interactive" });
    this.context = context;
    this.segments = new Segments(context, this.fetchSegment);
    this.supply = new Supply(this.store, this.segments);
    this.mixer = new Mixer(context, this.store, AHEAD);
    return { context, mixer: this.mixer, supply: this.supply };
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
    this.turn = null;
    this.looked = null;
  }

  /** Within a loop, playing starts a little before it. */
  private startFrom(from: number): number {
    const { looping, range, preRoll, rate, length } = this.store.getState();
    if (looping && range) return Math.max(0, range.from - Math.round(preRoll * rate));
    return from >= length ? 0 : from;
  }

  /** At the end of a loop: all that sounds ends there, and what comes next is prepared to begin at that very moment. */
  private async turnBack(end: number): Promise<void> {
    const { anchor, context, attempt } = this;
    if (!anchor || !context || this.turn) return;
    const at = timeAt(anchor, end);
    const start = this.startFrom(0);
    this.turn = { at, before: anchor };
    await this.supply?.bringFirst(start);
    if (attempt !== this.attempt || this.anchor !== anchor) return;
    const when = Math.max(at, context.currentTime + 0.01);
    for (const voice of this.voices.values()) {
      this.lateBefore += voice.late;
      voice.fadeOut(when, CROSSFADE);
    }
    this.voices.clear();
    this.anchor = { ...anchor, start: when, from: start };
    this.mixer?.followAll(this.anchor, start);
    this.turn = { at: when, before: anchor };
    setTimeout(
      () => attempt === this.attempt && this.jumped(end, start),
      (when - context.currentTime) * 1000,
    );
    this.tick();
  }

  private jumped(from: number, to: number): void {
    for (const listener of this.jumps) listener(from, to);
  }

  private isPlaying(): boolean {
    return this.anchor !== null;
  }

  private tick(): void {
    const { anchor, context } = this;
    if (!anchor || !context) return;
    const state = this.store.getState();
    const now = positionAt(anchor, context.currentTime);
    this.clock.observe(context.currentTime, performance.now());
    if (this.turn && context.currentTime > this.turn.at + 0.3) this.turn = null;
    const speed = anchor.speed ?? 1;
    const end = state.looping && state.range && now < state.range.to ? state.range.to : state.length;
    if (end !== state.length && now > end - TURN * speed * anchor.rate) void this.turnBack(end);
    if (now >= state.length) {
      if (state.looping && state.range) void this.play(state.range.from);
      else this.stop();
      return;
    }
    const until = Math.min(now + AHEAD * speed * anchor.rate, state.looping ? end : Infinity);
    const audible = now < anchor.from ? anchor.from : now + SOON * speed * anchor.rate;
    for (const clip of Object.values(soundingClips(state))) {
      if (clip.at < until && clip.at + clip.length > audible && !this.voices.has(clip.id))
        this.begin(clip, audible);
    }
    this.mixer?.writeTo(until);
    for (const [id, voice] of this.voices) {
      voice.schedule(until);
      if (voice.clip.at + voice.clip.length < now - anchor.rate) {
        this.lateBefore += voice.late;
        this.voices.delete(id);
      }
    }
    const lacking = [...this.voices.values()].filter((v) => v.lacks && this.supply?.isHeard(v.clip));
    const since = this.looked === null ? 0 : context.currentTime - this.looked;
    this.looked = context.currentTime;
    const soon = context.currentTime + LOOKS * Math.max(TICK_MS / 1000, since);
    if (lacking.length === 0) this.supply?.recovered();
    else if (this.supply?.isWorthWaiting && lacking.some((voice) => voice.runsOut(soon)))
      void this.waitForSound();
  }

  /** @param from timeline position from which it is to be heard */
  private begin(clip: Clip, from: number): Voice | null {
    const track = this.store.getState().tracks.find((t) => t.id === clip.track);
    if (!track || !this.context || !this.mixer || !this.anchor || !this.segments) return null;
    const voice = new Voice(
      clip,
      this.context,
      this.anchor,
      this.segments,
      this.mixer.inputOf(clip, track),
      Math.round(from),
    );
    this.voices.set(clip.id, voice);
    return voice;
  }

  /** A hand on a control of a track while it plays; null lets go. See {@link Mixer.ride}. */
  ride(track: string, part: "level" | "pan", value: number | null, glide = 0): void {
    const found = this.store.getState().tracks.find((t) => t.id === track);
    if (found) this.mixer?.ride(found, part, value, glide, this.anchor, SOON);
  }

  private follow(now: MixState, before: MixState): void {
    if (!this.mixer) return;
    this.mixer.follow(now, before);
    if (now.speed !== before.speed && now.playing) void this.play(this.position);
    if (this.anchor && (now.tracks !== before.tracks || now.duckTry !== before.duckTry))
      for (const track of now.tracks) {
        const old = before.tracks.find((t) => t.id === track.id);
        if (old !== track || now.duckTry?.[track.id] !== before.duckTry?.[track.id])
          this.mixer.refollow(track, this.anchor, SOON);
      }
    if (this.anchor && (now.clips !== before.clips || now.planned !== before.planned))
      void this.replaceChanged(soundingClips(now));
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
      const clip = soundingClips(this.store.getState())[voice.clip.id];
      const from = Math.round(positionAt(anchor, at));
      if (clip && clip.at + clip.length > from)
        this.begin(clip, from)?.fadeIn(timeAt(anchor, Math.max(from, clip.at)), CROSSFADE);
    }
    this.tick();
  }

  private async loadAround(clip: Clip | undefined): Promise<void> {
    if (!clip || !this.anchor || !this.context) return;
    await this.supply?.bring(clip, positionAt(this.anchor, this.context.currentTime + SOON));
  }
}
