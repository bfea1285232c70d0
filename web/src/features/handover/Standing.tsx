import { decibelsOf, formatDb } from "@/lib/format";
import { TargetChoice } from "@/parts/TargetChoice";
import { TypedField } from "@/parts/TypedField";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { areFiguresFresh } from "@/store/screen";

/** The programme as it will measure beside what it is to reach, and the one button between them. */
export function Standing() {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const figures = useMix((s) => s.figures);
  const aim = useMix((s) => s.aim);
  const fresh = useMix(areFiguresFresh);
  const programme = useMix((s) => s.faders.programme);
  if (!figures) return <p className="text-faint">Measuring…</p>;
  const { off, met } = figures.verdict;
  const reach = () => {
    const fader = (decibelsOf(programme) - (off ?? 0)).toFixed(2);
    void store.getState().edit({ edit: "set-programme-fader", fader });
  };
  const typed = (field: "loudness" | "truePeak") => async (text: string) => {
    const value = Number(text.replace(",", "."));
    return Number.isFinite(value) && text.trim() !== ""
      ? store.getState().edit({ edit: "set-aim", [field]: value })
      : false;
  };
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
      <div>
        <h1 className="text-head font-semibold">Handover</h1>
        <p className="text-faint">{inWords(off, met)}</p>
      </div>
      <Reading name="as it will measure" value={figures.programme.integrated} unit="LUFS" strong />
      <Reading name="range" value={figures.programme.range} unit="LU" plain />
      <Reading name="highest sample ≤" value={figures.programme.peak} unit="dBFS" />
      <div className="min-w-[285px] flex-1">
        <TargetChoice keeps />
        <div className="mt-1 flex items-center gap-1.5 whitespace-nowrap text-faint">
          or
          <TypedField
            label="Target, LUFS"
            shown={formatDb(aim.loudness)}
            disabled={!canEdit}
            className="!w-16"
            onCommit={typed("loudness")}
          />
          LUFS, peaks to
          <TypedField
            label="Highest true peak, dBTP"
            shown={formatDb(aim.truePeak)}
            disabled={!canEdit}
            className="!w-14"
            onCommit={typed("truePeak")}
          />
          dBTP
        </div>
      </div>
      <button
        type="button"
        className="button button-main px-4 py-1.5"
        disabled={!canEdit || !fresh || off === null || Math.abs(off) < 0.05}
        title="Gives the whole programme the gain that meets the target: one edit, which can be undone"
        onClick={reach}
      >
        Reach the target{off !== null && Math.abs(off) >= 0.05 ? ` (${formatDb(-off)} dB)` : ""}
      </button>
    </div>
  );
}

function Reading({
  name,
  value,
  unit,
  strong = false,
  plain = false,
}: {
  name: string;
  value: number | null;
  unit: string;
  strong?: boolean;
  plain?: boolean;
}) {
  const shown = value === null ? "silent" : plain ? value.toFixed(1) : formatDb(value);
  return (
    <div className="leading-tight">
      <div className="text-note text-faint">{name}</div>
      <div className={`figure ${strong ? "text-title font-semibold" : "text-head"}`}>
        {shown} <span className="text-note text-faint">{value === null ? "" : unit}</span>
      </div>
    </div>
  );
}

function inWords(off: number | null, met: boolean): string {
  if (off === null) return "The programme is silent.";
  if (met) return "On target.";
  return `${Math.abs(off).toFixed(1)} LU ${off > 0 ? "louder" : "quieter"} than the target.`;
}
