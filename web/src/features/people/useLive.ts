import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { api } from "@/api/client";
import { ApiError } from "@/api/problem";
import type { Presence } from "@/api/schema";
import { useMixStore } from "@/store/context";
import type { MixState, MixStore } from "@/store/mixStore";

const EVERY_MS = 1300;
/** While nobody else is there; whoever comes is seen within two seconds all the same. */
const ALONE_MS = 1700;
/** While nobody looks. */
const HIDDEN_MS = 8000;

/**
 * Says all the time that this screen is there and what a hand holds, and hears what is new: the present state, comments, lists, who else is
 * there. It never waits for an answer that does not come, and never disturbs what is under way.
 */
export function useLive(): void {
  const store = useMixStore();
  const queries = useQueryClient();
  useEffect(() => {
    const { project } = store.getState();
    const screen = crypto.randomUUID();
    let timer: ReturnType<typeof setTimeout> | undefined;
    let over = false;
    let lists: string | null = null;
    const beat = async () => {
      clearTimeout(timer);
      try {
        const now = await api.presence(project.id, screen, heldIn(store.getState()));
        if (over) return;
        if (lists !== null && lists !== now.lists)
          for (const list of ["sources", "snapshots", "deliveries"])
            void queries.invalidateQueries({ queryKey: [list, project.id] });
        lists = now.lists;
        take(store, now);
      } catch (error) {
        if (over) return;
        store.getState().set({ away: reasonOf(error), people: [] });
      }
      timer = setTimeout(
        () => void beat(),
        document.hidden ? HIDDEN_MS : store.getState().people.length ? EVERY_MS : ALONE_MS,
      );
    };
    const now = () => void beat();
    const leave = () => api.leave(project.id, screen);
    void beat();
    document.addEventListener("visibilitychange", now);
    window.addEventListener("online", now);
    window.addEventListener("pagehide", leave);
    return () => {
      over = true;
      clearTimeout(timer);
      document.removeEventListener("visibilitychange", now);
      window.removeEventListener("online", now);
      window.removeEventListener("pagehide", leave);
      leave();
    };
  }, [store, queries]);
}

function take(store: MixStore, now: Presence): void {
  const state = store.getState();
  if (state.away !== null) state.set({ away: null });
  // The way is open again, so what waits need not wait for its next try.
  if (state.trouble !== null) state.tryNow();
  const people = now.people.filter((p) => p.account !== state.me.id);
  if (JSON.stringify(state.people) !== JSON.stringify(people)) state.set({ people });
  if (state.commentsVersion !== now.comments) state.set({ commentsVersion: now.comments });
  if (state.project.role !== now.role) store.setState({ project: { ...state.project, role: now.role } });
  // What is on its way brings the screen to the present anyway.
  if (now.revision !== state.revision && state.pending === 0) state.catchUp();
}

/** What others see this hand on: what is dragged, a fader, else the clip that is selected. */
function heldIn({ held, grips, writing, selected }: MixState): string | null {
  const [fader] = [...Object.keys(grips), ...writing];
  const [clip] = selected;
  const holds = held ?? (fader ? `fader:${fader}` : clip ? `clip:${clip}` : null);
  return holds !== null && /^(clip|fader|keyframes):[\w-]{1,64}$/.test(holds) ? holds : null;
}

function reasonOf(error: unknown): string {
  const status = error instanceof ApiError ? error.problem.status : 0;
  if (status === 401) return "You have been signed out. Sign in again in another window; nothing is lost.";
  if (status === 404)
    return "This project is not among yours any more: it was deleted, or you were removed from it.";
  return "The server cannot be reached. Edits wait here, and are sent when it is back.";
}
