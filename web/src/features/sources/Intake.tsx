import { useQuery } from "@tanstack/react-query";
import { FilePlus2, Headphones, Link2, Link2Off, Square } from "lucide-react";
import { useRef, useState } from "react";
import { api } from "@/api/client";
import type { MixSource, Source } from "@/api/schema";
import { CutImport } from "./CutImport";
import { LayTogether } from "./LayTogether";
import type { useUploads } from "./useUploads";
import { decibelsOf, formatDb, formatSeconds } from "@/lib/format";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { MeterBar } from "@/parts/MeterBar";
import { SourceGain } from "./SourceGain";
import { TypedField } from "@/parts/TypedField";
import { Thumbnail } from "./Thumbnail";
import { useListening } from "./useListening";

/** Where sources come in, are measured and get a rough level, before a single cut. Every use of a source then starts right. */
export function Intake({ uploads }: { uploads: ReturnType<typeof useUploads> }) {
  const project = useMix((s) => s.project.id);
  const canEdit = useCanEdit();
  const picker = useRef<HTMLInputElement>(null);
  const [target, setTarget] = useState(-20);
  const { data: sources = [] } = useQuery({
    queryKey: ["sources", project],
    queryFn: () => api.sources(project),
    refetchInterval: (query) => (query.state.data?.some((s) => s.state === "analysing") ? 500 : false),
  });
  const listening = useListening();
  const ready = sources.filter((s) => s.state === "ready");
  return (
    <section className="flex min-h-0 flex-col" aria-label="Intake" data-area="intake">
      <div className="flex items-center gap-3 border-b border-line px-4 py-2.5">
        <div className="flex-1">
          <h1 className="text-head font-semibold">Intake</h1>
          <p className="text-faint max-[1150px]:hidden">
            Speech to about −20, background to about −30 dBFS on average: it holds in every clip.
          </p>
        </div>
        <label className="flex items-center gap-2 text-faint">
          Target, dBFS
          <TypedField
            label="Target average, dBFS"
            shown={formatDb(target)}
            className="!w-16"
            onCommit={async (text) => {
              const next = Number(text.replace(",", "."));
              if (!(next <= 0 && next >= -60)) return false;
              setTarget(next);
              return true;
            }}
          />
        </label>
        {canEdit && <BringAll sources={ready} />}
        <CutImport />
        {canEdit && <LayTogether sources={ready} />}
        {canEdit && (
          <button type="button" className="button" onClick={() => picker.current?.click()}>
            <FilePlus2 size={15} aria-hidden /> Bring in…
          </button>
        )}
        <input
          ref={picker}
          type="file"
          multiple
          hidden
          accept="audio/*,video/*,.zip,.otioz"
          onChange={(event) => {
            uploads.add(event.target.files ?? []);
            event.target.value = "";
          }}
        />
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto">
        <table className="w-full table-fixed">
          <thead className="sticky top-0 z-10 bg-paper">
            <tr className="caps text-left">
              <th className="py-1.5 pl-4 font-semibold">Source</th>
              <th
                className="w-[76px] font-semibold"
                title="Average: K-weighted as in ITU-R BS.1770, pauses left out, the mean of the channels, dBFS. The same as “average” under Levels; the bars of the Desk are RMS, which reads otherwise"
              >
                Average
              </th>
              <th className="w-[58px] font-semibold" title="Highest sample, dBFS">
                Peak
              </th>
              <th
                className="w-[80px] font-semibold"
                title="Integrated loudness as it is heard on a track at 0 dB, in LUFS, and its range in LU. A mono file sounds on both sides there, 3 dB more than the file alone measures"
              >
                LUFS
              </th>
              <th className="w-[196px] font-semibold">Source gain</th>
              <th className="w-[140px] pr-4">
                <span className="sr-only">Actions</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {ready.map((source) => (
              <Row key={source.id} source={source} target={target} listening={listening} />
            ))}
          </tbody>
        </table>
        {ready.length === 0 && (
          <p className="p-10 text-center text-faint">
            Nothing here yet. Drop recordings, music or a film anywhere on this page.
          </p>
        )}
      </div>
    </section>
  );
}

interface RowProps {
  source: Source;
  target: number;
  listening: ReturnType<typeof useListening>;
}

