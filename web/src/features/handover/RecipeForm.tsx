import { Plus } from "lucide-react";
import { Dialog } from "radix-ui";
import { Sheet } from "@/parts/Sheet";
import { useState } from "react";
import type { NewRecipe, Order } from "@/api/schema";
import { OrderRow } from "./OrderRow";

interface Props {
  recipe: NewRecipe;
  problem: string | null;
  onKeep: (recipe: NewRecipe) => void;
  onRemove: (() => void) | null;
  onClose: () => void;
}

const MOST_FILES = 30;

/** A recipe, to be made or changed. */
export function RecipeForm({ recipe, problem, onKeep, onRemove, onClose }: Props) {
  const [name, setName] = useState(recipe.name);
  const [pattern, setPattern] = useState(recipe.pattern ?? "");
  const [files, setFiles] = useState<Order[]>(recipe.files);
  const change = (i: number, order: Order) => setFiles(files.map((file, k) => (k === i ? order : file)));
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Sheet title={onRemove ? "Change a recipe" : "A new recipe"} className="w-[900px] overflow-y-auto">
        <form
          className="grid gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            onKeep({ name, pattern, files });
          }}
        >
          <div className="grid grid-cols-2 gap-3">
            <label className="grid gap-1 text-faint">
              Name
              <input className="field" value={name} onChange={(e) => setName(e.target.value)} required />
            </label>
            <label className="grid gap-1 text-faint">
              How its files are named
              <input
                className="field"
                value={pattern}
                onChange={(e) => setPattern(e.target.value)}
                required
              />
            </label>
          </div>
          <p className="text-aside text-faint">
            In names, {"{project} {recipe} {part} {date} {revision} {loudness}"} stand for what they say.
          </p>
          <ol className="grid gap-2">
            {files.map((file, i) => (
              <OrderRow
                key={i}
                number={i + 1}
                order={file}
                onChange={(order) => change(i, order)}
                onRemove={files.length > 1 ? () => setFiles(files.filter((_, k) => k !== i)) : null}
              />
            ))}
          </ol>
          {problem !== null && (
            <p role="alert" className="text-trouble">
              {problem}
            </p>
          )}
          <div className="flex items-center gap-3">
            <button
              type="button"
              className="button"
              disabled={files.length >= MOST_FILES}
              onClick={() => setFiles([...files, { ...(files.at(-1) ?? { format: "wav" }) }])}
            >
              <Plus size={14} aria-hidden /> Another file
            </button>
            <span className="flex-1" />
            {onRemove && (
              <button type="button" className="button text-trouble" onClick={onRemove}>
                Remove the recipe
              </button>
            )}
            <button type="submit" className="button button-main px-4 py-1">
              Keep
            </button>
          </div>
        </form>
      </Sheet>
    </Dialog.Root>
  );
}
