import { CORE } from "@/preview/constants";
import { Link2 } from "lucide-react";
import { type ReactNode, useRef, useState } from "react";
import type { Level, Stem, Track } from "@/api/schema";
import { HoldsFader } from "@/parts/HoldsFader";
import { type Reading, useMoment } from "@/player";
import { typeFader, useFader, useRecorder } from "@/ride";
import { decibelsOf, formatDb } from "@/lib/format";
import { mutedSpans } from "@/preview/lanes";
import { HeldPeak } from "@/parts/HeldPeak";
import { LevelField } from "@/parts/LevelField";
import { ModeChoice } from "@/parts/ModeChoice";
import { PanSlider } from "@/parts/PanSlider";
import { Toggle } from "@/parts/Toggle";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { isArmed } from "@/store/screen";
import { useSolo } from "@/store/useSolo";
import { Column, Marks } from "./Column";
import { Fader, FADER_MIN } from "@/parts/Fader";
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
  const { value, move, riding, hasLane } = useFader(track);
  return (
    <Strip
      name={track.name}
      ink={track.hue ?? track.stem}
      stem={track.stem}
      apart={apart}
      {...metered}
      head={
        <>
          <div className="-mx-[5px] flex justify-center gap-[2px]">
            <MuteToggle track={track} disabled={!canEdit} />
            <Toggle
              pressed={solo}
              label={`Solo ${track.name}`}
              hint="Shift-click: this one alone"
              onClick={(event) => toggleSolo(event.shiftKey)}
            >
              S
            </Toggle>
            <LinkToggle track={track} />
          </div>
          <div className="mt-[2px] grid justify-items-center leading-none">
            <PanSlider track={track} disabled={!canEdit} className="w-full" />
          </div>
        </>
      }
      fader={
        <Fader
          of={track.name}
          ink={track.hue ?? track.stem}
          value={value}
          disabled={!canEdit}
          writing={riding}
          onMove={move}
        />
      }
      level={
        hasLane || riding ? (
          <div
            className={`figure px-1 text-right text-aside leading-[24px] ${riding ? "font-semibold text-copper-text" : "text-faint"}`}
            title={riding ? "Being written" : "As its level lane has it at this moment"}
          >
            {riding ? "● " : ""}
            {value <= FADER_MIN ? "silence" : formatDb(value)}
          </div>
        ) : (
          <LevelField
            label={`Level of ${track.name} in dB`}
            level={value <= FADER_MIN ? "silence" : value}
            most={CORE.highest.fader}
            disabled={!canEdit}
            onCommit={(fader) => typeFader(store, track.id, fader)}
          />
        )
      }
      holder={<HoldsFader track={track.id} />}
      mode={<ModeChoice track={track} disabled={!canEdit} className="w-full" />}
    />
  );
}

/** Mutes; while it is ridden, that is written too. */
function MuteToggle({ track, disabled }: { track: Track; disabled: boolean }) {
  const store = useMixStore();
  const recorder = useRecorder();
  const [muting, setMuting] = useState<boolean | null>(null);
  const riding = useMix((s) => s.playing && isArmed(s.modes, track.id));
  if (!riding && muting !== null) setMuting(null);
  const spans = mutedSpans(track);
  const moment = useMoment(spans.length > 0);
  const byLane = spans.some(({ from, to }) => moment >= from && moment < to);
  const pressed = (riding ? muting : null) ?? (track.muted || byLane);
  return (
    <Toggle
      pressed={pressed}
      label={riding ? `Ride the mute of ${track.name}` : `Mute ${track.name}`}
      disabled={disabled}
      onClick={(event) => {
        if (!recorder.isRiding(track.id)) {
          void store.getState().edit({ edit: "set-muted", track: track.id, muted: !track.muted });
          return;
        }
        recorder.note(track.id, "mute", pressed ? 0 : 1, true, event.timeStamp);
        setMuting(!pressed);
      }}
    >
      M
    </Toggle>
  );
}

function LinkToggle({ track }: { track: Track }) {
  const store = useMixStore();
  const linked = useMix((s) => s.linked.includes(track.id));
  return (
    <button
      type="button"
      aria-pressed={linked}
      aria-label={`Link the fader of ${track.name}`}
      title="Linked faders move by the same dB. Alt moves one alone"
      className="grid size-6 cursor-pointer place-content-center rounded border border-line bg-sheet aria-pressed:border-copper aria-pressed:bg-glow aria-pressed:text-copper-text"
      onClick={() => {
        const all = store.getState().linked;
        store.getState().set({ linked: linked ? all.filter((id) => id !== track.id) : [...all, track.id] });
      }}
    >
      <Link2 size={12} />
    </button>
  );
}

