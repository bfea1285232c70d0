import { type ReactNode, useRef, useState } from "react";
import { SILENT, useLevels } from "@/player";
import { BankChoice } from "./BankChoice";
import { STEMS } from "@/parts/stems";
import { useWidth } from "@/parts/useSize";
import { useMix } from "@/store/context";
import { type ScaleId, SCALES } from "./scale";
import { ProgrammeStrip, ScaleStrip, StemStrip, TrackStrip } from "./Strip";
import { inDeskOrder } from "@/store/order";
import { isAnyArmed } from "@/store/screen";
import { RideBar, RideSettings, RideWarnings, Thinning } from "./RideBar";
import { useMoments } from "./useMoments";

/** Part of the width that the faders have at most while a lane stands beside them. */
const BESIDE = 0.54;
/** Px that a strip takes. */
const STRIP = 84;

/** Tall meters and faders: every track in the order of the timeline, then the stems, then the programme. */
export function DeskView({ timeline }: { timeline: ReactNode }) {
  const tracks = useMix((s) => s.tracks);
  const [scale, setScale] = useState<ScaleId>(() => kept());
  const levels = useLevels();
  const moments = useMoments();
  const ordered = inDeskOrder(tracks);
  const riding = useMix(isAnyArmed);
  const section = useRef<HTMLElement>(null);
  const room = useWidth(section) * BESIDE;
  const used = STEMS.filter(({ stem }) => tracks.some((track) => track.stem === stem));
  // While something is ridden its lane needs the room more than faders that cannot be ridden.
  const stems = riding && room < (ordered.length + used.length + 2) * STRIP ? [] : used;
  return (
    <section ref={section} className="flex min-h-0 min-w-0 flex-col" aria-label="Desk" data-area="desk">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line px-4 py-2">
        <h1 className="text-head font-semibold">Desk</h1>
        <RideBar />
        <span className="flex-1" />
        <BankChoice />
        <label className="flex items-center gap-2 text-faint">
          Scale
          <select
            className="field !w-auto py-0.5 text-aside"
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
      {/* What is ridden has its lane beside the faders, so that both have the height. */}
      <div className={`flex min-h-0 flex-1 ${riding ? "flex-row" : "flex-col"}`}>
        <div
          className={`flex min-h-0 overflow-x-auto px-2 py-3 ${riding ? "shrink-0" : "flex-1"}`}
          style={riding ? { maxWidth: `${100 * BESIDE}%` } : undefined}
        >
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
            {stems.map(({ stem, name }) => (
              <StemStrip
                key={stem}
                stem={stem}
                name={name}
                reading={levels?.stems[stem] ?? SILENT}
                loud={moments(stem)}
                scale={scale}
              />
            ))}
            <ProgrammeStrip
              sticky={riding}
              reading={levels?.programme ?? SILENT}
              loud={moments("programme")}
              scale={scale}
            />
          </div>
        </div>
        {timeline}
      </div>
    </section>
  );
}

function kept(): ScaleId {
  const id = localStorage.getItem("wattage-scale") ?? "";
  return id in SCALES ? (id as ScaleId) : "dbfs";
}
