import { CORE } from "@/preview/constants";
import { useMutation } from "@tanstack/react-query";
import { Copy, Pencil, Trash2 } from "lucide-react";
import { AlertDialog } from "radix-ui";
import { useState } from "react";
import { api } from "@/api/client";
import { askedAgain } from "@/api/problem";
import type { Project } from "@/api/schema";
import { newId } from "@/lib/ids";
import { ProjectGlance } from "./ProjectGlance";
import { useSettled } from "./useSettled";

/** A project of the list: opened, copied, renamed, deleted. */
export function ProjectRow({ project, onOpen }: { project: Project; onOpen: () => void }) {
  const [renaming, setRenaming] = useState(false);
  const settled = useSettled();
  const rename = useMutation({
    mutationFn: (name: string) => api.renameProject(project.id, name),
    onSuccess: () => setRenaming(false),
    ...settled,
  });
  const remove = useMutation({ mutationFn: () => api.deleteProject(project.id), ...settled });
  const copy = useMutation({
    mutationFn: (key: string) =>
      api.copyProject(project.id, `Copy of ${project.name}`.slice(0, CORE.longestName), key),
    ...askedAgain,
    ...settled,
  });
  const problem = rename.error ?? remove.error ?? copy.error;
  return (
    <li className="border-t border-line py-3">
      {problem && (
        <p role="alert" className="mb-1 text-aside text-trouble">
          {problem.message}
        </p>
      )}
      {renaming ? (
        <Rename
          name={project.name}
          onName={(name) => rename.mutate(name)}
          onKeep={() => setRenaming(false)}
        />
      ) : (
        <div className="flex items-center gap-2">
          <button type="button" className="min-w-0 flex-1 cursor-pointer text-left" onClick={onOpen}>
            <span className="block truncate text-head font-semibold hover:text-copper-text">
              {project.name}
            </span>
            <ProjectGlance project={project} />
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
              <Delete name={project.name} onDelete={() => remove.mutate()} />
            </>
          )}
        </div>
      )}
    </li>
  );
}

function Rename({
  name,
  onName,
  onKeep,
}: {
  name: string;
  onName: (name: string) => void;
  onKeep: () => void;
}) {
  return (
    <form
      className="flex gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onName(String(new FormData(event.currentTarget).get("name")));
      }}
    >
      <input
        className="field"
        name="name"
        aria-label="New name"
        defaultValue={name}
        autoFocus
        maxLength={CORE.longestName}
      />
      <button className="button button-main">Rename</button>
      <button type="button" className="button" onClick={onKeep}>
        Keep
      </button>
    </form>
  );
}

function Delete({ name, onDelete }: { name: string; onDelete: () => void }) {
  return (
    <AlertDialog.Root>
      <AlertDialog.Trigger className="button button-quiet p-2" aria-label={`Delete ${name}`}>
        <Trash2 size={15} />
      </AlertDialog.Trigger>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/35" />
        <AlertDialog.Content className="fixed top-[22vh] left-1/2 z-50 w-[420px] max-w-[92vw] -translate-x-1/2 rounded-xl border border-line bg-paper p-5 shadow-2xl">
          <AlertDialog.Title className="text-head font-semibold">Delete “{name}”?</AlertDialog.Title>
          <AlertDialog.Description className="mt-1 mb-4 text-faint">
            It goes to “Deleted” below, with all its sources and history, and can be brought back.
          </AlertDialog.Description>
          <div className="flex justify-end gap-2">
            <AlertDialog.Cancel className="button">Keep it</AlertDialog.Cancel>
            <AlertDialog.Action className="button button-main" onClick={onDelete}>
              Delete
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
