import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { api } from "@/api/client";
import { useMix, useMixStore } from "@/store/context";

/** Asks what the state that is shown will measure at, after every edit, and keeps the answer in the store. */
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
}
