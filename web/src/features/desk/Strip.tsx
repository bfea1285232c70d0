import { type ReactNode, useState } from "react";
import type { Stem, Track } from "@/api/types";
import type { Reading } from "@/features/player";
import { decibelsOf, formatDb } from "@/lib/format";
import { HeldPeak } from "@/parts/HeldPeak";
import { LevelField } from "@/parts/LevelField";
import { PanSlider } from "@/parts/PanSlider";
import { Toggle } from "@/parts/Toggle";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { useSolo } from "@/store/useSolo";
import { Column, Marks } from "./Column";
import { Fader, FADER_MIN } from "./Fader";
import { type ScaleId, SCALES } from "./scale";
import type { Loud } from "./useMoments";

interface Metered {
  reading: Reading;
  loud: Loud;
  scale: ScaleId;
}

export function TrackStrip({ track, apart, ...metered }: { track: Track; apart: boolean } & Metered) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const [solo, toggleSolo] = useSolo(track.id);
  const [dragged, setDragged] = useState<number | null>(null);
  const edit = store.getState().edit;
  const setFader = (fader: number | string) => edit({ edit: "set-fader", track: track.id, fader });
  return (
    <Strip
      name={track.name}
      ink={track.hue ?? track.stem}
      stem={track.stem}
      apart={apart}
      {...metered}
      head={
        <>
          <div className="flex justify-center gap-1">
            <Toggle
              pressed={track.muted}
              label={`Mute ${track.name}`}
              disabled={!canEdit}
              onClick={() => void edit({ edit: "set-muted", track: track.id, muted: !track.muted })}
            >
              M
            </Toggle>
            <Toggle
              pressed={solo}
              label={`Solo ${track.name}`}
              hint="Shift-click: this one alone"
              onClick={(event) => toggleSolo(event.shiftKey)}
            >
              S
            </Toggle>
          </div>
          <div className="mt-1 grid justify-items-center leading-none">
            <PanSlider track={track} disabled={!canEdit} className="w-full" />
          </div>
        </>
      }
      fader={
        <Fader
          of={track.name}
          ink={track.hue ?? track.stem}
          value={dragged ?? decibelsOf(track.fader)}
          disabled={!canEdit}
          onDrag={setDragged}
          onCommit={(v) => void setFader(v <= FADER_MIN ? "silence" : v).then(() => setDragged(null))}
        />
      }
      level={
        <LevelField
          label={`Level of ${track.name} in dB`}
          level={dragged ?? track.fader}
          disabled={!canEdit}
          onCommit={setFader}
        />
      }
    />
  );
}

export function StemStrip({ stem, name, ...metered }: { stem: Stem; name: string } & Metered) {
  return <Strip name={name} ink={stem} stem={stem} {...metered} />;
}

export function ProgrammeStrip(metered: Metered) {
  return <Strip name="Programme" ink="copper" {...metered} />;
}

/** The numbers beside the meters, laid out as a strip is. */
export function ScaleStrip({ scale }: { scale: ScaleId }) {
  return (
    <div className="mx-1 flex flex-col gap-1.5 border-x border-line px-1" aria-hidden>
      <div className="h-[2px] shrink-0" />
      <div className="text-[12px]">&nbsp;</div>
      <div className="h-[46px] shrink-0" />
      <div className="flex min-h-0 flex-1">
        <Marks scale={SCALES[scale]} />
      </div>
      <div className="h-[24px] shrink-0" />
      <div className="figure text-[11px] leading-[1.35] whitespace-pre">{" \n \n "}</div>
    </div>
  );
}

interface Props extends Metered {
  name: string;
  ink: string;
  stem?: Stem;
  apart?: boolean;
  head?: ReactNode;
  fader?: ReactNode;
  level?: ReactNode;
}

/** One strip: name, controls, a tall meter with the fader beside it, and what it reads in numbers. */
function Strip({ name, ink, stem, apart = false, head, fader, level, ...metered }: Props) {
  const zones = useMix((s) => s.aim.zones);
  const { reading, loud, scale } = metered;
  const number = (value: number | null) => (value === null ? "—" : formatDb(value));
  return (
    <div
      className={`flex w-[74px] max-w-[110px] min-w-[62px] flex-1 flex-col gap-1.5 px-1.5 ${apart ? "ml-2" : ""}`}
      role="group"
      aria-label={stem === undefined || head ? name : `${name} stem`}
    >
      <div className="h-[2px] shrink-0 rounded" style={{ background: `var(--${ink})` }} />
      <div className="truncate text-center text-[12px] font-semibold" title={name}>
        {name}
      </div>
      <div className="h-[46px] shrink-0">{head}</div>
      <div className="flex min-h-0 flex-1 gap-1.5 pl-[5px]">
        <Column
          reading={reading}
          loud={loud}
          scale={scale}
          ink={ink}
          zone={stem === undefined ? undefined : zones[stem]}
        />
        {fader}
      </div>
      <div className="h-[24px] shrink-0">{level}</div>
      <dl className="figure grid shrink-0 grid-cols-[auto_1fr] gap-x-1 text-right text-[11px] leading-[1.35]">
        <dt className="text-left text-faint" title="Highest peak, dBFS">
          peak
        </dt>
        <dd>
          <HeldPeak of={name} peak={Math.max(...reading.peak)} />
        </dd>
        <dt className="text-left text-faint" title="Momentary loudness of the mix, LUFS">
          M
        </dt>
        <dd>{number(loud.momentary)}</dd>
        <dt className="text-left text-faint" title="Short-term loudness of the mix, LUFS">
          S
        </dt>
        <dd>{number(loud.shortTerm)}</dd>
      </dl>
    </div>
  );
}
