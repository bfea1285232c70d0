import { queryOptions } from "@tanstack/react-query";
import { api } from "@/api/client";

/** The mix as it is when a project is opened: from then on the store keeps it, and the next opening asks anew. */
export const openedMix = (project: string) =>
  queryOptions({
    queryKey: ["mix", project],
    queryFn: () => api.mix(project),
    gcTime: 10_000,
    staleTime: Infinity,
  });
