import { memo, useState } from "react";
import type { Track } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { LevelField } from "@/parts/LevelField";
import { LevelSlider } from "@/parts/LevelSlider";
import { PointMenu } from "@/parts/Menu";
import { Toggle } from "@/parts/Toggle";
import { CORE } from "@/preview/constants";
import { FADER_BOTTOM, typeFader, useFader } from "@/ride";
import { inkOf } from "@/scene/scene";
import { useCanEdit, useMixStore } from "@/store/context";
import { useSolo } from "@/store/useSolo";
import { Flags } from "./Flags";
import { LaneChoice } from "./LaneChoice";
import { TrackItems, TrackMenu } from "./TrackMenu";
import { TrackName } from "./TrackName";

/** The level of a track as a number. It moves with the level lane. */
function HeadLevel({ track }: { track: Track }) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const { value, riding, hasLane } = useFader(track);
  const silent = value <= FADER_BOTTOM;
  if (hasLane || riding)
    return (
      <span
        className={`figure flex-1 pr-1 text-right text-aside ${riding ? "font-semibold text-copper-text" : "text-faint"}`}
        title={riding ? "Being written" : "Follows its level lane"}
        data-testid={`lane-level-${track.id}`}
      >
        {silent ? "silence" : formatDb(value)}
      </span>
    );
  return (
    <LevelField
      className="min-w-0 flex-1"
      label={`Level of ${track.name} in dB`}
      level={silent ? "silence" : value}
      most={CORE.highest.fader}
      disabled={!canEdit}
      onCommit={(text) => typeFader(store, track.id, text)}
    />
  );
}

/** The small fader of a head, upright beside its meter; it can be ridden as the tall one on the Desk. */
function HeadFader({ track }: { track: Track }) {
  const canEdit = useCanEdit();
  const { value, move, riding } = useFader(track);
  return (
    <LevelSlider
      className="shrink-0 self-stretch"
      label={`Fader of ${track.name}`}
      ink={riding ? "copper" : inkOf(track)}
      upright
      min={FADER_BOTTOM}
      max={CORE.highest.fader}
      disabled={!canEdit}
      value={value}
      onMove={move}
    />
  );
}

interface ControlsProps {
  track: Track;
  height: number;
  /** Where the head's menu was asked for. */
  menu: { x: number; y: number } | null;
  onMenuClosed: () => void;
}

/** Heights from which a head has a second and a third line, px. */
const TWO_LINES = 58;
const THREE_LINES = 84;

export const HeadControls = memo(function HeadControls({ track, height, menu, onMenuClosed }: ControlsProps) {
  const canEdit = useCanEdit();
  const [renaming, setRenaming] = useState(false);
  return (
    <>
      <div className="flex min-w-0 flex-1 flex-col justify-center gap-0.5">
        <div className="flex h-[26px] shrink-0 items-center gap-1">
          <TrackName track={track} renaming={renaming} onRenaming={setRenaming} />
          <Flags track={track} />
          {height < TWO_LINES && <MuteAndSolo track={track} />}
          {height < THREE_LINES && height >= TWO_LINES && <LaneChoice track={track} roomy={false} />}
          {canEdit && <TrackMenu track={track} onRename={() => setRenaming(true)} />}
          {canEdit && (
            <PointMenu at={menu} label={`Track ${track.name}`} onClose={onMenuClosed}>
              <TrackItems track={track} onRename={() => setRenaming(true)} />
            </PointMenu>
          )}
        </div>
        {height >= TWO_LINES && (
          <div className="flex h-[26px] shrink-0 items-center gap-1">
            <MuteAndSolo track={track} />
            <HeadLevel track={track} />
          </div>
        )}
        {height >= THREE_LINES && <LaneChoice track={track} roomy />}
      </div>
      <HeadFader track={track} />
    </>
  );
});

function MuteAndSolo({ track }: { track: Track }) {
  const edit = useMixStore().getState().edit;
  const canEdit = useCanEdit();
  const [solo, toggleSolo] = useSolo(track.id);
  return (
    <>
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
    </>
  );
}
