import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api } from "@/api/client";
import type { Rule } from "@/api/schema";
import { useMix, useMixStore } from "@/store/context";
import { fewest, needed, wishOf } from "./duckRules";

/** Works a rule out as it stands in the form, draws it and lets it be heard; leaving it in any way ends that. */
export function useTrial(draft: Rule) {
  const store = useMixStore();
  const project = useMix((s) => s.project.id);
  const revision = useMix((s) => s.revision);
  const [listening, setListening] = useState(true);
  const complete = draft.targets.length >= fewest(draft);
  const { data, error, isPlaceholderData, isFetching } = useQuery({
    queryKey: ["ducking", project, revision, draft],
    queryFn: () => api.ducking(project, { rule: draft }),
    placeholderData: (old) => old,
    enabled: complete,
    retry: false,
  });
  // What is shown and heard is the rule as it stands in the form; where it cannot be worked out, nothing is tried.
  const plan = complete && !error ? data : undefined;
  useEffect(() => {
    if (!plan) {
      store.getState().set({ duckPlan: null, duckTry: null });
      return;
    }
    const lanes = Object.fromEntries(
      plan.lanes.flatMap(({ tracks, schedule, bandSchedule }) =>
        tracks.map((track) => [track, { all: schedule, band: bandSchedule }]),
      ),
    );
    store.getState().set({ duckPlan: plan, duckTry: listening ? lanes : null });
  }, [store, plan, listening]);
  const missing = !complete
    ? needed(draft)
    : (error?.message ?? (!plan || isPlaceholderData || isFetching ? "Listening…" : null));
  // The strip shows what the rule goes by, then and once it is kept.
  const wish = wishOf(draft);
  useEffect(() => {
    if (wish !== "depth") store.getState().set({ judged: wish });
  }, [store, wish]);
  // Leaving it in any way ends the trial.
  useEffect(() => () => store.getState().set({ duckPlan: null, duckTry: null, duckDraft: null }), [store]);
  return { plan, error, complete, missing, listening, setListening };
}
