import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { FilePlus2, Plus, RotateCcw, X } from "lucide-react";
import { useRef } from "react";
import { api } from "@/api/client";
import type { Source } from "@/api/schema";
import { SOURCE_DRAG } from "@/timeline";
import { formatBytes, formatDb, formatSeconds } from "@/lib/format";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import type { useUploads } from "./useUploads";

interface Props {
  uploads: ReturnType<typeof useUploads>;
  /** Places a source at the playhead on a track that fits. */
  onPlace: (source: Source) => void;
}

/** All files of the project, those on their way, and what went wrong with any. */
export function SourcesShelf({ uploads, onPlace }: Props) {
  const project = useMix((s) => s.project.id);
  const canEdit = useCanEdit();
  const picker = useRef<HTMLInputElement>(null);
  const { data: sources = [] } = useQuery({
    queryKey: ["sources", project],
    queryFn: () => api.sources(project),
    refetchInterval: (query) => (query.state.data?.some((s) => s.state === "analysing") ? 500 : false),
  });
  const sending = new Set(uploads.uploads.map((u) => u.source));
  const arrived = sources.filter((s) => !sending.has(s.id));
  return (
    <div className="flex h-full flex-col">
      {canEdit && (
        <div className="p-3 pb-2">
          <button type="button" className="button w-full py-2" onClick={() => picker.current?.click()}>
            <FilePlus2 size={15} aria-hidden /> Bring in files…
          </button>
          <input
            ref={picker}
            type="file"
            multiple
            hidden
            data-testid="file-picker"
            accept="audio/*,video/*,.zip,.otioz,.wav,.flac,.mp3,.aac,.m4a,.ogg,.oga,.opus,.mp4,.mkv,.webm,.mov"
            onChange={(event) => {
              uploads.add(event.target.files ?? []);
              event.target.value = "";
            }}
          />
        </div>
      )}
      <ul className="min-h-0 flex-1 overflow-y-auto px-3 pb-3" aria-label="Sources">
        {uploads.uploads.map((upload) => (
          <li key={upload.key} className="border-t border-line py-2">
            <Line
              name={upload.name}
              detail={
                upload.problem ? "" : `sending · ${formatBytes(upload.sent)} of ${formatBytes(upload.size)}`
              }
            >
              {upload.problem && (
                <IconButton
                  label={`Send ${upload.name} again`}
                  onClick={() => uploads.retry(upload)}
                  icon={<RotateCcw size={14} />}
                />
              )}
              <IconButton
                label={upload.problem ? `Dismiss ${upload.name}` : `Stop sending ${upload.name}`}
                onClick={() => void uploads.cancel(upload)}
                icon={<X size={14} />}
              />
            </Line>
            {upload.problem ? (
              <Problem text={upload.problem} />
            ) : (
              <Bar done={upload.size ? upload.sent / upload.size : 0} label={`Sending ${upload.name}`} />
            )}
          </li>
        ))}
        {[...arrived].reverse().map((source) => (
          <SourceItem key={source.id} source={source} canEdit={canEdit} onPlace={() => onPlace(source)} />
        ))}
        {arrived.length === 0 && uploads.uploads.length === 0 && (
          <li className="py-6 text-center text-faint">
            Nothing here yet. Drop speech, music or a video anywhere on this page, then drag each from here
            onto a track. A project’s archive, dropped here, is that project again.
          </li>
        )}
      </ul>
    </div>
  );
}

