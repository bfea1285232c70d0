import type { Edit, Pass, RideSample, Track } from "@/api/types";
import type { Player } from "@/features/player";
import { levelLane } from "@/lib/lanes";
import type { MixState, MixStore, RideMode } from "@/store/mixStore";
import { keepRide, sendKept } from "./kept";

type Part = "level" | "pan" | "mute";
export type RideEdit = Extract<Edit, { edit: "ride" }>;

interface Open {
  mode: Exclude<RideMode, "read">;
  start: number;
  samples: Record<Part, RideSample[]>;
  held: Record<Part, boolean>;
  touched: Record<Part, boolean>;
}

export const FADER_BOTTOM = -60;

/**
 * Writes down where controls stand while it plays. Samples carry the time of the event that made them, not the time at which
 * the page came to see it, so that a busy page loses none.
 */
export class Recorder {
  private readonly open = new Map<string, Open>();
  private from = 0;

  constructor(
    private readonly store: MixStore,
    private readonly player: Player,
  ) {}

  attach(): () => void {
    const unsubscribe = this.store.subscribe((now, before) => {
      if (now.playing && !before.playing) this.begin(now);
      if (!now.playing && before.playing) void this.end(now);
    });
    const online = () => void sendKept(this.store);
    window.addEventListener("online", online);
    void sendKept(this.store);
    return () => {
      unsubscribe();
      window.removeEventListener("online", online);
    };
  }

  /** Plays from a little before the playhead; what is ridden counts from the playhead on. */
  async ride(preRoll: number): Promise<void> {
    const { playhead, rate } = this.store.getState();
    this.from = playhead;
    await this.player.play(Math.max(0, playhead - Math.round(preRoll * rate)));
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
    const at = Math.max(0, Math.round(this.player.positionAtTime(when)));
    open.samples[part].push([at, Math.round(value * 1000) / 1000, held ? 1 : 0]);
    open.held[part] = held;
    if (held) open.touched[part] = true;
    if (part !== "mute") this.player.ride(track, part, held || open.mode !== "touch" ? value : null);
    this.showWriting();
  }

  private begin(state: MixState): void {
    this.open.clear();
    for (const track of state.tracks) {
      const mode = state.modes[track.id] ?? "read";
      if (mode === "read" || state.project.role === "viewer") continue;
      const start = Math.max(this.from, state.playhead);
      const open: Open = {
        mode,
        start,
        samples: { level: [], pan: [], mute: [] },
        held: { level: false, pan: false, mute: false },
        touched: { level: false, pan: false, mute: false },
      };
      this.open.set(track.id, open);
      if (mode === "write") {
        const level = faderAt(track, state.playhead);
        open.samples.level.push([state.playhead, level, 1]);
        this.player.ride(track.id, "level", level);
      }
    }
    this.from = 0;
    this.showWriting();
  }

  private async end(state: MixState): Promise<void> {
    const stop = state.playhead;
    const within = state.punch && state.range ? state.range : { from: 0, to: Infinity };
    const passes: Pass[] = [];
    for (const [track, open] of this.open) {
      const start = Math.max(open.start, within.from);
      const last = Math.min(stop, within.to);
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
    const ridden = [...this.open.keys()];
    this.open.clear();
    this.store.getState().set({ writing: [] });
    if (passes.length) await this.send({ edit: "ride", passes });
    for (const track of ridden) {
      this.player.ride(track, "level", null);
      this.player.ride(track, "pan", null);
    }
    // After writing a pass, touch: the next one does no harm.
    const { modes, set } = this.store.getState();
    set({
      modes: Object.fromEntries(Object.entries(modes).map(([id, m]) => [id, m === "write" ? "touch" : m])),
    });
  }

  private async send(edit: RideEdit): Promise<void> {
    const { project, edit: send, set } = this.store.getState();
    const kept = keepRide(project.id, edit);
    if (await send(edit)) {
      kept.drop();
      set({ ridden: { revision: this.store.getState().revision, edit } });
    } else if (navigator.onLine && !this.store.getState().offline) {
      kept.drop();
    }
  }

  private showWriting(): void {
    const writing = [...this.open].filter(([, open]) => isWriting(open)).map(([track]) => track);
    const shown = this.store.getState().writing;
    if (writing.join() !== shown.join()) this.store.getState().set({ writing });
  }
}

function isWriting({ mode, held, touched }: Open): boolean {
  if (mode === "write") return true;
  const parts = mode === "latch" ? touched : held;
  return parts.level || parts.pan || parts.mute;
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
