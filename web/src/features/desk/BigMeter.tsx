import type { ReactNode } from "react";
import type { Stem, Track } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { HeldPeak } from "@/parts/HeldPeak";
import { type Reading, SILENT, useLevels } from "@/player";
import { inkOf } from "@/scene/scene";
import { useMix } from "@/store/context";
import type { MixState } from "@/store/mixStore";
import { Column, Marks } from "./Column";
import { SCALES } from "./scale";
import { type Loud, useMoments } from "./useMoments";

/** A large meter beside the clips, to be read while a level is dragged: the track at hand and the programme, with a scale of numbers between them. */
export function BigMeter() {
  const levels = useLevels();
  const moments = useMoments();
  const track = useMix(trackAtHand);
  return (
    <section className="flex min-h-0 gap-1 border-l border-line bg-paper px-2 py-2" aria-label="Large meter">
      {track && (
        <Gauge
          name={track.name}
          ink={inkOf(track)}
          stem={track.stem}
          reading={levels?.tracks[track.id] ?? SILENT}
          loud={moments(`track ${track.id}`)}
        />
      )}
      <div className="flex flex-col" aria-hidden>
        <div className="h-[22px] shrink-0" />
        <div className="flex min-h-0 flex-1">
          <Marks scale={SCALES.dbfs} />
        </div>
        <div className="h-[66px] shrink-0" />
      </div>
      <Gauge
        name="Programme"
        ink="copper"
        reading={levels?.programme ?? SILENT}
        loud={moments("programme")}
      />
    </section>
  );
}

/** That of the selected clip, else of the range, else the first. */
function trackAtHand({ clips, tracks, selected, range }: MixState): Track | undefined {
  const id = clips[selected[0] ?? ""]?.track ?? range?.tracks?.[0];
  return tracks.find((track) => track.id === id) ?? tracks[0];
}

interface GaugeProps {
  name: string;
  ink: string;
  stem?: Stem;
  reading: Reading;
  loud: Loud;
}

function Gauge({ name, ink, stem, reading, loud }: GaugeProps) {
  const zones = useMix((s) => s.aim.zones);
  const number = (value: number | null) => (value === null ? "—" : formatDb(value));
  return (
    <div className="flex w-[72px] flex-col" role="group" aria-label={`Large meter of ${name}`}>
      <div className="h-[22px] truncate text-center text-aside font-semibold" title={name}>
        {name}
      </div>
      <div className="flex min-h-0 flex-1 pl-[6px]">
        <Column
          reading={reading}
          loud={loud}
          scale="dbfs"
          ink={ink}
          zone={stem === undefined ? undefined : zones[stem]}
        />
      </div>
      <dl className="figure grid h-[66px] grid-cols-[auto_1fr] content-end gap-x-1 text-right text-note leading-[1.4]">
        <Figure name="peak" what="Highest peak, dBFS">
          <HeldPeak of={`${name}, large meter`} peak={Math.max(...reading.peak)} />
        </Figure>
        <Figure name="avg" what="Average now, dBFS">
          {number(loudest(reading.average))}
        </Figure>
        <Figure name="now" what="Loudness now (momentary, 400 ms), LUFS">
          {number(loud.momentary)}
        </Figure>
        <Figure name="3 s" what="Loudness over 3 s (short-term), LUFS">
          {number(loud.shortTerm)}
        </Figure>
      </dl>
    </div>
  );
}

function Figure({ name, what, children }: { name: string; what: string; children: ReactNode }) {
  return (
    <>
      <dt className="text-left text-faint" title={what}>
        {name}
      </dt>
      <dd>{children}</dd>
    </>
  );
}

function loudest(averages: readonly number[]): number | null {
  const highest = Math.max(...averages);
  return highest > -90 ? highest : null;
}
