import { ChevronDown } from "lucide-react";
import { Popover, RadioGroup } from "radix-ui";
import type { ReactNode } from "react";
import type { LanePart, Track } from "@/api/schema";
import { ColourFields } from "@/parts/ColourFields";
import { PanSlider } from "@/parts/PanSlider";
import { RIDES, useRideMode } from "@/parts/rideModes";
import { useCanEdit, useMix, useMixStore } from "@/store/context";

const SHOWN: { part: LanePart | "clips"; name: string; what: string }[] = [
  { part: "clips", name: "levels of its clips", what: "wires that travel with the sound" },
  { part: "level", name: "level of the track", what: "stays on the timeline" },
  { part: "pan", name: "pan", what: "left is up, right is down" },
  { part: "mute", name: "mutes", what: "where it is silent" },
  { part: "ducking", name: "ducking", what: "where it gives way to speech" },
  { part: "band", name: "band of speech", what: "where only that gives way" },
];

/** All of a track that is set once and then left alone: what its lane shows, what a ride does, its colour, its place between left and right. */
export function LaneChoice({ track, roomy }: { track: Track; roomy: boolean }) {
  const canEdit = useCanEdit();
  const store = useMixStore();
  const shown = useMix((s) => s.activeLane[track.id]) ?? "clips";
  const [mode, setMode] = useRideMode(track);
  const show = (next: string) => {
    const { activeLane, set } = store.getState();
    const others = Object.entries(activeLane).filter(([id]) => id !== track.id);
    const own = next === "clips" ? [] : [[track.id, next as LanePart] as const];
    set({ activeLane: Object.fromEntries([...others, ...own]), selected: [], chosen: [] });
  };
  const usual = mode === "read";
  const names = `${SHOWN.find((s) => s.part === shown)?.name ?? ""}${usual ? "" : ` · ${mode}`}${track.colour ? " · coloured" : ""}`;
  return (
    <Popover.Root>
      <Popover.Trigger
        className={`flex min-w-0 cursor-pointer items-center gap-0.5 rounded px-1 text-left text-note hover:bg-sunk ${usual && shown === "clips" ? "text-faint" : "text-copper-text"} ${roomy ? "-ml-1 h-6" : "h-6"}`}
        aria-label={`Lane of ${track.name}: shows ${names}`}
        title={`Shows ${names}. What the lane shows, what a ride does, colour, and pan`}
      >
        {roomy && <span className="truncate">{names}</span>}
        <ChevronDown size={12} aria-hidden className="shrink-0" />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="menu z-50 max-h-[var(--radix-popover-content-available-height)] w-72 overflow-y-auto rounded-lg border border-line bg-sheet p-3 text-aside shadow-xl"
          side="right"
          align="start"
          sideOffset={6}
          collisionPadding={8}
          aria-label={`Lane of ${track.name}`}
        >
          <Choices
            title="The lane shows"
            label={`What the lane of ${track.name} shows`}
            value={shown}
            onChoose={show}
          >
            {SHOWN.map(({ part, name, what }) => (
              <Choice key={part} value={part} name={name} what={what} />
            ))}
          </Choices>
          <Choices
            title="A ride"
            label={`What a ride of ${track.name} does`}
            value={mode}
            disabled={!canEdit}
            onChoose={(next) => setMode(next as typeof mode)}
          >
            {RIDES.map(({ mode: value, hint }) => (
              <Choice key={value} value={value} name={value} what={hint} />
            ))}
          </Choices>
          <div className="caps mb-1">Pan</div>
          <div className="mb-3 flex items-center gap-3">
            <PanSlider track={track} disabled={!canEdit} className="flex-1" />
          </div>
          <div className="caps mb-1">Colour</div>
          <div>
            <ColourFields
              of={track.name}
              colour={track.colour}
              disabled={!canEdit}
              onChange={(colour) =>
                store.getState().edit({ edit: "set-track-colour", track: track.id, colour })
              }
            />
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

interface ChoicesProps {
  title: string;
  label: string;
  value: string;
  disabled?: boolean;
  onChoose: (value: string) => void;
  children: ReactNode;
}

function Choices({ title, label, value, disabled = false, onChoose, children }: ChoicesProps) {
  return (
    <>
      <div className="caps mb-1">{title}</div>
      <RadioGroup.Root
        className="mb-3 grid"
        aria-label={label}
        value={value}
        disabled={disabled}
        onValueChange={onChoose}
      >
        {children}
      </RadioGroup.Root>
    </>
  );
}

function Choice({ value, name, what }: { value: string; name: string; what: string }) {
  return (
    <RadioGroup.Item
      value={value}
      aria-label={name}
      className="group flex cursor-pointer items-baseline gap-2 rounded px-1.5 py-1 text-left hover:bg-sunk data-[state=checked]:bg-sunk"
    >
      <span
        aria-hidden
        className="size-[9px] shrink-0 rounded-full border border-faint group-data-[state=checked]:border-copper group-data-[state=checked]:bg-copper"
      />
      <span>
        <span className="font-semibold">{name}</span> <span className="text-faint">{what}</span>
      </span>
    </RadioGroup.Item>
  );
}
