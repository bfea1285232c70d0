import { newId } from "@/lib/ids";
import { keep, readKept } from "@/lib/kept";
import type { Asked } from "@/api/asked";

/** What is older is not sent any more: the mix has long gone on, and whether the server did it is not known any more either. */
const LONGEST_MS = 7 * 24 * 3600 * 1000;

interface Left {
  at: number;
  waiting: Asked[];
}

const prefix = (project: string) => `wattage-unsent ${project} `;

/**
 * Steps that the server has not answered yet, kept in the browser so that a reload loses none. A window holds a lock by the
 * name of what it keeps; what lies there without one was left behind by a page that has gone.
 */
export class Unsent {
  private readonly name: string;

  constructor(private readonly project: string) {
    this.name = prefix(project) + newId("screen");
    if ("locks" in navigator) void navigator.locks.request(this.name, () => new Promise(() => undefined));
  }

  save(waiting: Asked[]): void {
    if (waiting.length > 0) keep(this.name, { at: Date.now(), waiting } satisfies Left);
    else localStorage.removeItem(this.name);
  }

  /** Hands over, once, what pages that have gone have left. */
  async takeLeftovers(take: (left: Asked[]) => void): Promise<void> {
    const names = Object.keys(localStorage).filter(
      (name) => name.startsWith(prefix(this.project)) && name !== this.name,
    );
    for (const name of names) {
      const hand = () => {
        const left = readKept<Left>(name);
        if (left && Date.now() - left.at < LONGEST_MS) take(left.waiting);
        localStorage.removeItem(name);
      };
      if ("locks" in navigator)
        await navigator.locks.request(name, { ifAvailable: true }, (lock) => (lock ? hand() : undefined));
      else hand();
    }
  }
}
