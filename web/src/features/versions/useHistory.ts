import { useCallback, useEffect, useRef, useState } from "react";
import { api } from "@/api/client";
import { useMix } from "@/store/context";
import type { Past } from "./tree";

interface Known {
  revisions: Past[];
  more: boolean;
}

/** All states known here, newest first: what is new comes by itself, what is older when asked for. */
export function useHistory() {
  const project = useMix((s) => s.project.id);
  const revision = useMix((s) => s.revision);
  const [known, setKnown] = useState<Known>({ revisions: [], more: false });
  const [problem, setProblem] = useState<string | null>(null);
  const newest = useRef<number>(undefined);
  useEffect(() => {
    newest.current = known.revisions[0]?.number;
  }, [known]);
  // Only another present asks for what is new.
  useEffect(() => {
    let over = false;
    const load = async () => {
      const after = newest.current;
      try {
        const { revisions, more } = await api.history(project, after === undefined ? {} : { after });
        if (over) return;
        setProblem(null);
        // Where more is new than one part holds, the list begins anew.
        if (after === undefined || more) setKnown({ revisions, more });
        else if (revisions.length > 0) setKnown((k) => ({ ...k, revisions: [...revisions, ...k.revisions] }));
      } catch (error) {
        if (!over) setProblem(error instanceof Error ? error.message : String(error));
      }
    };
    void load();
    return () => {
      over = true;
    };
  }, [project, revision]);
  const older = useCallback(async () => {
    const oldest = known.revisions.at(-1)?.number;
    if (!known.more || oldest === undefined) return;
    try {
      const part = await api.history(project, { before: oldest });
      setKnown((k) =>
        k.revisions.at(-1)?.number === oldest
          ? { revisions: [...k.revisions, ...part.revisions], more: part.more }
          : k,
      );
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  }, [project, known]);
  return { ...known, older, problem };
}
