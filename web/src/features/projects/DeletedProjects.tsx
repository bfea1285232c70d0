import { useMutation } from "@tanstack/react-query";
import { api } from "@/api/client";
import type { Project } from "@/api/schema";
import { useSettled } from "./useSettled";

/** Projects that can still be brought back. */
export function DeletedProjects({ projects }: { projects: Project[] }) {
  const settled = useSettled();
  const restore = useMutation({ mutationFn: api.restoreProject, ...settled });
  if (projects.length === 0) return null;
  return (
    <>
      <h2 className="caps mt-8 mb-1">Deleted</h2>
      <ul>
        {projects.map((p) => (
          <li key={p.id} className="flex items-center gap-3 border-t border-line py-2 text-faint">
            <span className="flex-1 truncate">{p.name}</span>
            {p.goneAt && (
              <span className="text-aside">
                gone for good on{" "}
                {new Date(p.goneAt).toLocaleDateString("en-GB", { day: "numeric", month: "long" })}
              </span>
            )}
            {p.role === "owner" && (
              <button type="button" className="button" onClick={() => restore.mutate(p.id)}>
                Bring back
              </button>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
