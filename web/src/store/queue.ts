import type { Asked } from "@/api/asked";

/** How the queue reaches the server. Both throw what will pass, such as a lost answer, and nothing else. */
export interface Sending {
  /** Whether the step was taken; false when it was refused for what it is. */
  send(asked: Asked): Promise<boolean>;
  /** Brings the screen to the present state. */
  catchUp(): Promise<void>;
}

interface Entry {
  asked: Asked;
  resolve: (done: boolean) => void;
}

const FIRST_PAUSE = 400;
const LONGEST_PAUSE = 8000;

/**
 * Steps on their way to the server: one after the other, each sent again until the server has said yes or no. Nothing that
 * goes wrong on the way ends it.
 */
export class Queue {
  private waiting: Entry[] = [];
  private behind = false;
  private working = false;
  private trouble: string | null = null;
  private wake: () => void = () => undefined;
  private idlers: (() => void)[] = [];

  /** @param onChange is told what waits, and what stands in the way, if anything does */
  constructor(
    private readonly sending: Sending,
    private readonly onChange: (waiting: Asked[], trouble: string | null) => void,
  ) {}

  add(asked: Asked): Promise<boolean> {
    const done = new Promise<boolean>((resolve) => this.waiting.push({ asked, resolve }));
    this.tell();
    // Who does something wants it sent now, whenever the next try was due.
    this.wake();
    void this.work();
    return done;
  }

  /** The screen is behind the present: it is brought there once nothing waits, for answers bring it there too. */
  catchUp(): void {
    this.behind = true;
    void this.work();
  }

  /** Tries now what waits for its next try. */
  tryNow(): void {
    this.wake();
  }

  /** Gives up what waits. What is on its way at this moment may still be done. */
  giveUp(): void {
    for (const { resolve } of this.waiting.splice(0)) resolve(false);
    this.tell();
    this.behind = true;
    this.wake();
  }

  /** Resolves when nothing waits. */
  idle(): Promise<void> {
    return this.waiting.length === 0
      ? Promise.resolve()
      : new Promise<void>((resolve) => this.idlers.push(resolve));
  }

  private async work(): Promise<void> {
    if (this.working) return;
    this.working = true;
    let tries = 0;
    while (this.waiting.length > 0 || this.behind) {
      const [first] = this.waiting;
      try {
        if (first) {
          const done = await this.sending.send(first.asked);
          this.waiting = this.waiting.filter((entry) => entry !== first);
          first.resolve(done);
        } else {
          this.behind = false;
          await this.sending.catchUp();
        }
        tries = 0;
        this.trouble = null;
      } catch (error) {
        this.behind ||= !first;
        this.trouble = error instanceof Error ? error.message : String(error);
        this.tell();
        await this.pause(Math.min(LONGEST_PAUSE, FIRST_PAUSE * 2 ** tries++));
      }
      this.tell();
    }
    this.working = false;
  }

  private tell(): void {
    this.onChange(
      this.waiting.map((entry) => entry.asked),
      this.trouble,
    );
    if (this.waiting.length === 0) for (const resolve of this.idlers.splice(0)) resolve();
  }

  private pause(ms: number): Promise<void> {
    return new Promise((resolve) => {
      const timer = setTimeout(resolve, ms);
      this.wake = () => {
        clearTimeout(timer);
        resolve();
      };
    });
  }
}