function Row({ source, target, listening }: RowProps) {
  const edit = useMixStore().getState().edit;
  const canEdit = useCanEdit();
  const inMix = useMix((s) => s.sources[source.id]);
  const gain = inMix?.gain ?? 0;
  const linked = inMix?.right === undefined;
  const heard = listening.source === source.id;
  const level = (value: number | null) =>
    value === null || value <= -200 ? "silent" : formatDb(value + decibelsOf(gain));
  return (
    <tr className="border-t border-line align-middle">
      <td className="py-2 pr-3 pl-4">
        <div className="flex items-center gap-3">
          <button
            type="button"
            className="grid size-7 shrink-0 cursor-pointer place-content-center rounded-full border border-line bg-sheet"
            aria-label={heard ? `Stop ${source.name}` : `Listen to ${source.name}`}
            onClick={() => (heard ? listening.stop() : listening.start(source, gain))}
          >
            {heard ? <Square size={11} fill="currentColor" /> : <Headphones size={14} />}
          </button>
          <div className="min-w-0 flex-1">
            <div className="truncate font-semibold" title={source.name}>
              {source.name}
            </div>
            <div className="figure truncate text-note text-faint" title={describe(source)}>
              {describe(source)}
            </div>
          </div>
          <span className="max-[1150px]:hidden">
            <Thumbnail source={source} gain={decibelsOf(gain)} position={heard ? listening.share : null} />
          </span>
        </div>
        {heard && (
          <div className="mt-1 ml-10 grid w-56 gap-px" aria-hidden>
            <MeterBar db={listening.peaks[0]} thin />
            <MeterBar db={listening.peaks[1]} thin />
          </div>
        )}
      </td>
      <td className="figure pr-3">{level(source.averageDbfs)}</td>
      <td className={`figure pr-3 ${isOver(source, gain) ? "text-trouble" : ""}`}>
        {level(source.peakDbfs)}
        {isOver(source, gain) && <span className="block text-mark">over</span>}
      </td>
      <td className="pr-3">
        <Loudness source={source} gain={decibelsOf(gain)} />
      </td>
      <td className="pr-3">
        <SourceGain source={source} gain={gain} {...(linked ? {} : { channel: "left" as const })} />
        {!linked && <Right source={source} inMix={inMix} />}
      </td>
      <td className="pr-4">
        <div className="flex items-center justify-end gap-1">
          {source.channels === 2 && (
            <button
              type="button"
              className="button button-quiet p-1"
              aria-pressed={linked}
              aria-label={
                linked ? `Unlink the channels of ${source.name}` : `Link the channels of ${source.name}`
              }
              title={linked ? "Linked: one gain for both channels" : "Each channel has its own gain"}
              disabled={!canEdit}
              onClick={() => void edit({ edit: "link-source", source: source.id, linked: !linked })}
            >
              {linked ? <Link2 size={15} /> : <Link2Off size={15} />}
            </button>
          )}
          <Suggested source={source} target={target} />
        </div>
      </td>
    </tr>
  );
}

/** What it measures by itself, after its gain. */
function Loudness({ source, gain }: { source: Source; gain: number }) {
  const measured = source.loudness;
  if (!measured || measured.integrated === null) return <span className="text-faint">silent</span>;
  return (
    <span className="figure block leading-tight whitespace-nowrap">
      {formatDb(measured.integrated + gain)}
      <span className="block text-note text-faint">range {measured.range.toFixed(1)}</span>
    </span>
  );
}

const USES = { speech: "speech", music: "music", ambience: "ambience", effects: "effects" };

/** The gain that fits what the source is used for, or, while it is not used, that which brings it to the target. */
function Suggested({ source, target }: { source: Source; target: number }) {
  const edit = useMixStore().getState().edit;
  const canEdit = useCanEdit();
  const gain = useMix((s) => s.sources[source.id]?.gain ?? 0);
  const { advice, averageDbfs } = source;
  if (advice && Math.abs(decibelsOf(gain) - advice.gain) < 0.05)
    return (
      <span
        className="text-aside text-faint"
        title={`${formatDb(advice.target)} dBFS, for ${USES[advice.use]}`}
      >
        fits {USES[advice.use]}
      </span>
    );
  if (advice)
    return (
      <button
        type="button"
        className="button px-2 py-0.5"
        disabled={!canEdit}
        title={`For ${USES[advice.use]}: to ${formatDb(advice.target)} dBFS on average${
          advice.limit === "peak"
            ? ", as far as its peaks allow"
            : advice.limit
              ? ", as far as gain reaches"
              : ""
        }`}
        aria-label={`Give ${source.name} the suggested gain, ${formatDb(advice.gain)} dB`}
        onClick={() => void edit({ edit: "set-source-gain", source: source.id, gain: advice.gain })}
      >
        {formatDb(advice.gain)} dB{advice.limit === "peak" ? ", peak" : ""}
      </button>
    );
  return (
    <button
      type="button"
      className="button px-2 py-0.5"
      disabled={!canEdit || averageDbfs === null}
      title={
        averageDbfs === null
          ? "There is nothing but silence in it"
          : `Not used yet. Bring the average to ${formatDb(target)} dBFS`
      }
      onClick={() =>
        averageDbfs !== null &&
        void edit({ edit: "level-source", source: source.id, average: averageDbfs, target })
      }
    >
      to {formatDb(target, 0)}
    </button>
  );
}

/** All sources that are used get the gain that fits them, in one step. */
function BringAll({ sources }: { sources: Source[] }) {
  const store = useMixStore();
  const inMix = useMix((s) => s.sources);
  const gains = sources.flatMap(({ id, advice }) =>
    advice && Math.abs(decibelsOf(inMix[id]?.gain ?? 0) - advice.gain) >= 0.05
      ? [{ source: id, gain: advice.gain }]
      : [],
  );
  return (
    <button
      type="button"
      className="button"
      aria-disabled={gains.length === 0}
      title={
        gains.length
          ? "Speech to −20, background to −30 dBFS on average"
          : "Every source that is used fits already"
      }
      onClick={() => gains.length && void store.getState().edit({ edit: "set-source-gains", gains })}
    >
      Give {gains.length || "all"} the suggested gain
    </button>
  );
}

function Right({ source, inMix }: { source: Source; inMix: MixSource | undefined }) {
  return <SourceGain source={source} gain={inMix?.right ?? 0} channel="right" />;
}

function isOver(source: Source, gain: number | "silence"): boolean {
  return (source.peakDbfs ?? -200) + decibelsOf(gain) > 0;
}

function describe(source: Source): string {
  const rate = source.fileRate ? `${(source.fileRate / 1000).toLocaleString("en")} kHz` : "";
  const picture = source.picture === "none" ? "" : " · with picture";
  return `${formatSeconds((source.frames ?? 0) / 48000)} · ${source.channels === 1 ? "mono" : "stereo"} · ${rate} · ${source.format ?? ""}${picture}`;
}
