import { useState } from "react";
import { api } from "@/api/client";
import type { Peak } from "@/api/types";
import { usePlayer } from "@/features/player";
import { clipsInRange } from "@/features/timeline";
import { formatDb } from "@/lib/format";
import { formatTimecode } from "@/lib/timecode";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { TypedField } from "@/parts/TypedField";

/** Lists what rises above a ceiling in the range or the selected clips, to be tamed one by one or all at once. */
export function TamePanel() {
  const store = useMixStore();
  const player = usePlayer();
  const canEdit = useCanEdit();
  const settings = useMix((s) => s.settings);
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  const revision = useMix((s) => s.revision);
  const [found, setFound] = useState<{ revision: number; peaks: Peak[] } | null>(null);
  const [busy, setBusy] = useState(false);
  const peaks = found?.revision === revision ? found.peaks : null;
  const find = async () => {
    const state = store.getState();
    const { range, project } = state;
    const clips = range ? clipsInRange(state, range) : state.selected;
    if (!clips.length) return;
    setBusy(true);
    try {
      const where = range ? { from: range.from, to: range.to } : {};
      const list = await api.peaks(project.id, { clips, ceiling: settings.ceiling, ...where });
      setFound({ revision: state.revision, peaks: list });
    } catch (error) {
      state.set({ notice: { kind: "error", text: error instanceof Error ? error.message : String(error) } });
    }
    setBusy(false);
  };
  const tame = (list: Peak[]) =>
    void store.getState().edit({
      edit: "tame",
      notches: list.map(({ clip, at, by, before, after, hold }) => ({ clip, at, by, before, after, hold })),
    });
  return (
    <div className="mt-3 border-t border-line pt-2">
      <div className="grid grid-cols-[1fr_64px_auto] items-center gap-1.5">
        <span className="text-faint">Peaks above, dBFS</span>
        <TypedField
          label="Ceiling for peaks, dBFS"
          shown={formatDb(settings.ceiling)}
          onCommit={async (text) => {
            const ceiling = Number(text.replace(",", "."));
            if (!Number.isFinite(ceiling)) return false;
            store.getState().set({ settings: { ...settings, ceiling } });
            setFound(null);
            return true;
          }}
        />
        <button type="button" className="button px-2 py-0.5" disabled={busy} onClick={() => void find()}>
          {busy ? "…" : "List"}
        </button>
      </div>
      {peaks && (
        <>
          <div className="mt-1.5 flex items-center justify-between">
            <span className="text-[11px] text-faint" role="status">
              {peaks.length === 0 ? "None: nothing to tame." : `${peaks.length} found`}
            </span>
            {canEdit && peaks.length > 0 && (
              <button type="button" className="button button-main px-2 py-0.5" onClick={() => tame(peaks)}>
                Tame all
              </button>
            )}
          </div>
          <ul className="mt-1 max-h-36 overflow-y-auto" aria-label="Peaks">
            {peaks.map((peak) => (
              <li key={`${peak.clip}-${peak.at}`} className="flex items-center gap-2 py-0.5">
                <button
                  type="button"
                  className="figure cursor-pointer text-[11px] underline decoration-line"
                  title="Go there"
                  onClick={() => player.seek(peak.time)}
                >
                  {formatTimecode(peak.time, rate, frameRate)}
                </button>
                <span className="figure flex-1 text-right text-[11px]">{formatDb(peak.db)}</span>
                {canEdit && (
                  <button
                    type="button"
                    className="button px-1.5 py-0 text-[11px]"
                    onClick={() => tame([peak])}
                  >
                    Tame {formatDb(peak.by)}
                  </button>
                )}
              </li>
            ))}
          </ul>
        </>
      )}
    </div>
  );
}
