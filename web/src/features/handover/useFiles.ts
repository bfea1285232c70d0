import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api } from "@/api/client";
import { askedAgain } from "@/api/problem";
import type { Delivery, Handover } from "@/api/schema";
import { newId } from "@/lib/ids";
import { useMix, useMixStore } from "@/store/context";

const POLL_MS = 600;

/** The files that were made of a project, newest first; asked for again while one is being made. */
export function useFiles(): Delivery[] {
  const project = useMix((s) => s.project.id);
  const { data = [] } = useQuery({
    queryKey: ["deliveries", project],
    queryFn: () => api.deliveries(project),
    refetchInterval: (query) => (query.state.data?.some((d) => !isOver(d)) ? POLL_MS : false),
  });
  return data;
}

/** Begins files; what is still on its way to the server is meant, too. */
export function useHandOver() {
  const project = useMix((s) => s.project.id);
  const store = useMixStore();
  const client = useQueryClient();
  const start = useMutation({
    mutationFn: ({ key, ...asked }: Handover & { key: string }) => api.handOver(project, asked, key),
    ...askedAgain,
    onSettled: () => client.invalidateQueries({ queryKey: ["deliveries", project] }),
  });
  return {
    isPending: start.isPending,
    problem: start.error?.message ?? null,
    begin: async (asked: Omit<Handover, "revision">) => {
      await store.getState().settled();
      start.mutate({ ...asked, revision: store.getState().revision, key: newId("handover") });
    },
  };
}

export function isOver(d: Delivery): boolean {
  return d.state !== "waiting" && d.state !== "running";
}
