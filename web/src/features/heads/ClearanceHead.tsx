import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { TypedField } from "@/parts/TypedField";

/** Beside the strip: what is wanted, and how much of the speech has it. */
export function ClearanceHead({ top, height }: { top: number; height: number }) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const wanted = useMix((s) => s.aim.clearance);
  const part = useMix((s) => s.figures?.clearPart ?? null);
  return (
    <div
      className="absolute inset-x-0 grid content-center gap-0.5 bg-sunk/60 pr-2 pl-3 text-aside"
      style={{ top, height }}
      role="group"
      aria-label="Clearance"
    >
      <div className="font-semibold" title="How far speech stands above everything else, moment by moment">
        Clearance
      </div>
      <div className="flex items-center justify-between gap-2">
        <span className="text-faint" title="Part of the speech that is as clear as wanted">
          {part === null ? "no speech" : `${Math.floor(100 * part)} % clear at`}
        </span>
        <span className="flex items-center gap-1">
          <TypedField
            className="!w-11"
            label="Wanted clearance, LU"
            shown={String(wanted)}
            disabled={!canEdit}
            onCommit={(text) =>
              store.getState().edit({ edit: "set-aim", clearance: Number(text.replace(",", ".")) })
            }
          />
          <span className="text-faint">LU</span>
        </span>
      </div>
    </div>
  );
}
