import { Plus } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { memo, useState } from "react";
import type { LanePart, Stem, Track } from "@/api/schema";
import { useLevels } from "@/player";
import { HoldsFader } from "@/parts/HoldsFader";
import { FADER_BOTTOM, typeFader, useFader } from "@/ride";
import { CAPTION, type Lane, type Layout } from "@/scene/geometry";
import { inkOf } from "@/scene/scene";
import { CORE } from "@/preview/constants";
import { formatDb } from "@/lib/format";
import { newId } from "@/lib/ids";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { LevelSlider } from "@/parts/LevelSlider";
import { LevelField } from "@/parts/LevelField";
import { ClearanceHead } from "./ClearanceHead";
import { Divider } from "@/parts/Divider";
import { PointMenu } from "@/parts/Menu";
import { MeterBar } from "@/parts/MeterBar";
import { STEMS } from "@/parts/stems";
import { ModeChoice } from "@/parts/ModeChoice";
import { PanSlider } from "@/parts/PanSlider";
import { Toggle } from "@/parts/Toggle";
import { useSolo } from "@/store/useSolo";
import { Flags } from "./Flags";
import { TrackName } from "./TrackName";
import { TrackItems, TrackMenu } from "./TrackMenu";

/** One head per track, beside its lane. Not drawn anew while the time scrolls by. */
export const Heads = memo(function Heads({ layout, width }: { layout: Layout; width: number }) {
  const levels = useLevels();
  const { clearance, horizon } = layout;
  return (
    <div className="relative shrink-0 border-r border-line bg-paper" style={{ width, height: layout.height }}>
      <Caption top={0} left="Speech" right="rises ↑" />
      {layout.lanes.map((lane) => (
        <Head key={lane.track.id} lane={lane} peaks={levels?.tracks[lane.track.id]?.peak} />
      ))}
      <ClearanceHead top={clearance.top} height={clearance.height} />
      <div
        className="absolute inset-x-0 flex items-center border-y border-t-ink border-b-line bg-sunk pr-2 pl-3"
        style={{ top: horizon.top, height: horizon.height }}
      >
        <div className="min-w-0 flex-1 leading-tight">
          <div className="font-semibold">Horizon</div>
          <div className="text-[11px] text-faint">time</div>
        </div>
        <AddTrack />
      </div>
      <Caption top={horizon.top + horizon.height} left="Beneath" right="hangs ↓" />
    </div>
  );
});

function Caption({ top, left, right }: { top: number; left: string; right: string }) {
  return (
    <div
      className="caps absolute inset-x-0 flex items-center justify-between bg-sunk/60 px-3"
      style={{ top, height: CAPTION }}
    >
      <span>{left}</span>
      <span>{right}</span>
    </div>
  );
}

