import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api } from "@/api/client";
import type { Peak } from "@/api/schema";
import { usePlayer } from "@/player";
import { clipsInRange } from "@/scene/levels";
import { formatDb } from "@/lib/format";
import { formatTimecode } from "@/preview/timecode";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { TypedField } from "@/parts/TypedField";

/** Lists what rises above a ceiling in the range or the selected clips, to be tamed one by one or all at once. */
export function TamePanel() {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const settings = useMix((s) => s.settings);
  const revision = useMix((s) => s.revision);
  const range = useMix((s) => s.range);
  const selected = useMix((s) => s.selected);
  const project = useMix((s) => s.project.id);
  // Asked for once, the list is kept up with every edit, so that it shows peaks as they are after it.
  const [asked, setAsked] = useState(false);
  const list = useRef<HTMLDivElement & HTMLParagraphElement>(null);
  const clips = range ? clipsInRange(store.getState(), range) : selected;
  const where = range ? { from: range.from, to: range.to } : {};
  const wanted = { clips, ceiling: settings.ceiling, ...where };
  const { data, error, isFetching } = useQuery({
    queryKey: ["peaks", project, revision, wanted],
    queryFn: () => api.peaks(project, wanted),
    enabled: asked && clips.length > 0,
    placeholderData: (old) => old,
    retry: false,
  });
  const peaks = asked && clips.length > 0 ? data : undefined;
  useEffect(() => {
    if (peaks || error) list.current?.scrollIntoView({ block: "nearest" });
  }, [peaks, error]);
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
            if (!Number.isFinite(ceiling)) {
              const why = `“${text}” is not a level. Type dBFS, as −6.`;
              store.getState().set({ notice: { kind: "error", text: why } });
              return false;
            }
            store.getState().set({ settings: { ...settings, ceiling } });
            return true;
          }}
        />
        <button
          type="button"
          className="button px-2 py-0.5"
          aria-disabled={clips.length === 0}
          title={clips.length ? "Worst first" : "No clip lies under the range"}
          aria-expanded={asked}
          onClick={() => clips.length > 0 && setAsked(!asked)}
        >
          {isFetching ? "…" : asked ? "Close" : "List"}
        </button>
      </div>
      {asked && error && (
        <p ref={list} role="alert" className="mt-1 text-aside text-trouble">
          {error.message}
        </p>
      )}
      {peaks && !error && (
        <div ref={list}>
          <div className="mt-1.5 flex items-center justify-between">
            <span className="text-note text-faint" role="status">
              {peaks.length === 0 ? "None: nothing to tame." : `${peaks.length} found`}
            </span>
            {canEdit && peaks.length > 0 && (
              <button type="button" className="button button-main px-2 py-0.5" onClick={() => tame(peaks)}>
                Tame all
              </button>
            )}
          </div>
          <PeakList peaks={peaks} onTame={canEdit ? tame : null} />
        </div>
      )}
    </div>
  );
}

/** The peaks, worst first: to go to, and to be tamed one by one. */
function PeakList({ peaks, onTame }: { peaks: Peak[]; onTame: ((peaks: Peak[]) => void) | null }) {
  const player = usePlayer();
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  return (
    <ul className="mt-1 max-h-36 overflow-y-auto" aria-label="Peaks">
      {peaks.map((peak) => (
        <li key={`${peak.clip}-${peak.at}`} className="flex items-center gap-2 py-0.5">
          <button
            type="button"
            className="figure min-h-6 cursor-pointer text-note underline decoration-line"
            title="Go there"
            onClick={() => player.seek(peak.time)}
          >
            {formatTimecode(peak.time, rate, frameRate)}
          </button>
          <span className="figure flex-1 text-right text-note">{formatDb(peak.db)}</span>
          {onTame && (
            <button type="button" className="button px-1.5 py-0 text-note" onClick={() => onTame([peak])}>
              Tame {formatDb(peak.by)}
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}
