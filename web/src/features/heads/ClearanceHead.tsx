import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { TypedField } from "@/parts/TypedField";

const JUDGED = {
  clearance: {
    name: "Clearance",
    unit: "LU",
    title: "How far speech stands above everything else, moment by moment",
    wanted: "Wanted clearance, LU",
  },
  clarity: {
    name: "Clarity",
    unit: "of 100",
    title: "How much of the speech can be understood, band by band (Speech Intelligibility Index)",
    wanted: "Wanted clarity, of 100",
  },
} as const;

/** Beside the strip: what it shows, what is wanted of it, and how much of the speech has that. */
export function ClearanceHead({ top, height }: { top: number; height: number }) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const judged = useMix((s) => s.judged);
  const wanted = useMix((s) => s.aim[s.judged]);
  const part = useMix((s) => (s.judged === "clarity" ? s.clarity : s.figures)?.clearPart ?? null);
  const tooLong = useMix((s) => s.judged === "clarity" && s.clarity?.tooLong);
  const { name, unit, wanted: label } = JUDGED[judged];
  return (
    <div
      className="absolute inset-x-0 grid content-center gap-0.5 bg-sunk/60 pr-2 pl-3 text-aside"
      style={{ top, height }}
      role="group"
      aria-label={name}
    >
      <div className="flex gap-2.5" role="group" aria-label="What the strip shows">
        {(["clearance", "clarity"] as const).map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={judged === one}
            className={`min-h-6 border-b-2 ${judged === one ? "border-speech font-semibold" : "border-transparent text-faint hover:text-ink"}`}
            title={JUDGED[one].title}
            onClick={() => store.getState().set({ judged: one })}
          >
            {JUDGED[one].name}
          </button>
        ))}
      </div>
      <div className="flex items-center justify-between gap-2">
        <span className="text-faint" title="Part of the speech that is as clear as wanted">
          {part === null
            ? tooLong
              ? "too long a mix"
              : "no speech"
            : `${Math.floor(100 * part)} % clear at`}
        </span>
        <span className="flex items-center gap-1">
          <TypedField
            className="!w-11"
            label={label}
            shown={String(wanted)}
            disabled={!canEdit}
            onCommit={(text) => {
              const to = Number(text.replace(",", "."));
              return store
                .getState()
                .edit(
                  judged === "clarity"
                    ? { edit: "set-aim", clarity: to }
                    : { edit: "set-aim", clearance: to },
                );
            }}
          />
          <span className="text-faint">{unit}</span>
        </span>
      </div>
    </div>
  );
}
