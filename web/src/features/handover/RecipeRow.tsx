import { Pencil } from "lucide-react";
import type { Recipe } from "@/api/schema";
import { useMix } from "@/store/context";
import { describe, wouldFlatten } from "./orders";

interface Props {
  recipe: Recipe;
  disabled: boolean;
  onChange: () => void;
  onMake: () => void;
}

/** A recipe with the files that it makes. */
export function RecipeRow({ recipe, disabled, onChange, onMake }: Props) {
  const passes = useMix((s) => (s.figures?.over.places.length ?? 0) > 0);
  return (
    <li className="min-w-0 rounded-lg border border-line bg-sheet px-3 py-2">
      <div className="flex items-center gap-2">
        <strong className="min-w-0 flex-1 truncate" title={recipe.name}>
          {recipe.name}
        </strong>
        <button
          type="button"
          className="button button-quiet p-1"
          aria-label={`Change the recipe ${recipe.name}`}
          title="Change"
          onClick={onChange}
        >
          <Pencil size={14} />
        </button>
        <button
          type="button"
          className="button button-main px-3 py-1"
          aria-label={`Make ${recipe.name}`}
          disabled={disabled}
          onClick={onMake}
        >
          Make
        </button>
      </div>
      <ul className="mt-1 text-aside text-faint">
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
  );
}
