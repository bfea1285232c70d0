import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { api } from "@/api/client";
import { useMix, useMixStore } from "@/store/context";

/** Asks what the state that is shown will measure at, and how clear its speech is, after every edit, and keeps the answers in the store. */
export function useFigures(): void {
  const store = useMixStore();
  const project = useMix((s) => s.project.id);
  const revision = useMix((s) => s.hearing?.revision ?? s.revision);
  const { data } = useQuery({
    queryKey: ["figures", project, revision],
    queryFn: () => api.figures(project, revision),
    staleTime: Infinity,
  });
  useEffect(() => {
    if (data) store.getState().set({ figures: data });
  }, [store, data]);
  // It is worked out of the same, and takes longer: so it comes after.
  const { data: clarity } = useQuery({
    queryKey: ["clarity", project, revision],
    queryFn: () => api.clarity(project, revision),
    enabled: data?.revision === revision,
    staleTime: Infinity,
  });
  useEffect(() => {
    if (clarity) store.getState().set({ clarity });
  }, [store, clarity]);
}
