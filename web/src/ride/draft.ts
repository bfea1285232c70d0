import { newId } from "@/lib/ids";
import { keep, readKept } from "@/lib/kept";
import type { RideEdit } from "./recorder";

const prefix = (project: string) => `wattage-ride ${project} `;

/**
 * A ride that is under way, kept in the browser from second to second. A window that rides holds a lock by the name of its
 * draft; so a draft without one was left behind by a page that has gone.
 */
export class Draft {
  readonly id = newId("ride");
  private let: () => void = () => undefined;

  constructor(private readonly project: string) {
    if ("locks" in navigator)
      void navigator.locks.request(this.name, () => new Promise<void>((done) => (this.let = done)));
  }

  save(edit: RideEdit): void {
    keep(this.name, edit); // Where there is no room, the ride reaches the server at its end.
  }

  drop(): void {
    localStorage.removeItem(this.name);
    this.let();
  }

  private get name(): string {
    return prefix(this.project) + this.id;
  }
}

/** Rides that were interrupted: by a reload, a closed window, a crash. Each is handed over once and then forgotten here. */
export async function takeDrafts(
  project: string,
  take: (id: string, edit: RideEdit) => Promise<void>,
): Promise<void> {
  const names = Object.keys(localStorage).filter((name) => name.startsWith(prefix(project)));
  for (const name of names) {
    const hand = async () => {
      const kept = readKept<RideEdit>(name);
      if (kept) await take(name.slice(prefix(project).length), kept);
      localStorage.removeItem(name);
    };
    if ("locks" in navigator)
      await navigator.locks.request(name, { ifAvailable: true }, (lock) => (lock ? hand() : undefined));
    else await hand();
  }
}
