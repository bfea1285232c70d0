import type { ChannelMode, Clip, Side } from "@/api/types";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { LevelField } from "@/parts/LevelField";

const MODES: { mode: ChannelMode; name: string }[] = [
  { mode: "stereo", name: "both, as recorded" },
  { mode: "mono", name: "mono sum" },
  { mode: "left", name: "left only" },
  { mode: "right", name: "right only" },
  { mode: "swapped", name: "swapped" },
];

/** What a stereo clip takes of its two channels; opened, each has a level of its own. */
export function ChannelsSection({ clip }: { clip: Clip }) {
  const edit = useMixStore().getState().edit;
  const canEdit = useCanEdit();
  const selected = useMix((s) => s.selected);
  const stereo = useMix((s) => s.sources[clip.source]?.channels === 2);
  const open = clip.channels?.left !== undefined;
  if (!stereo) return null;
  return (
    <div className="mt-3 grid gap-1">
      <div className="grid grid-cols-[1fr_126px_auto] items-center gap-1.5">
        <span className="text-faint">Channels</span>
        <select
          className="field px-0.5 py-0.5 text-[12px]"
          aria-label="Channels"
          disabled={!canEdit}
          value={clip.channels?.mode ?? "stereo"}
          onChange={(event) =>
            void edit({ edit: "set-channels", clips: selected, mode: event.target.value as ChannelMode })
          }
        >
          {MODES.map((m) => (
            <option key={m.mode} value={m.mode}>
              {m.name}
            </option>
          ))}
        </select>
        <button
          type="button"
          className="button px-2 py-0.5"
          aria-pressed={open}
          disabled={!canEdit}
          title={open ? "Back to one level; those of the channels go" : "A level and a wire for each channel"}
          onClick={() => void edit({ edit: "open-channels", clips: selected, open: !open })}
        >
          {open ? "Close" : "Open"}
        </button>
      </div>
      {open && (["left", "right"] as const).map((side) => <ChannelRow key={side} clip={clip} side={side} />)}
    </div>
  );
}

function ChannelRow({ clip, side }: { clip: Clip; side: Side }) {
  const edit = useMixStore().getState().edit;
  const canEdit = useCanEdit();
  const level = clip.channels?.[side];
  if (!level) return null;
  return (
    <div className="grid grid-cols-[1fr_70px_56px] items-center gap-1.5">
      <span className="pl-3 text-faint">{side}</span>
      <LevelField
        label={`Gain of the ${side} channel`}
        level={level.gain}
        disabled={!canEdit}
        onCommit={(gain) => edit({ edit: "set-channel", clip: clip.id, channel: side, gain })}
      />
      <button
        type="button"
        className="button px-1 py-0.5 text-[12px]"
        aria-pressed={level.muted}
        aria-label={`Mute the ${side} channel`}
        disabled={!canEdit}
        onClick={() => void edit({ edit: "set-channel", clip: clip.id, channel: side, muted: !level.muted })}
      >
        {level.muted ? "muted" : "mute"}
      </button>
    </div>
  );
}
