import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Plus } from "lucide-react";
import { useState } from "react";
import { api } from "@/api/client";
import type { NewRecipe, Recipe } from "@/api/schema";
import { useCanEdit, useMix } from "@/store/context";
import { formatSeconds } from "@/lib/format";
import { Beside } from "./Beside";
import { RecipeForm } from "./RecipeForm";
import { RecipeRow } from "./RecipeRow";
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
          <RecipeRow
            key={recipe.id}
            recipe={recipe}
            disabled={!canEdit || empty || isPending}
            onChange={() => setOpen(recipe)}
            onMake={() => void make(recipe)}
          />
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