function AddTrack() {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const tracks = useMix((s) => s.tracks);
  if (!canEdit) return null;
  const add = (stem: Stem, name: string) => {
    const same = tracks.filter((t) => t.name.startsWith(name)).length;
    void store
      .getState()
      .edit({ edit: "add-track", track: newId("track"), name: same ? `${name} ${same + 1}` : name, stem });
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="button px-2 py-1">
        <Plus size={14} aria-hidden /> Track
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          collisionPadding={8}
          className="menu z-50 min-w-36 overflow-y-auto rounded-lg border border-line bg-sheet p-1 shadow-xl"
          sideOffset={4}
        >
          {STEMS.map(({ stem, name }) => (
            <DropdownMenu.Item
              key={stem}
              className="flex cursor-pointer items-center gap-2 rounded px-2 py-1.5 outline-none data-[highlighted]:bg-sunk"
              onSelect={() => add(stem, name)}
            >
              <span aria-hidden className="h-3 w-1 rounded" style={{ background: `var(--${stem})` }} /> {name}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function Head({ lane, peaks }: { lane: Lane; peaks: [number, number] | undefined }) {
  const [menu, setMenu] = useState<{ x: number; y: number } | null>(null);
  return (
    <div
      className="absolute inset-x-0 overflow-hidden border-b border-line pr-2 pl-3"
      style={{ top: lane.top, height: lane.height }}
      role="group"
      aria-label={`Track ${lane.track.name}`}
      onContextMenu={(event) => {
        event.preventDefault();
        setMenu({ x: event.clientX, y: event.clientY });
      }}
    >
      <span
        aria-hidden
        className="absolute inset-y-0 left-0 w-[4px]"
        style={{ background: `var(--${inkOf(lane.track)})` }}
      />
      <HoldsFader track={lane.track.id} />
      <HeadControls
        track={lane.track}
        roomy={lane.height >= 84}
        menu={menu}
        onMenuClosed={() => setMenu(null)}
      />
      <div className="absolute inset-x-3 bottom-[5px] grid gap-px" aria-hidden>
        <MeterBar db={peaks?.[0] ?? -Infinity} thin />
        <MeterBar db={peaks?.[1] ?? -Infinity} thin />
      </div>
      <HeightGrip lane={lane} />
    </div>
  );
}

/** The lower edge of a head makes its lane taller or lower. */
function HeightGrip({ lane }: { lane: Lane }) {
  const store = useMixStore();
  return (
    <Divider
      label={`Height of ${lane.track.name}`}
      className="absolute inset-x-0 bottom-0 z-10 h-[8px]"
      orientation="horizontal"
      value={lane.height}
      min={46}
      max={320}
      onChange={(height) =>
        store.getState().set({ heights: { ...store.getState().heights, [lane.track.id]: height } })
      }
    />
  );
}

/** Which wire a drag in this lane takes: that of the clips, which travels with the sound, or a lane, which stays on the timeline. */
function WireChoice({ track }: { track: Track }) {
  const store = useMixStore();
  const active = useMix((s) => s.activeLane[track.id]);
  return (
    <select
      className="field h-6 !w-auto px-0.5 py-0 text-[11px]"
      aria-label={`What is edited on ${track.name}`}
      title="Clip wires travel with the sound; lanes stay on the timeline"
      value={active ?? "clips"}
      onChange={(event) => {
        const { activeLane, set } = store.getState();
        const others = Object.entries(activeLane).filter(([id]) => id !== track.id);
        const next = event.target.value;
        const own = next === "clips" ? [] : [[track.id, next as LanePart] as const];
        set({ activeLane: Object.fromEntries([...others, ...own]), selected: [], chosen: [] });
      }}
    >
      <option value="clips">clips</option>
      <option value="level">level</option>
      <option value="pan">pan</option>
      <option value="mute">mute</option>
      <option value="ducking">ducking</option>
    </select>
  );
}

/** The small fader of a head. It moves with the level lane, and can be ridden as the tall one on the Desk. */
function HeadFader({ track }: { track: Track }) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const { value, move, riding, hasLane } = useFader(track);
  const follows = hasLane || riding;
  return (
    <div className="flex h-[26px] items-center gap-2">
      <LevelSlider
        className="flex-1"
        label={`Fader of ${track.name}`}
        ink={riding ? "copper" : inkOf(track)}
        min={FADER_BOTTOM}
        max={CORE.highest.fader}
        disabled={!canEdit}
        value={value}
        onMove={move}
      />
      {follows ? (
        <span
          className={`figure w-[54px] text-right text-[12px] ${riding ? "font-semibold text-copper-text" : "text-faint"}`}
          title={riding ? "Being written" : "Follows its level lane"}
          data-testid={`lane-level-${track.id}`}
        >
          {value <= FADER_BOTTOM ? "silence" : formatDb(value)}
        </span>
      ) : (
        <LevelField
          className="w-[54px]"
          label={`Level of ${track.name} in dB`}
          level={value <= FADER_BOTTOM ? "silence" : value}
          most={CORE.highest.fader}
          disabled={!canEdit}
          onCommit={(text) => typeFader(store, track.id, text)}
        />
      )}
    </div>
  );
}

interface ControlsProps {
  track: Track;
  roomy: boolean;
  /** Where the head's menu was asked for. */
  menu: { x: number; y: number } | null;
  onMenuClosed: () => void;
}

const HeadControls = memo(function HeadControls({ track, roomy, menu, onMenuClosed }: ControlsProps) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const [solo, toggleSolo] = useSolo(track.id);
  const [renaming, setRenaming] = useState(false);
  const edit = store.getState().edit;
  return (
    <>
      <div className="flex h-[28px] items-center gap-1 pt-0.5">
        <TrackName track={track} renaming={renaming} onRenaming={setRenaming} />
        <Flags track={track} />
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
        {canEdit && <TrackMenu track={track} onRename={() => setRenaming(true)} />}
        {canEdit && (
          <PointMenu at={menu} label={`Track ${track.name}`} onClose={onMenuClosed}>
            <TrackItems track={track} onRename={() => setRenaming(true)} />
          </PointMenu>
        )}
      </div>
      <HeadFader track={track} />
      {roomy && (
        <div className="flex h-[24px] items-center gap-1 text-[11px] text-faint">
          <PanSlider track={track} disabled={!canEdit} className="w-[52px]" bare />
          <span className="flex-1" />
          <WireChoice track={track} />
          <ModeChoice track={track} disabled={!canEdit} className="h-6 !w-auto" />
        </div>
      )}
    </>
  );
});
