import { type Asked, wordsOf } from "@/api/asked";
import { ApiError, willPass } from "@/api/problem";
import type { OpenedMix, Step } from "@/api/schema";
import { isStillThere } from "./chosen";
import { changed, type Content, contentFrom, withSame } from "./content";
import type { MixState } from "./mixStore";
import { Queue } from "./queue";

/** What the store needs of the server; the client has it, and so have tests. */
export interface MixPort {
  mix(project: string): Promise<OpenedMix>;
  /** From what the screen shows to the present. */
  changes(project: string, from: number): Promise<Step>;
  /** @param base the revision that the screen shows */
  step(project: string, asked: Asked, base: number): Promise<Step>;
}

/** Where steps are kept until the server has answered them. */
export interface Keeping {
  save(waiting: Asked[]): void;
}

type Set = (part: Partial<MixState> | ((state: MixState) => Partial<MixState>)) => void;

/** Sends steps one after another and takes what the server answers; where it cannot be reached they wait. */
export function syncWith(port: MixPort, get: () => MixState, set: Set, keeping?: Keeping) {
  /** Steps that their callers keep until they are done. */
  const keptElsewhere = new Set<string>();

  const reload = async () => {
    const now = await port.mix(get().project.id);
    set((s) => {
      const content = withSame(contentFrom(now.mix), s.hearing?.present ?? s);
      const { mix, ...head } = now;
      return s.hearing
        ? { ...head, hearing: { ...s.hearing, present: content } }
        : { ...head, ...onScreen(s, content) };
    });
  };

  const take = (step: Step) => {
    if (step.from !== get().revision) return reload();
    const { changes, others, from, ...head } = step;
    try {
      set((s) => {
        if (head.revision === s.revision) return head;
        const content = changed(s.hearing?.present ?? s, changes);
        return {
          ...head,
          ...(others.length > 0 ? { news: { others, at: Date.now() } } : {}),
          ...(s.hearing ? { hearing: { ...s.hearing, present: content } } : onScreen(s, content)),
          adjustable: null,
        };
      });
    } catch {
      return reload(); // Whatever it was, the whole state mends it.
    }
    return Promise.resolve();
  };

  /** Lets through what will pass, so that it is tried again; anything else is said. */
  const refused = (error: unknown) => {
    if (!(error instanceof ApiError)) throw error;
    if (willPass(error)) throw error;
    const text = error.problem.detail;
    set(
      error.problem.code === "others"
        ? { question: { name: get().author.name, label: get().label } }
        : { notice: { kind: "error", text } },
    );
  };

  const catchUp = async () => {
    try {
      await take(await port.changes(get().project.id, get().revision));
    } catch (error) {
      if (error instanceof ApiError && error.problem.code === "unknown-base") await reload();
      else refused(error);
    }
  };

  const queue = new Queue(
    {
      catchUp,
      send: async (asked) => {
        try {
          await take(await port.step(get().project.id, asked, get().revision));
          set({ notice: null });
          return true;
        } catch (error) {
          if (error instanceof ApiError && error.problem.code === "unknown-base") {
            await reload();
            throw error; // on what there is now, it is tried again
          }
          refused(error);
          if (error instanceof ApiError && error.problem.status === 409) queue.catchUp();
          return false;
        }
      },
    },
    (waiting, trouble) => {
      set({ pending: waiting.length, unsent: trouble === null ? [] : waiting.map(wordsOf), trouble });
      keeping?.save(waiting.filter((asked) => !keptElsewhere.has(asked.key)));
    },
  );

  const ask = (asked: Asked): Promise<boolean> => {
    const { hearing } = get();
    if (!hearing) return queue.add(asked);
    const text = `You are hearing “${hearing.name}”. Switch back to the present to edit.`;
    set({ notice: { kind: "error", text } });
    return Promise.resolve(false);
  };
  return { ask, queue, keptElsewhere };
}

/** A state as the screen shows it: what is selected stays so where it is still there. */
export function onScreen(state: MixState, content: Content): Partial<MixState> {
  const { clips, tracks } = content;
  return {
    ...content,
    selected: state.selected.every((id) => clips[id])
      ? state.selected
      : state.selected.filter((id) => clips[id]),
    chosen: state.chosen.map((c) => isStillThere(c, { clips, tracks })).filter((c) => c !== null),
  };
}
