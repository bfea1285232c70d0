import { api } from "@/api/client";
import type { MixStore } from "@/store/mixStore";

/** Runs the rules on the mix as it is now; without one of them where it is to go. */
export async function runRules(store: MixStore, without?: string): Promise<void> {
  const { project, edit, set } = store.getState();
  try {
    const plan = await api.ducking(project.id, without === undefined ? {} : { without });
    await edit(plan.edit);
  } catch (error) {
    set({ notice: { kind: "error", text: error instanceof Error ? error.message : String(error) } });
  }
}
