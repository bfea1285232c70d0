import { useQuery } from "@tanstack/react-query";
import { api } from "@/api/client";
import type { Comment } from "@/api/schema";
import { useMix } from "@/store/context";

const NONE: Comment[] = [];

/** Comments, each where its moment is now: they are asked for again when one changes, or the mix does. */
export function useComments(): Comment[] {
  const project = useMix((s) => s.project.id);
  const version = useMix((s) => s.commentsVersion);
  const revision = useMix((s) => s.revision);
  const { data } = useQuery({
    queryKey: ["comments", project, version, version > 0 ? revision : 0],
    queryFn: () => api.comments(project),
    enabled: version > 0,
    placeholderData: (old) => old,
  });
  return data?.comments ?? NONE;
}
