import { ChevronRight } from "lucide-react";
import type { Clip } from "@/api/schema";
import { useDesk } from "@/commands/deskContext";
import { ColourFields } from "@/parts/ColourFields";
import { useCanEdit, useMix, useMixStore } from "@/store/context";

/** What is done to the spectrum of the selected clips: closed until it is wanted, unless there is something. */
export function ColourSection({ clip }: { clip: Clip }) {
  const edit = useMixStore().getState().edit;
  const canEdit = useCanEdit();
  const desk = useDesk();
  const selected = useMix((s) => s.selected);
  return (
    <details className="group mt-3" open={clip.colour !== undefined}>
      <summary className="caps flex min-h-6 cursor-pointer items-center gap-1">
        <ChevronRight size={12} aria-hidden className="transition-transform group-open:rotate-90" />
        Colour <span className="text-note font-normal normal-case">{clip.colour ? "" : "as recorded"}</span>
      </summary>
      <ColourFields
        of={clip.name}
        colour={clip.colour}
        disabled={!canEdit}
        onChange={(colour) =>
          edit({ edit: "set-clip-colours", colours: selected.map((id) => ({ clip: id, colour })) })
        }
      />
      {canEdit && (
        <div className="mt-2 flex flex-wrap gap-1.5">
          <button type="button" className="button px-2 py-0.5" onClick={() => desk?.show("even-colour")}>
            Even up the colour…
          </button>
          {clip.colour && (
            <button
              type="button"
              className="button px-2 py-0.5"
              onClick={() =>
                void edit({
                  edit: "set-clip-colours",
                  colours: selected.map((id) => ({ clip: id, colour: {} })),
                })
              }
            >
              As recorded
            </button>
          )}
        </div>
      )}
    </details>
  );
}
