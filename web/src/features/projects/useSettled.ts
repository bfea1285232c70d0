import { useQueryClient } from "@tanstack/react-query";

/** After whatever was done to a project, the list is fetched anew. */
export function useSettled() {
  const client = useQueryClient();
  return { onSettled: () => client.invalidateQueries({ queryKey: ["projects"] }) };
}
