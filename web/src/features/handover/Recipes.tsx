import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Pencil, Plus } from "lucide-react";
import { useState } from "react";
import { api } from "@/api/client";
import type { NewRecipe, Recipe } from "@/api/schema";
import { useCanEdit, useMix } from "@/store/context";
import { formatSeconds } from "@/lib/format";
import { describe, wouldFlatten } from "./orders";
import { RecipeForm } from "./RecipeForm";
import { keptTags, Tags } from "./Tags";
import { useHandOver } from "./useFiles";

const FRESH: NewRecipe = {
  name: "",
  pattern: "{project} {part} r{revision}",
  files: [{ format: "wav", bits: 24, rate: 48000, channels: 2 }],
};

/** What one hands over again and again, by name: several files at once, by one press. */
export function Recipes() {
  const client = useQueryClient();
  const canEdit = useCanEdit();
  const empty = useMix((s) => s.length === 0);
  const project = useMix((s) => s.project.id);
  const rate = useMix((s) => s.rate);
  const { data: recipes = [] } = useQuery({ queryKey: ["recipes"], queryFn: api.recipes });
  const [open, setOpen] = useState<Recipe | "new" | null>(null);
  const refresh = { onSettled: () => client.invalidateQueries({ queryKey: ["recipes"] }) };
  const keep = useMutation({
    mutationFn: (recipe: NewRecipe) =>
      open && open !== "new" ? api.changeRecipe(open.id, recipe) : api.keepRecipe(recipe),
    onSuccess: () => setOpen(null),
    ...refresh,
  });
  const remove = useMutation({
    mutationFn: (id: string) => api.removeRecipe(id),
    onSuccess: () => setOpen(null),
    ...refresh,
  });
  const { begin, isPending, problem } = useHandOver();
  const passes = useMix((s) => (s.figures?.over.places.length ?? 0) > 0);
  const range = useMix((s) => s.range);
  const [onlyRange, setOnlyRange] = useState(false);
  const cut = onlyRange ? range : null;
  const make = (recipe: Recipe) =>
    begin({
      files: recipe.files.map((file) => (cut ? { ...file, range: cut } : file)),
      pattern: recipe.pattern,
      recipe: recipe.name,
      tags: keptTags(project),
    });
  return (
    <section aria-label="Recipes">
      <div className="mb-1 flex items-center">
        <h2 className="caps flex-1">Recipes</h2>
        <button type="button" className="button button-quiet px-1.5" onClick={() => setOpen("new")}>
          <Plus size={14} aria-hidden /> New
        </button>
      </div>
      <ul className="grid grid-cols-[minmax(0,1fr)] gap-2">
        {recipes.map((recipe) => (
          <li key={recipe.id} className="min-w-0 rounded-lg border border-line bg-sheet px-3 py-2">
            <div className="flex items-center gap-2">
              <strong className="min-w-0 flex-1 truncate" title={recipe.name}>
                {recipe.name}
              </strong>
              <button
                type="button"
                className="button button-quiet p-1"
                aria-label={`Change the recipe ${recipe.name}`}
                title="Change"
                onClick={() => setOpen(recipe)}
              >
                <Pencil size={14} />
              </button>
              <button
                type="button"
                className="button button-main px-3 py-1"
                aria-label={`Make ${recipe.name}`}
                disabled={!canEdit || empty || isPending}
                onClick={() => void make(recipe)}
              >
                Make
              </button>
            </div>
            <ul className="mt-1 text-[12px] text-faint">
              {recipe.files.map((file, i) => (
                <li key={i} className="truncate" title={describe(file)}>
                  {describe(file)}
                  {passes && wouldFlatten(file) && (
                    <strong className="ml-1 text-trouble">▼ may be flattened: no ceiling</strong>
                  )}
                </li>
              ))}
            </ul>
          </li>
        ))}
      </ul>
      {range && (
        <label className="mt-2 flex min-h-6 items-center gap-1.5">
          <input
            type="checkbox"
            checked={onlyRange}
            onChange={(event) => setOnlyRange(event.target.checked)}
          />
          only the selected range, {formatSeconds((range.to - range.from) / rate)}
        </label>
      )}
      <Tags />
      <Beside project={project} />
      {recipes.length === 0 && (
        <p className="text-faint">No recipes. A recipe is a set of files that you hand over often.</p>
      )}
      {problem !== null && (
        <p role="alert" className="mt-1 text-trouble">
          {problem}
        </p>
      )}
      {open && (
        <RecipeForm
          recipe={open === "new" ? FRESH : open}
          problem={keep.error?.message ?? null}
          onKeep={(recipe) => keep.mutate(recipe)}
          onRemove={open === "new" ? null : () => remove.mutate(open.id)}
          onClose={() => {
            keep.reset();
            setOpen(null);
          }}
        />
      )}
    </section>
  );
}

/** What goes beside the files: the cut, and where there are some, markers as chapters, and captions. */
function Beside({ project }: { project: string }) {
  const markers = useMix((s) => s.markers.length);
  const captions = useMix((s) => s.captions.length);
  const canEdit = useCanEdit();
  const { begin, isPending } = useHandOver();
  return (
    <p className="flex flex-wrap items-baseline gap-x-3 text-[12px]">
      {canEdit && (
        <button
          type="button"
          className="min-h-6 cursor-pointer underline"
          title="One file with the mix, its sources as they were sent, captions and snapshots. Brought into a new project, it is this one again"
          disabled={isPending}
          onClick={() => void begin({ files: [{ format: "archive" }], pattern: "{project} r{revision}" })}
        >
          The project as an archive
        </button>
      )}
      <a
        className="min-h-6 underline"
        href={`/api/projects/${project}/mix.otio`}
        title="Tracks, clips, crossfades and markers for other programs, in OpenTimelineIO; the whole mix goes along as metadata"
        download
      >
        The cut as OTIO
      </a>
      <a
        className="min-h-6 underline"
        href={`/api/projects/${project}/mix.edl`}
        title="One line for each clip, in whole frames: an edit decision list for what reads nothing else"
        download
      >
        as EDL
      </a>
      {markers > 0 && (
        <a className="min-h-6 underline" href={`/api/projects/${project}/chapters.json`} download>
          Chapters as JSON
        </a>
      )}
      {captions > 0 && (
        <a className="min-h-6 underline" href={`/api/projects/${project}/captions.vtt`} download>
          Captions as WebVTT
        </a>
      )}
      {captions > 0 && (
        <a className="min-h-6 underline" href={`/api/projects/${project}/captions.srt`} download>
          as SRT
        </a>
      )}
    </p>
  );
}