function SourceItem({ source, canEdit, onPlace }: { source: Source; canEdit: boolean; onPlace: () => void }) {
  const project = useMix((s) => s.project.id);
  const store = useMixStore();
  const client = useQueryClient();
  const settled = {
    onError: (error: Error) => store.getState().set({ notice: { kind: "error", text: error.message } }),
    onSettled: () => client.invalidateQueries({ queryKey: ["sources", project] }),
  };
  const remove = useMutation({ mutationFn: () => api.removeSource(source.id), ...settled });
  const retry = useMutation({ mutationFn: () => api.retrySource(source.id), ...settled });
  const ready = source.state === "ready";
  return (
    <li
      className={`group border-t border-line py-2 ${ready && canEdit ? "cursor-grab" : ""}`}
      draggable={ready && canEdit}
      onDragStart={(event) => {
        event.dataTransfer.setData(SOURCE_DRAG, source.id);
        event.dataTransfer.effectAllowed = "copy";
        const { id, name, frames } = source;
        store.getState().set({ carried: { source: id, name, length: frames ?? 0 } });
      }}
      onDragEnd={() => store.getState().set({ carried: null })}
    >
      <Line name={source.name} detail={detailOf(source)}>
        {ready && canEdit && (
          <IconButton
            label={`Place ${source.name} at the playhead`}
            onClick={onPlace}
            icon={<Plus size={14} />}
          />
        )}
        {source.state === "refused" && canEdit && (
          <IconButton
            label={`Try ${source.name} again`}
            onClick={() => retry.mutate()}
            icon={<RotateCcw size={14} />}
          />
        )}
        {canEdit && (
          <IconButton
            label={
              ready
                ? `Remove ${source.name}`
                : source.state === "refused"
                  ? `Dismiss ${source.name}`
                  : `Stop ${source.name}`
            }
            onClick={() => remove.mutate()}
            icon={<X size={14} />}
          />
        )}
      </Line>
      {source.state === "analysing" && <Bar done={source.progress} label={`Analysing ${source.name}`} />}
      {source.problem && <Problem text={source.problem} />}
      {source.warning && (
        <p className="mt-1 rounded-md border border-trouble px-2 py-1 text-aside text-trouble">
          {source.warning}
        </p>
      )}
    </li>
  );
}

function detailOf(source: Source): string {
  switch (source.state) {
    case "uploading":
      return `waiting for the rest · ${formatBytes(source.received)} of ${formatBytes(source.size)}`;
    case "analysing":
      return "listening to it";
    case "refused":
      return "";
    case "ready": {
      const peak =
        source.peakDbfs === null || source.peakDbfs <= -200 ? "silent" : `peak ${formatDb(source.peakDbfs)}`;
      const rate =
        source.fileRate && source.fileRate !== 48000
          ? ` · from ${(source.fileRate / 1000).toLocaleString("en")} kHz`
          : "";
      return `${formatSeconds((source.frames ?? 0) / 48000)} · ${source.channels === 1 ? "mono" : "stereo"} · ${peak}${rate}`;
    }
  }
}

function Line({ name, detail, children }: { name: string; detail: string; children: React.ReactNode }) {
  return (
    <div className="flex items-start gap-1">
      <div className="min-w-0 flex-1">
        <div className="truncate font-semibold" title={name}>
          {name}
        </div>
        {detail && <div className="figure truncate text-note text-faint">{detail}</div>}
      </div>
      {children}
    </div>
  );
}

function IconButton({ label, onClick, icon }: { label: string; onClick: () => void; icon: React.ReactNode }) {
  return (
    <button
      type="button"
      className="button button-quiet p-1 text-faint hover:text-ink"
      aria-label={label}
      title={label}
      onClick={onClick}
    >
      {icon}
    </button>
  );
}

function Bar({ done, label }: { done: number; label: string }) {
  const percent = Math.round(100 * done);
  return (
    <div
      role="progressbar"
      aria-label={label}
      aria-valuenow={percent}
      aria-valuemin={0}
      aria-valuemax={100}
      className="mt-1 h-1 rounded bg-sunk"
    >
      <div className="h-full rounded bg-copper transition-[width]" style={{ width: `${percent}%` }} />
    </div>
  );
}

function Problem({ text }: { text: string }) {
  return (
    <p role="alert" className="mt-1 rounded-md bg-trouble-sheet px-2 py-1 text-aside text-trouble">
      {text}
    </p>
  );
}
