import type { Clip } from "@/api/schema";
import type { MixStore } from "@/store/mixStore";
import { soundingClips, whyUnheard } from "@/store/screen";
import { SEGMENT_SECONDS, type Segments, segmentsOf } from "./segments";

/** Seconds of sound that are there before it begins: what follows has as long to come in, however little of its segment is left where playing begins. */
const READY = 1;
/** Clips sounding at once that are many for the network: of them, the segment after the first is there, too. */
const MANY = 24;
const READY_OF_MANY = SEGMENT_SECONDS + 0.1;
/** How long sound is waited for, ms; and for how long nothing is waited for after that was in vain. */
const PATIENCE = 10_000;
/** As long as this stands at least what is said of it, ms: to be read. */
const READ = 4000;

/** Has the sound that is needed brought in before it is, and says what did not come. */
export class Supply {
  private vainUntil = 0;
  private said: { text: string; until: number } | null = null;

  constructor(
    private readonly store: MixStore,
    private readonly segments: Segments,
  ) {}

  /** Whether it is any use to wait for what is missing. */
  get isWorthWaiting(): boolean {
    return performance.now() >= this.vainUntil;
  }

  /** The clips that sound within a second. */
  soonAt(from: number): Clip[] {
    const state = this.store.getState();
    const until = from + state.rate * state.speed;
    return Object.values(soundingClips(state)).filter((c) => c.at < until && c.at + c.length > from);
  }

  /** Whether a clip can be heard when it sounds; nobody waits for what cannot. */
  isHeard(clip: Clip): boolean {
    const state = this.store.getState();
    const track = state.tracks.find(({ id }) => id === clip.track);
    return clip.muted !== true && track !== undefined && whyUnheard(state, track) === null;
  }

  /** Brings in what sounds first from a position of the timeline; where that does not come, it is said and not waited for any longer. */
  async bringFirst(from: number): Promise<void> {
    const all = this.soonAt(from);
    const seconds = all.length > MANY ? READY_OF_MANY : READY;
    const soon = all.filter((clip) => this.isHeard(clip));
    const came = soon.map(() => false);
    const coming = soon.map(async (clip, i) => (came[i] = await this.bring(clip, from, seconds)));
    await within(PATIENCE, Promise.all(coming));
    const missing = soon.filter((_, i) => !came[i]).map((clip) => clip.name);
    if (missing.length > 0) this.inVain(missing);
  }

  /** Brings in a clip's sound from a position of the timeline on; whether all of it came. */
  async bring(clip: Clip, from: number, seconds = READY): Promise<boolean> {
    const { rate, speed } = this.store.getState();
    const numbers = segmentsOf(clip, from, from + Math.ceil(seconds * rate * speed), rate);
    const came = await Promise.all(numbers.map((number) => this.segments.load(clip.source, number)));
    return came.every((buffer) => buffer !== null);
  }

  /** To be told whenever nothing is missing: what was said of it is over. */
  recovered(): void {
    if (!this.said || performance.now() < this.said.until) return;
    const { notice, set } = this.store.getState();
    if (notice?.text === this.said.text) set({ notice: null });
    this.said = null;
    this.vainUntil = 0;
  }

  private inVain(missing: string[]): void {
    this.vainUntil = performance.now() + PATIENCE;
    const others = missing.length > 1 ? ` and of ${missing.length - 1} more` : "";
    const text = `The sound of “${missing[0]}”${others} does not come over the network: what you hear is without it. It is asked for again.`;
    this.said = { text, until: performance.now() + READ };
    this.store.getState().set({ notice: { kind: "error", text } });
  }
}

async function within(ms: number, done: Promise<unknown>): Promise<void> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const over = new Promise((resolve) => (timer = setTimeout(resolve, ms)));
  await Promise.race([done, over]);
  clearTimeout(timer);
}
