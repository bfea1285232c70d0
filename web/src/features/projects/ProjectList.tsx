import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Copy, FolderPlus, Pencil, Trash2 } from "lucide-react";
import { AlertDialog } from "radix-ui";
import { useRef, useState } from "react";
import { api } from "@/api/client";
import { askedAgain } from "@/api/problem";
import type { Project, Session } from "@/api/schema";
import { Account } from "@/features/session";
import { newId } from "@/lib/ids";
import { FRAME_RATES } from "@/lib/timecode";
import { switchTheme } from "@/store/theme";

interface Props {
  session: Session;
  onOpen: (project: string) => void;
  onSignOut: () => void;
  /** The account has changed, or its session has ended. */
  onAccount: () => Promise<unknown>;
}

export function ProjectList({ session, onOpen, onSignOut, onAccount }: Props) {
  const client = useQueryClient();
  const { data: projects, error } = useQuery({
    queryKey: ["projects"],
    queryFn: api.projects,
    // One may be invited meanwhile.
    refetchOnWindowFocus: true,
  });
  const settled = { onSettled: () => client.invalidateQueries({ queryKey: ["projects"] }) };
  const begun = useRef(false);
  const create = useMutation({
    mutationFn: (v: { name: string; frameRate: string; key: string }) =>
      api.createProject(v.name, v.frameRate, v.key),
    onSuccess: (p) => onOpen(p.id),
    ...askedAgain,
    onError: () => (begun.current = false),
    ...settled,
  });
  const restore = useMutation({ mutationFn: api.restoreProject, ...settled });
  const active = projects?.filter((p) => !p.deletedAt) ?? [];
  const deleted = projects?.filter((p) => p.deletedAt) ?? [];
  return (
    <div className="h-full overflow-y-auto">
      <header className="flex items-center gap-3 border-b border-line px-8 py-3">
        <span className="text-[19px] font-semibold tracking-tight">
          W<span className="text-copper">a</span>ttage
        </span>
        <span className="flex-1" />
        {session.user && <Account user={session.user} onChange={onAccount} />}
        <button type="button" className="button" onClick={switchTheme}>
          Day or night
        </button>
        <button type="button" className="button" onClick={onSignOut}>
          Sign out
        </button>
      </header>
      <main className="mx-auto grid max-w-[920px] grid-cols-[1fr_280px] gap-10 px-8 py-8 max-md:grid-cols-1">
        <section aria-label="Projects">
          <h1 className="mb-3 text-[22px] font-semibold">Projects</h1>
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
            {active.map((p) => (
              <ProjectRow key={p.id} project={p} onOpen={() => onOpen(p.id)} />
            ))}
          </ul>
          {deleted.length > 0 && (
            <>
              <h2 className="caps mt-8 mb-1">Deleted</h2>
              <ul>
                {deleted.map((p) => (
                  <li key={p.id} className="flex items-center gap-3 border-t border-line py-2 text-faint">
                    <span className="flex-1 truncate">{p.name}</span>
                    {p.goneAt && (
                      <span className="text-[12px]">
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
          )}
        </section>
        <form
          className="grid h-fit gap-3 rounded-xl border border-line bg-sheet p-4"
          onSubmit={(event) => {
            event.preventDefault();
            if (begun.current) return; // a double click begins one
            begun.current = true;
            const form = new FormData(event.currentTarget);
            create.mutate({
              name: String(form.get("name")),
              frameRate: String(form.get("frameRate")),
              key: newId("begin"),
            });
          }}
        >
          <h2 className="font-semibold">Begin a project</h2>
          <label className="grid gap-1">
            <span className="text-faint">Name</span>
            <input
              className="field"
              name="name"
              required
              maxLength={200}
              defaultValue={`Programme of ${new Date().toLocaleDateString("en-GB", { day: "numeric", month: "long" })}`}
              onFocus={(event) => event.currentTarget.select()}
            />
          </label>
          <label className="grid gap-1">
            <span className="text-faint">Frames per second, for timecode</span>
            <select className="field figure" name="frameRate" defaultValue="25">
              {FRAME_RATES.map((rate) => (
                <option key={rate} value={rate}>
                  {rate === "29.97df" ? "29.97 drop-frame" : rate}
                </option>
              ))}
            </select>
          </label>
          {create.error && (
            <p role="alert" className="text-trouble">
              {create.error.message}
            </p>
          )}
          <button className="button button-main" aria-disabled={create.isPending || create.isSuccess}>
            <FolderPlus size={15} aria-hidden /> Begin
          </button>
        </form>
      </main>
    </div>
  );
}

function ProjectRow({ project, onOpen }: { project: Project; onOpen: () => void }) {
  const client = useQueryClient();
  const [renaming, setRenaming] = useState(false);
  const settled = { onSettled: () => client.invalidateQueries({ queryKey: ["projects"] }) };
  const rename = useMutation({
    mutationFn: (name: string) => api.renameProject(project.id, name),
    onSuccess: () => setRenaming(false),
    ...settled,
  });
  const remove = useMutation({ mutationFn: () => api.deleteProject(project.id), ...settled });
  const copy = useMutation({
    mutationFn: (key: string) => api.copyProject(project.id, `Copy of ${project.name}`.slice(0, 200), key),
    ...askedAgain,
    ...settled,
  });
  const problem = rename.error ?? remove.error ?? copy.error;
  return (
    <li className="border-t border-line py-3">
      {problem && (
        <p role="alert" className="mb-1 text-[12px] text-trouble">
          {problem.message}
        </p>
      )}
      {renaming ? (
        <form
          className="flex gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            rename.mutate(String(new FormData(event.currentTarget).get("name")));
          }}
        >
          <input
            className="field"
            name="name"
            aria-label="New name"
            defaultValue={project.name}
            autoFocus
            maxLength={200}
          />
          <button className="button button-main">Rename</button>
          <button type="button" className="button" onClick={() => setRenaming(false)}>
            Keep
          </button>
        </form>
      ) : (
        <div className="flex items-center gap-2">
          <button type="button" className="min-w-0 flex-1 cursor-pointer text-left" onClick={onOpen}>
            <span className="block truncate text-[16px] font-semibold hover:text-copper-text">
              {project.name}
            </span>
            <span className="text-[12px] text-faint">
              {project.role} · changed{" "}
              {new Date(project.changedAt).toLocaleString("en-GB", {
                dateStyle: "medium",
                timeStyle: "short",
              })}
            </span>
          </button>
          <button
            type="button"
            className="button button-quiet p-2"
            aria-label={`Copy ${project.name}`}
            title="A project that begins as this one is now; its recordings are shared, its history is its own"
            aria-disabled={copy.isPending}
            onClick={() => !copy.isPending && copy.mutate(newId("copy"))}
          >
            <Copy size={15} />
          </button>
          {project.role === "owner" && (
            <>
              <button
                type="button"
                className="button button-quiet p-2"
                aria-label={`Rename ${project.name}`}
                onClick={() => setRenaming(true)}
              >
                <Pencil size={15} />
              </button>
              <AlertDialog.Root>
                <AlertDialog.Trigger
                  className="button button-quiet p-2"
                  aria-label={`Delete ${project.name}`}
                >
                  <Trash2 size={15} />
                </AlertDialog.Trigger>
                <AlertDialog.Portal>
                  <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/35" />
                  <AlertDialog.Content className="fixed top-[22vh] left-1/2 z-50 w-[420px] max-w-[92vw] -translate-x-1/2 rounded-xl border border-line bg-paper p-5 shadow-2xl">
                    <AlertDialog.Title className="text-[16px] font-semibold">
                      Delete “{project.name}”?
                    </AlertDialog.Title>
                    <AlertDialog.Description className="mt-1 mb-4 text-faint">
                      It goes to “Deleted” below, with all its sources and history, and can be brought back.
                    </AlertDialog.Description>
                    <div className="flex justify-end gap-2">
                      <AlertDialog.Cancel className="button">Keep it</AlertDialog.Cancel>
                      <AlertDialog.Action className="button button-main" onClick={() => remove.mutate()}>
                        Delete
                      </AlertDialog.Action>
                    </div>
                  </AlertDialog.Content>
                </AlertDialog.Portal>
              </AlertDialog.Root>
            </>
          )}
        </div>
      )}
      {(rename.error ?? remove.error) && (
        <p role="alert" className="mt-1 text-trouble">
          {(rename.error ?? remove.error)?.message}
        </p>
      )}
    </li>
  );
}
