import { type ReactNode, useState } from "react";
import { SILENT, useLevels } from "@/player";
import { BankChoice } from "./BankChoice";
import { STEMS } from "@/parts/stems";
import { useMix } from "@/store/context";
import { type ScaleId, SCALES } from "./scale";
import { ProgrammeStrip, ScaleStrip, StemStrip, TrackStrip } from "./Strip";
import { inDeskOrder } from "@/store/order";
import { RideBar, RideSettings, RideWarnings, Thinning } from "./RideBar";
import { useMoments } from "./useMoments";

/** Tall meters and faders: every track in the order of the timeline, then the stems, then the programme. */
export function DeskView({ timeline }: { timeline: ReactNode }) {
  const tracks = useMix((s) => s.tracks);
  const [scale, setScale] = useState<ScaleId>(() => kept());
  const levels = useLevels();
  const moments = useMoments();
  const ordered = inDeskOrder(tracks);
  return (
    <section className="flex min-h-0 min-w-0 flex-col" aria-label="Desk" data-area="desk">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line px-4 py-2">
        <h1 className="text-[15px] font-semibold">Desk</h1>
        <RideBar />
        <span className="flex-1" />
        <BankChoice />
        <label className="flex items-center gap-2 text-faint">
          Scale
          <select
            className="field !w-auto py-0.5 text-[12px]"
            value={scale}
            onChange={(event) => {
              const next = event.target.value as ScaleId;
              localStorage.setItem("wattage-scale", next);
              setScale(next);
            }}
          >
            {Object.entries(SCALES).map(([id, { name }]) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <div className="flex min-h-6 w-full flex-wrap items-center gap-x-4">
          <RideWarnings />
          <span className="flex-1" />
          <RideSettings />
          <Thinning />
        </div>
      </div>
      <div className="flex min-h-0 flex-1 overflow-x-auto px-2 py-3">
        <div className="flex min-h-0 flex-1 gap-[3px]">
          {ordered.map((track, i) => (
            <TrackStrip
              key={track.id}
              track={track}
              apart={i > 0 && track.stem !== "speech" && ordered[i - 1]?.stem === "speech"}
              reading={levels?.tracks[track.id] ?? SILENT}
              loud={moments(`track ${track.id}`)}
              scale={scale}
            />
          ))}
          <ScaleStrip scale={scale} />
          {STEMS.map(({ stem, name }) => (
            <StemStrip
              key={stem}
              stem={stem}
              name={name}
              reading={levels?.stems[stem] ?? SILENT}
              loud={moments(stem)}
              scale={scale}
            />
          ))}
          <ProgrammeStrip reading={levels?.programme ?? SILENT} loud={moments("programme")} scale={scale} />
        </div>
      </div>
      {timeline}
    </section>
  );
}

function kept(): ScaleId {
  const id = localStorage.getItem("wattage-scale") ?? "";
  return id in SCALES ? (id as ScaleId) : "dbfs";
}
