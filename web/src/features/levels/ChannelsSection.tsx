import type { ChannelMode, Clip, Side } from "@/api/schema";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { formatDb } from "@/lib/format";
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
  const hasLevels = clip.channels?.left !== undefined;
  const open = useMix((s) => hasLevels && !s.closed.includes(clip.id));
  const store = useMixStore();
  if (!stereo) return null;
  /** Opening and closing are views. Only a clip that never had levels of its channels gets them, which is an edit. */
  const show = () => {
    const { closed, clips, set, side } = store.getState();
    if (open) {
      set({ closed: [...new Set([...closed, ...selected])], side: null, chosen: [] });
      return;
    }
    set({ closed: closed.filter((id) => !selected.includes(id)), side });
    const fresh = selected.filter((id) => clips[id] && clips[id].channels?.left === undefined);
    if (fresh.length) void edit({ edit: "open-channels", clips: fresh, open: true });
  };
  return (
    <div className="mt-3 grid gap-1">
      <div className="grid grid-cols-[1fr_126px_auto] items-center gap-1.5">
        <span className="text-faint">Channels</span>
        <select
          className="field px-0.5 py-0.5 text-aside"
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
          title={
            open
              ? "Shows one wire again; the levels of the channels stay and are heard"
              : "A level and a wire for each channel"
          }
          onClick={show}
        >
          {open ? "Close" : "Open"}
        </button>
      </div>
      {open && (["left", "right"] as const).map((side) => <ChannelRow key={side} clip={clip} side={side} />)}
      {hasLevels && <ChannelReset clip={clip} open={open} />}
    </div>
  );
}

/** What the channels have of their own, and the one way to take it away. */
function ChannelReset({ clip, open }: { clip: Clip; open: boolean }) {
  const edit = useMixStore().getState().edit;
  const canEdit = useCanEdit();
  const own = (["left", "right"] as const).map((side) => {
    const { gain = 0, curve = [], muted = false } = clip.channels?.[side] ?? {};
    const count = curve.length === 1 ? "one keyframe" : `${curve.length} keyframes`;
    return `${side} ${muted ? "muted" : `${formatDb(gain)} dB`}${curve.length ? `, ${count}` : ""}`;
  });
  return (
    <div className="flex items-center gap-1.5 text-note text-faint">
      <span className="flex-1">{open ? "" : `Heard: ${own.join("; ")}`}</span>
      <button
        type="button"
        className="button px-2 py-0.5 text-aside"
        disabled={!canEdit}
        title={`Takes away what the channels have of their own: ${own.join("; ")}`}
        onClick={() => void edit({ edit: "open-channels", clips: [clip.id], open: false })}
      >
        Reset channels
      </button>
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
        className="button px-1 py-0.5 text-aside"
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
