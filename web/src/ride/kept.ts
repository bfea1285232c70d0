import { get, update } from "idb-keyval";
import { newId } from "@/lib/ids";
import type { MixStore } from "@/store/mixStore";
import { type Draft, takeDrafts } from "./draft";
import type { RideEdit } from "./recorder";

interface Kept {
  id: string;
  edit: RideEdit;
}

const key = (project: string) => `rides ${project}`;

/** One window at a time sends rides of a project, so that none is sent by two. */
async function alone<T>(project: string, work: () => Promise<T>): Promise<T> {
  return "locks" in navigator ? await navigator.locks.request(`wattage ${key(project)}`, work) : work();
}

function drop(project: string, id: string): Promise<void> {
  return update<Kept[]>(key(project), (rides = []) => rides.filter((ride) => ride.id !== id));
}

function keep(project: string, ride: Kept): Promise<void> {
  return update<Kept[]>(key(project), (rides = []) => [...rides.filter((r) => r.id !== ride.id), ride]);
}

/** Keeps rides that a reload or a closed window interrupted, as far as they went, and sends what is kept. */
export async function takeUpDrafts(store: MixStore): Promise<void> {
  const { project } = store.getState();
  const ends: number[] = [];
  await takeDrafts(project.id, async (id, edit) => {
    await keep(project.id, { id, edit });
    ends.push(...edit.passes.map((pass) => pass.stop));
  });
  await sendKept(store);
  if (ends.length === 0) return;
  store.getState().set({
    playhead: Math.max(...ends),
    notice: { kind: "done", text: "A ride that was interrupted is kept, as far as it went." },
  });
}

/** Rides of a project that are kept in the browser because the server does not have them yet. */
export async function keptRides(project: string): Promise<RideEdit[]> {
  return ((await get<Kept[]>(key(project))) ?? []).map((ride) => ride.edit);
}

/** Sends a ride, and keeps it in the browser until the server has it, so that a lost connection loses nothing. */
export function sendRide(store: MixStore, edit: RideEdit, draft: Draft | null): Promise<boolean> {
  const { project, edit: send } = store.getState();
  return alone(project.id, async () => {
    const ride = { id: draft?.id ?? newId("ride"), edit };
    try {
      await keep(project.id, ride);
    } catch {
      return send(edit); // There is no room to keep it here; then it waits with all other edits.
    }
    draft?.drop();
    const done = await send(edit, { key: ride.id });
    if (done || !isPassing(store)) await drop(project.id, ride.id);
    return done;
  });
}

/** Sends rides that could not be sent when they were made. */
export function sendKept(store: MixStore): Promise<void> {
  const { project, edit: send } = store.getState();
  if (project.role === "viewer") return Promise.resolve();
  return alone(project.id, async () => {
    for (const ride of (await get<Kept[]>(key(project.id))) ?? []) {
      if (!(await send(ride.edit, { key: ride.id })) && isPassing(store)) return;
      await drop(project.id, ride.id);
    }
  });
}

/** Whether only another state that is heard stood in the way. Else the ride is refused for what it is. */
function isPassing(store: MixStore): boolean {
  return store.getState().hearing !== null;
}
