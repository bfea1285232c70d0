import { CORE } from "@/preview/constants";
import type { Edit, Pass, RideSample, Track } from "@/api/schema";
import type { Player } from "@/player";
import { levelLane } from "@/preview/lanes";
import type { MixState, MixStore } from "@/store/mixStore";
import { type RideMode, whyUnheard } from "@/store/screen";
import { Draft } from "./draft";
import { sendKept, sendRide, takeUpDrafts } from "./kept";

type Part = "level" | "pan" | "mute";
export type RideEdit = Extract<Edit, { edit: "ride" }>;

interface Open {
  mode: Exclude<RideMode, "read">;
  start: number;
  samples: Record<Part, RideSample[]>;
  held: Record<Part, boolean>;
  touched: Record<Part, boolean>;
}

export interface Trace {
  track: string;
  samples: RideSample[];
  /** Whether it goes on between touches. */
  whole: boolean;
  /** Whether it is being written at this moment. */
  live: boolean;
}

export const FADER_BOTTOM = CORE.faderBottom;

/** ms after which what has been ridden since is lost at most, should the page die. */
const DRAFT_MS = 1000;

/**
 * Writes down where controls stand while it plays. Samples carry the time of the event that made them, not the time at which
 * the page came to see it, so that a busy page loses none.
 */
export class Recorder {
  private readonly open = new Map<string, Open>();
  /** Passes that have ended and are being kept. */
  private readonly sending = new Map<string, Open>();
  private from = 0;
  private draft: Draft | null = null;

  constructor(
    private readonly store: MixStore,
    private readonly player: Player,
  ) {}

  attach(): () => void {
    const unsubscribe = this.store.subscribe((now, before) => {
      if (now.playing && !before.playing) this.begin(now, now.playhead);
      if (!now.playing && before.playing) void this.end(now.playhead);
      // What was ridden when another state came to be heard in the middle of it.
      if (!now.hearing && before.hearing) void sendKept(this.store);
    });
    // Where playing goes on from elsewhere, one pass ends and the next begins; a hand stays where it is.
    const stay = this.player.onJump((from, to) => {
      const held = new Map(this.open);
      void this.end(from);
      this.begin(this.store.getState(), to, held);
    });
    const leaving = () => this.saveDraft();
    const timer = setInterval(leaving, DRAFT_MS);
    window.addEventListener("pagehide", leaving);
    void takeUpDrafts(this.store);
    return () => {
      unsubscribe();
      stay();
      clearInterval(timer);
      window.removeEventListener("pagehide", leaving);
    };
  }

  /**
   * Plays from a little before the playhead; what is ridden counts from the playhead on. Where there is less before it, the
   * rest of that time is counted in.
   *
   * @param preRoll seconds
   */
  async ride(preRoll: number): Promise<void> {
    const { playhead, rate, set } = this.store.getState();
    const from = Math.max(0, playhead - Math.round(preRoll * rate));
    const wait = preRoll - (playhead - from) / rate;
    const until = performance.now() + preRoll * 1000;
    set({ countIn: until });
    if (wait > 0.05) await new Promise((resolve) => setTimeout(resolve, wait * 1000));
    const { countIn, playing } = this.store.getState();
    if (countIn !== until || playing) return;
    this.from = playhead;
    await this.player.play(from);
    setTimeout(() => this.store.getState().set({ countIn: null }), ((playhead - from) / rate) * 1000);
  }

  /** What is being written, or is on its way to be kept: by track, the samples of its level so far. */
  get traces(): Trace[] {
    const trace = (open: Open, track: string, live: boolean): Trace => ({
      track,
      samples: open.samples.level,
      whole: open.mode !== "touch",
      live: live && writes(open, "level"),
    });
    return [
      ...[...this.sending].map(([track, open]) => trace(open, track, false)),
      ...[...this.open].map(([track, open]) => trace(open, track, true)),
    ];
  }

  isRiding(track: string): boolean {
    return this.open.has(track);
  }

  /**
   * A control has moved, or a hand has come or gone.
   *
   * @param when performance time of the event, ms
   */
  note(track: string, part: Part, value: number, held: boolean, when = performance.now()): void {
    const open = this.open.get(track);
    if (!open) return;
    const latest = open.samples[part].at(-1)?.[0] ?? 0;
    // Time only goes forward, whatever the clocks of the page and of the sound make of each other.
    const at = Math.max(latest, Math.round(this.player.positionAtTime(when)));
    open.samples[part].push([at, Math.round(value * 1000) / 1000, held ? 1 : 0]);
    open.held[part] = held;
    if (held) open.touched[part] = true;
    if (part !== "mute") {
      const goesBack = !held && open.mode === "touch";
      this.player.ride(track, part, goesBack ? null : value, goesBack ? this.store.getState().glide : 0);
    }
    this.showWriting();
  }

  /** Whether what a control does is being written at this moment. */
  isWriting(track: string, part: Part): boolean {
    return writes(this.open.get(track), part);
  }

