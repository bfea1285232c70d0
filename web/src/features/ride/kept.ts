import type { MixStore } from "@/store/mixStore";
import type { RideEdit } from "./recorder";

const key = (project: string) => `wattage-rides-${project}`;

function all(project: string): RideEdit[] {
  return JSON.parse(localStorage.getItem(key(project)) ?? "[]") as RideEdit[];
}

function put(project: string, rides: RideEdit[]): void {
  if (rides.length) localStorage.setItem(key(project), JSON.stringify(rides));
  else localStorage.removeItem(key(project));
}

/** Keeps a ride in the browser until the server has it, so that a lost connection loses nothing. */
export function keepRide(project: string, edit: RideEdit): { drop: () => void } {
  const text = JSON.stringify(edit);
  put(project, [...all(project), edit]);
  return {
    drop: () =>
      put(
        project,
        all(project).filter((ride) => JSON.stringify(ride) !== text),
      ),
  };
}

/** Sends rides that could not be sent when they were made. */
export async function sendKept(store: MixStore): Promise<void> {
  const { project, role } = { project: store.getState().project.id, role: store.getState().project.role };
  if (role === "viewer") return;
  for (const ride of all(project)) {
    if (!(await store.getState().edit(ride)) && store.getState().offline) return;
    put(
      project,
      all(project).filter((kept) => JSON.stringify(kept) !== JSON.stringify(ride)),
    );
  }
}
