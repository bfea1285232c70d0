import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Download, Headphones, Square } from "lucide-react";
import { api } from "@/api/client";
import type { Delivery } from "@/api/schema";
import { formatBytes, formatDb, formatSeconds } from "@/lib/format";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { describe } from "./orders";
import { Places } from "./Places";
import { isOver } from "./useFiles";
import type { HearFile } from "./useHearFile";

interface Props {
  file: Delivery;
  canEdit: boolean;
  hearing: HearFile;
  onGo: () => void;
}

export function FileRow({ file, canEdit, hearing, onGo }: Props) {
  const project = useMix((s) => s.project.id);
  const track = useMix((s) => s.tracks.find((t) => t.id === file.order.track)?.name);
  // The state that one compares with is set beside it.
  const before = useMix((s) => s.against?.revision ?? null);
  const client = useQueryClient();
  const remove = useMutation({
    mutationFn: () => api.removeDelivery(file.id),
    onSettled: () => client.invalidateQueries({ queryKey: ["deliveries", project] }),
  });
  const done = file.state === "done";
  const heard = hearing.file === file.id;
  return (
    <li className="border-t border-line py-2">
      <div className="flex items-center gap-2">
        {file.outcome && (
          <button
            type="button"
            className="grid size-7 shrink-0 cursor-pointer place-content-center rounded-full border border-line bg-sheet"
            aria-label={heard ? `Back to the mix, from ${file.name}` : `Listen to ${file.name}`}
            title={
              heard ? "Back to the mix, at the same moment" : "Listen to it, from the moment where the mix is"
            }
            aria-pressed={heard}
            onClick={() => (heard ? hearing.back() : hearing.listen(file))}
          >
            {heard ? <Square size={11} fill="currentColor" /> : <Headphones size={14} />}
          </button>
        )}
        <div className="min-w-0 flex-1">
          <div className="truncate font-semibold" title={file.name}>
            {file.name}
          </div>
          <div className="figure truncate text-note text-faint" title={describe(file.order, track)}>
            {stateOf(file)} · {file.recipe ? `${file.recipe}: ` : ""}
            {describe(file.order, track)}
          </div>
        </div>
        {file.outcome && (
          <a
            className="button"
            href={`/api/deliveries/${file.id}/report.html${before === null ? "" : `?before=${before}`}`}
            target="_blank"
            rel="noreferrer"
            aria-label={`Report of ${file.name}`}
            title="What it measures at, how clear its speech is, what was done; opens in a window of its own, to be printed"
          >
            Report
          </a>
        )}
        {done && (
          <a className="button" href={`/api/deliveries/${file.id}/file`} download={file.name}>
            <Download size={14} aria-hidden /> Fetch
          </a>
        )}
        {canEdit && (
          <button
            type="button"
            className="button"
            aria-label={`${isOver(file) ? "Remove" : "Cancel"} ${file.name}`}
            onClick={() => remove.mutate()}
          >
            {isOver(file) ? "Remove" : "Cancel"}
          </button>
        )}
      </div>
      {file.state === "running" && (
        <div
          role="progressbar"
          aria-label={`Rendering ${file.name}`}
          aria-valuenow={Math.round(100 * file.progress)}
          className="mt-1 h-1 rounded bg-sunk"
        >
          <div className="h-full rounded bg-copper" style={{ width: `${100 * file.progress}%` }} />
        </div>
      )}
      {done && <Measured file={file} onGo={onGo} />}
      {file.clipping && file.clipping.samples > 0 && (
        <div role="alert" className="text-aside text-trouble">
          {file.clipping.samples.toLocaleString("en")} samples{" "}
          {file.order.bits === 32 ? "pass full scale" : "were flattened"}, by up to{" "}
          {formatDb(file.clipping.peak ?? 0, 1).replace("+", "")} dB:
          <Places places={file.clipping.places.map(([at = 0, , db = 0]) => ({ at, db }))} onGo={onGo} />
        </div>
      )}
    </li>
  );
}

/** From so much on, the mix should be tamed instead: 3 dB, or a hundredth of the length. */
const [MUCH_DB, MUCH_PART] = [3, 0.01];

function Measured({ file, onGo }: { file: Delivery; onGo: () => void }) {
  const tracks = useMix((s) => s.tracks);
  const store = useMixStore();
  const canEdit = useCanEdit();
  const { outcome } = file;
  if (!outcome) return null;
  const { guard, target } = outcome;
  const much = guard.most > MUCH_DB || guard.part > MUCH_PART;
  const nameOf = (id: string | null) => tracks.find((t) => t.id === id)?.name;
  return (
    <div className="text-aside">
      <p className="figure flex min-h-6 flex-wrap items-center gap-x-3">
        <span className={outcome.met ? "" : "text-trouble"}>
          {outcome.integrated === null ? "silent" : `${formatDb(outcome.integrated)} LUFS`}
          {target.loudness != null &&
            (outcome.met
              ? ` ✓ ${file.order.asProgramme ? "the whole on target" : "on target"}`
              : ` ✗ target ${formatDb(target.loudness)} missed`)}
        </span>
        <span>range {outcome.range.toFixed(1)} LU</span>
        <span>{outcome.truePeak === null ? "" : `${formatDb(outcome.truePeak)} dBTP`}</span>
        <span>{formatSeconds(outcome.seconds)}</span>
        {file.outOfDate && <strong className="font-semibold">out of date: the mix has changed since</strong>}
        {(["pdf", "json", "csv"] as const).map((format) => (
          <a
            key={format}
            className="underline"
            href={`/api/deliveries/${file.id}/report.${format}`}
            download
            aria-label={`Report of ${file.name} as ${format.toUpperCase()}`}
          >
            {format.toUpperCase()}
          </a>
        ))}
      </p>
      {guard.most > 0 && (
        <details>
          <summary className={`min-h-6 cursor-pointer ${much ? "text-trouble" : "text-faint"}`}>
            The peak guard held {guard.places.length === 1 ? "one place" : `${guard.places.length} places`}{" "}
            down, by up to {guard.most.toFixed(1)} dB, {guard.seconds.toFixed(1)} s in all.
            {much && " That is much: tame the peaks in the mix instead."}
          </summary>
          {much && guard.tame && canEdit && (
            <button
              type="button"
              className="button mt-1"
              title="Short dips of the tracks that were too loud there: one edit, which can be undone. Then make the file again"
              disabled={file.outOfDate}
              onClick={() => guard.tame && void store.getState().edit(guard.tame)}
            >
              Tame these places
            </button>
          )}
          <Places
            places={guard.places.map(({ at, db, track }) => ({ at, db: -db, of: nameOf(track) }))}
            onGo={onGo}
          />
        </details>
      )}
    </div>
  );
}

function stateOf(d: Delivery): string {
  switch (d.state) {
    case "done":
      return formatBytes(d.size ?? 0);
    case "running":
      return `${Math.round(100 * d.progress)} %${d.secondsLeft === null ? "" : ` · ${d.secondsLeft} s left`}`;
    case "waiting":
      return "waiting for its turn";
    case "cancelled":
      return "cancelled";
    case "failed":
      return d.problem ?? "failed";
  }
}
