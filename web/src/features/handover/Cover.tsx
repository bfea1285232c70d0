import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ImagePlus, X } from "lucide-react";
import { useRef } from "react";
import { api } from "@/api/client";
import { useCanEdit, useMix } from "@/store/context";

/** The picture that players show with the files of a project. */
export function Cover() {
  const project = useMix((s) => s.project.id);
  const canEdit = useCanEdit();
  const client = useQueryClient();
  const picker = useRef<HTMLInputElement>(null);
  const { data: shown = null } = useQuery({
    queryKey: ["cover", project],
    queryFn: async () => {
      const answer = await fetch(`/api/projects/${project}/cover`, { cache: "no-store" });
      // A number of its own for each that is kept, so that none is shown from memory.
      return answer.status === 200 ? Date.now() : null;
    },
    staleTime: Infinity,
  });
  const settled = { onSettled: () => client.invalidateQueries({ queryKey: ["cover", project] }) };
  const keep = useMutation({ mutationFn: (picture: Blob) => api.keepCover(project, picture), ...settled });
  const remove = useMutation({ mutationFn: () => api.removeCover(project), ...settled });
  return (
    <>
      <span className="text-faint">Cover</span>
      <span className="flex items-center gap-2">
        {shown && (
          <img
            src={`/api/projects/${project}/cover?${shown}`}
            alt="Cover picture"
            className="size-11 rounded border border-line object-cover"
          />
        )}
        {canEdit && (
          <button type="button" className="button py-0.5 text-aside" onClick={() => picker.current?.click()}>
            <ImagePlus size={13} aria-hidden /> {shown ? "Another…" : "A picture…"}
          </button>
        )}
        {canEdit && shown && (
          <button
            type="button"
            className="button button-quiet p-1"
            aria-label="Remove the cover picture"
            onClick={() => remove.mutate()}
          >
            <X size={13} />
          </button>
        )}
        <input
          ref={picker}
          type="file"
          hidden
          aria-label="Cover picture"
          accept="image/jpeg,image/png"
          onChange={(event) => {
            const file = event.target.files?.[0];
            event.target.value = "";
            if (file) keep.mutate(file);
          }}
        />
        {keep.error && (
          <span role="alert" className="text-aside text-trouble">
            {keep.error.message}
          </span>
        )}
      </span>
    </>
  );
}
