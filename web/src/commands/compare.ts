import { api } from "@/api/client";
import type { PastMix } from "@/api/schema";
import type { MixState, MixStore } from "@/store/mixStore";

const past = new Map<string, Promise<PastMix>>();
const differences = new Map<string, Promise<number>>();

/** Another state of the project, fetched once: states never change. */
function fetchPast(project: string, revision: number): Promise<PastMix> {
  const key = `${project}/${revision}`;
  const known = past.get(key);
  if (known) return known;
  const fetched = api.past(project, revision);
  fetched.catch(() => past.delete(key));
  past.set(key, fetched);
  return fetched;
}

/** How much louder the present is than the other state, in LU; 0 where either is silent. */
function louderBy(project: string, other: number, present: number): Promise<number> {
  const key = `${project}/${other}/${present}`;
  const known = differences.get(key);
  if (known) return known;
  const measured = api
    .compare(project, other, present)
    .then(({ loudness: [a, b] }) => (b ?? 0) - (a ?? b ?? 0));
  measured.catch(() => differences.delete(key));
  differences.set(key, measured);
  return measured;
}

/** What A is: the chosen snapshot, or the state before the last edit. */
export function stateA(state: MixState): { revision: number; name: string } | null {
  if (state.against) return state.against;
  return state.before === null ? null : { revision: state.before, name: "before the last edit" };
}

/** Fetches A ahead of its being heard, so that switching is instant. */
export function prepareA(state: MixState): void {
  const a = stateA(state);
  if (a) void fetchPast(state.project.id, a.revision).catch(() => undefined);
}

/** What is still on its way belongs to the present that is put aside; so it is waited for. */
async function allSent(store: MixStore): Promise<void> {
  const { unsent, set, settled } = store.getState();
  const text = "This waits until all edits are sent: they are part of the present.";
  if (unsent.length > 0) set({ notice: { kind: "done", text } });
  await settled();
}

/** From the present, B, to A and back, at the same spot. */
export async function switchAB(store: MixStore): Promise<void> {
  await allSent(store);
  const state = store.getState();
  if (state.hearing) {
    state.hear(null);
  } else {
    const a = stateA(state);
    if (!a) {
      state.set({ notice: { kind: "error", text: "There is no earlier state to compare with yet." } });
      return;
    }
    try {
      state.hear({ ...(await fetchPast(state.project.id, a.revision)), name: a.name });
    } catch (error) {
      state.set({ notice: { kind: "error", text: error instanceof Error ? error.message : String(error) } });
    }
  }
  await matchLevels(store);
}

/** Turns the louder of A and B down to the other, where that is wanted: louder always seems better. */
export async function matchLevels(store: MixStore): Promise<void> {
  const state = store.getState();
  const a = state.hearing ?? stateA(state);
  if (!state.matched || !a) {
    state.set({ trim: 0 });
    return;
  }
  try {
    const louder = await louderBy(state.project.id, a.revision, state.revision);
    const now = store.getState();
    const present = now.hearing === null;
    now.set({ trim: (present && louder > 0) || (!present && louder < 0) ? -Math.abs(louder) : 0 });
  } catch {
    state.set({ trim: 0 });
  }
}