  /** @param carried passes that end here, whose hands are still on their controls */
  private begin(state: MixState, position: number, carried?: Map<string, Open>): void {
    this.open.clear();
    for (const track of state.tracks) {
      const mode = state.modes[track.id] ?? "read";
      if (mode === "read" || state.project.role === "viewer" || state.hearing) continue;
      const open: Open = {
        mode,
        start: Math.max(this.from, position),
        samples: { level: [], pan: [], mute: [] },
        held: { level: false, pan: false, mute: false },
        touched: { level: false, pan: false, mute: false },
      };
      this.open.set(track.id, open);
      const before = carried?.get(track.id);
      for (const part of ["level", "pan", "mute"] as const) {
        const last = before?.samples[part].at(-1);
        if (!before?.held[part] || !last) continue;
        open.samples[part].push([position, last[1], 1]);
        open.held[part] = open.touched[part] = true;
      }
      if (mode === "write" && open.samples.level.length === 0) {
        const level = faderAt(track, position);
        open.samples.level.push([position, level, 1]);
        this.player.ride(track.id, "level", level);
        // It is written from here on, so it stands there and no longer goes with its lane.
        const { grips, set } = this.store.getState();
        set({ grips: { ...grips, [track.id]: level } });
      }
    }
    this.from = 0;
    if (this.open.size > 0) {
      this.draft = new Draft(state.project.id);
      const unheard = state.tracks.filter((t) => this.open.has(t.id)).map((t) => whyUnheard(state, t));
      const why = unheard.find((reason) => reason !== null);
      if (why) state.set({ notice: { kind: "done", text: `You ride unheard: ${why}.` } });
    }
    this.showWriting();
  }

  /** What has been written until now, in case that the page goes away in the middle of it. */
  private saveDraft(): void {
    if (!this.draft || this.open.size === 0) return;
    const passes = this.passes(this.player.position);
    if (passes.length) this.draft.save(this.edit(passes));
  }

  private edit(passes: Pass[]): RideEdit {
    return { edit: "ride", passes, glide: this.store.getState().glide };
  }

  /** What the passes under way come to when they stop at a position. */
  private passes(stop: number): Pass[] {
    const state = this.store.getState();
    const within = state.punch && state.range ? state.range : { from: 0, to: Infinity };
    const passes: Pass[] = [];
    for (const [track, open] of this.open) {
      const start = Math.max(open.start, within.from);
      const last = Math.min(Math.round(stop), within.to);
      const parts = (["level", "pan", "mute"] as const).filter(
        (part) => open.touched[part] || (open.mode === "write" && part === "level"),
      );
      if (last > start && parts.length)
        passes.push({
          track,
          mode: open.mode,
          start,
          stop: last,
          ...Object.fromEntries(parts.map((part) => [part, inside(open.samples[part], start)])),
        });
    }
    return passes;
  }

  private async end(stop: number): Promise<void> {
    const state = this.store.getState();
    const passes = this.passes(stop);
    const draft = this.draft;
    this.draft = null;
    const ridden = new Map(this.open);
    this.open.clear();
    state.set({ writing: [], countIn: null, modes: modesAfter(state) });
    if (passes.length) {
      for (const [track, open] of ridden) this.sending.set(track, open);
      state.set({ keeping: true });
      draft?.save(this.edit(passes));
      await this.send(this.edit(passes), draft);
      for (const [track, open] of ridden) if (this.sending.get(track) === open) this.sending.delete(track);
      state.set({ keeping: this.sending.size > 0 });
    }
    draft?.drop();
    const { grips } = this.store.getState();
    const free = Object.entries(grips).filter(
      ([id]) => !ridden.has(id) || writes(this.open.get(id), "level"),
    );
    if (free.length < Object.keys(grips).length) state.set({ grips: Object.fromEntries(free) });
    for (const track of ridden.keys()) {
      for (const part of ["level", "pan"] as const)
        // Unless the next pass has its hand on it already.
        if (!writes(this.open.get(track), part)) this.player.ride(track, part, null);
    }
  }

  private async send(edit: RideEdit, draft: Draft | null): Promise<void> {
    if (await sendRide(this.store, edit, draft)) {
      const { set, revision } = this.store.getState();
      set({ ridden: { revision, edit } });
    }
  }

  private showWriting(): void {
    const writing = [...this.open].filter(([, open]) => isWriting(open)).map(([track]) => track);
    const shown = this.store.getState().writing;
    if (writing.join() !== shown.join()) this.store.getState().set({ writing });
  }
}

/** Write does no harm in the next pass unless it was asked to. */
function modesAfter({ modes, afterPass }: MixState): Record<string, RideMode> {
  const next = (mode: RideMode): RideMode => {
    if (afterPass === "read") return "read";
    return mode === "write" && afterPass === "touch" ? "touch" : mode;
  };
  return Object.fromEntries(Object.entries(modes).map(([id, mode]) => [id, next(mode)]));
}

function isWriting(open: Open): boolean {
  return (["level", "pan", "mute"] as const).some((part) => writes(open, part));
}

/** Whether what a control does is being written at this moment. */
function writes(open: Open | undefined, part: Part): boolean {
  if (!open) return false;
  if (open.mode === "write" && part === "level") return true;
  return open.mode === "touch" ? open.held[part] : open.touched[part];
}

/** Samples from a moment on, with the one that stood before it put there. */
function inside(samples: RideSample[], start: number): RideSample[] {
  const before = samples.findLast(([at]) => at < start);
  const after = samples.filter(([at]) => at >= start);
  return before && after[0]?.[0] !== start ? [[start, before[1], before[2]], ...after] : after;
}

/** Where the fader of a track stands at a moment: as its lane has it, else as it is set. dB. */
export function faderAt(track: Track, position: number): number {
  const lane = levelLane(track);
  const level = (l: number | "silence") => Math.max(FADER_BOTTOM, l === "silence" ? FADER_BOTTOM : l);
  const i = lane.findIndex((k) => k.at > position);
  const before = lane[i < 0 ? lane.length - 1 : i - 1];
  const after = i < 0 ? undefined : lane[i];
  if (!before) return level(after?.level ?? track.fader);
  if (!after || before.ramp === "hold") return level(before.level);
  const part = (position - before.at) / (after.at - before.at);
  return level(before.level) + (level(after.level) - level(before.level)) * part;
}
