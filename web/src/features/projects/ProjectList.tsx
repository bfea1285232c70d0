import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { api } from "@/api/client";
import { switchTheme } from "@/store/theme";
import { BeginProject } from "./BeginProject";
import { DeletedProjects } from "./DeletedProjects";
import { Find, useFind } from "./Find";
import { ProjectRow } from "./ProjectRow";

interface Props {
  onOpen: (project: string) => void;
  onSignOut: () => void;
  /** What one does with one's own account. */
  account: ReactNode;
}

export function ProjectList({ onOpen, onSignOut, account }: Props) {
  const { data: projects, error } = useQuery({
    queryKey: ["projects"],
    queryFn: api.projects,
    // One may be invited meanwhile.
    refetchOnWindowFocus: true,
  });
  const active = projects?.filter((p) => !p.deletedAt) ?? [];
  const find = useFind(active);
  const deleted = projects?.filter((p) => p.deletedAt) ?? [];
  return (
    <div className="h-full overflow-y-auto">
      <header className="flex items-center gap-3 border-b border-line px-8 py-3">
        <span className="text-title font-semibold tracking-tight">
          W<span className="text-copper">a</span>ttage
        </span>
        <span className="flex-1" />
        {account}
        <button type="button" className="button" onClick={switchTheme}>
          Day or night
        </button>
        <button type="button" className="button" onClick={onSignOut}>
          Sign out
        </button>
      </header>
      <main className="mx-auto grid max-w-[1080px] grid-cols-[minmax(0,1fr)_280px] gap-10 px-8 py-8 max-md:grid-cols-1">
        <section aria-label="Projects">
          <div className="mb-3 flex items-center gap-3">
            <h1 className="flex-1 text-page font-semibold">Projects</h1>
            {active.length > 1 && <Find {...find} />}
          </div>
          {error && (
            <p role="alert" className="text-trouble">
              {error.message}
            </p>
          )}
          {projects && active.length === 0 && (
            <p className="text-faint">
              No project yet. Begin one on the right; then bring in recordings and music.
            </p>
          )}
          <ul>
            {find.found.map((p) => (
              <ProjectRow key={p.id} project={p} onOpen={() => onOpen(p.id)} />
            ))}
          </ul>
          {active.length > 0 && find.found.length === 0 && (
            <p className="text-faint">No project is called “{find.text}”.</p>
          )}
          <DeletedProjects projects={deleted} />
        </section>
        <BeginProject onOpen={onOpen} />
      </main>
    </div>
  );
}