/** A fader after those of the tracks: of a stem, or of the programme. */
function useBus(part: Stem | "programme") {
  const store = useMixStore();
  const level = useMix((s) => s.faders[part]);
  const [dragged, setDragged] = useState<number | null>(null);
  const commit = (fader: number | string) =>
    store
      .getState()
      .edit(
        part === "programme"
          ? { edit: "set-programme-fader", fader }
          : { edit: "set-stem-fader", stem: part, fader },
      );
  const before = useRef<Level | null>(null);
  const show = (fader: Level) => store.setState({ faders: { ...store.getState().faders, [part]: fader } });
  const move = (value: number, held: boolean) => {
    setDragged(value);
    // Heard at once; kept when it is let go, and as it was where it is refused.
    before.current ??= store.getState().faders[part];
    if (held) {
      show(value <= FADER_MIN ? "silence" : value);
      return;
    }
    const old = before.current;
    before.current = null;
    void commit(value <= FADER_MIN ? "silence" : value).then((done) => {
      if (!done) show(old);
      // Where the hand has moved on meanwhile, it still holds.
      setDragged((now) => (now === value ? null : now));
    });
  };
  return { value: dragged ?? Math.max(FADER_MIN, decibelsOf(level)), level, commit, move };
}

function BusStrip({
  part,
  name,
  ink,
  ...metered
}: { part: Stem | "programme"; name: string; ink: string } & Metered) {
  const canEdit = useCanEdit();
  const { value, level, commit, move } = useBus(part);
  const called = part === "programme" ? "the programme" : `stem ${part}`;
  return (
    <Strip
      name={name}
      ink={ink}
      {...(part === "programme" ? {} : { stem: part })}
      bus
      {...metered}
      fader={<Fader of={called} ink={ink} value={value} disabled={!canEdit} onMove={move} />}
      level={
        <LevelField
          label={`Level of ${called} in dB`}
          level={level}
          most={CORE.highest.fader}
          disabled={!canEdit}
          onCommit={commit}
        />
      }
    />
  );
}

export function StemStrip({ stem, name, ...metered }: { stem: Stem; name: string } & Metered) {
  return <BusStrip part={stem} name={name} ink={stem} {...metered} />;
}

/** @param sticky whether it stays in sight where the others scroll */
export function ProgrammeStrip({ sticky, ...metered }: { sticky: boolean } & Metered) {
  return (
    <div className={`flex ${sticky ? "sticky right-0 z-10 border-l border-line bg-paper" : ""}`}>
      <BusStrip part="programme" name="Programme" ink="copper" {...metered} />
    </div>
  );
}

/** The numbers beside the meters, laid out as a strip is. */
export function ScaleStrip({ scale }: { scale: ScaleId }) {
  return (
    <div className="mx-1 flex flex-col gap-1.5 border-x border-line px-1" aria-hidden>
      <div className="h-[2px] shrink-0" />
      <div className="text-aside">&nbsp;</div>
      <div className="h-[62px] shrink-0" />
      <div className="flex min-h-0 flex-1">
        <Marks scale={SCALES[scale]} />
      </div>
      <div className="h-[24px] shrink-0" />
      <div className="h-[24px] shrink-0" />
      <div className="figure text-note leading-[1.35] whitespace-pre">{" \n \n "}</div>
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
  mode?: ReactNode;
  /** Who else has a hand on the fader. */
  holder?: ReactNode;
  /** Whether it comes after the tracks. */
  bus?: boolean;
}

/** One strip: name, controls, a tall meter with the fader beside it, and what it reads in numbers. */
function Strip({
  name,
  ink,
  stem,
  apart = false,
  head,
  fader,
  level,
  mode,
  holder,
  bus = false,
  ...metered
}: Props) {
  const zones = useMix((s) => s.aim.zones);
  const { reading, loud, scale } = metered;
  const number = (value: number | null) => (value === null ? "—" : formatDb(value));
  return (
    <div
      className={`flex w-[80px] max-w-[160px] min-w-[74px] flex-1 flex-col gap-1.5 px-1.5 ${apart ? "ml-2" : ""}`}
      role="group"
      aria-label={bus && stem !== undefined ? `${name} stem` : name}
    >
      <div className="h-[2px] shrink-0 rounded" style={{ background: `var(--${ink})` }} />
      <div className="truncate text-center text-aside font-semibold" title={name}>
        {bus && stem !== undefined ? `all ${name.toLowerCase()}` : name}
      </div>
      <div className="h-[62px] shrink-0">{head}</div>
      <div className="relative flex min-h-0 flex-1 gap-1.5 pl-[5px]">
        {holder}
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
      <div className="h-[24px] shrink-0">{mode}</div>
      <dl className="figure grid shrink-0 grid-cols-[auto_1fr] gap-x-1 text-right text-note leading-[1.35]">
        <dt className="text-left text-faint" title="Highest peak, dBFS">
          peak
        </dt>
        <dd>
          <HeldPeak of={name} peak={Math.max(...reading.peak)} />
        </dd>
        <dt className="text-left text-faint" title="Loudness of the mix now (momentary, 400 ms), LUFS">
          now
        </dt>
        <dd>{number(loud.momentary)}</dd>
        <dt className="text-left text-faint" title="Loudness of the mix over 3 s (short-term), LUFS">
          3 s
        </dt>
        <dd>{number(loud.shortTerm)}</dd>
      </dl>
    </div>
  );
}
