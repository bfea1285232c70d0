import type { Clip } from "@/api/types";
import { usePlayer } from "@/features/player";
import { storedLevelAt } from "@/features/timeline";
import { formatDb } from "@/lib/format";
import { formatTimecode } from "@/lib/timecode";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { KeyframeTable } from "./KeyframeTable";
import { LevelField } from "./LevelField";
import { TimeField } from "./TimeField";

/** The selected clip: gain, ends, level under the playhead, keyframes. */
export function ClipSection({ clip }: { clip: Clip }) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const edit = store.getState().edit;
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  const playhead = useMix((s) => s.playhead);
  const playing = useMix((s) => s.playing);
  const player = usePlayer();
  const over = playhead >= clip.at && playhead < clip.at + clip.length;
  const here = useMix((s) => (over ? storedLevelAt(s, clip, s.playhead) : null));
  const addHere = () => {
    const at = player.position;
    if (at >= clip.at && at <= clip.at + clip.length) void edit({ edit: "add-keyframe", clip: clip.id, at });
  };
  return (
    <section aria-label={`Clip ${clip.name}`}>
      <h2 className="mb-2 truncate text-[14px] font-semibold" title={clip.name}>
        {clip.name}
      </h2>
      <dl className="grid grid-cols-[1fr_112px] items-center gap-x-2 gap-y-1.5">
        <dt className="text-faint">Clip gain, dB or %</dt>
        <dd>
          <LevelField
            label="Clip gain"
            level={clip.gain}
            disabled={!canEdit}
            onCommit={(gain) => edit({ edit: "set-clip-gain", clips: [clip.id], gain })}
          />
        </dd>
        <dt className="text-faint">Starts</dt>
        <dd>
          <TimeField
            label="Clip starts"
            sample={clip.at}
            disabled={!canEdit}
            onCommit={(at) => edit({ edit: "move-clip", clip: clip.id, track: clip.track, at })}
          />
        </dd>
        <dt className="text-faint">Ends</dt>
        <dd>
          <TimeField
            label="Clip ends"
            sample={clip.at + clip.length}
            disabled={!canEdit}
            onCommit={(to) => edit({ edit: "trim-clip", clip: clip.id, from: clip.at, to })}
          />
        </dd>
        <dt className="text-faint">Level at playhead</dt>
        <dd className="figure text-right text-[12px]">
          {here === null ? "not over it" : `${formatDb(here)} dB`}
        </dd>
      </dl>
      <div className="mt-4 mb-1 flex items-center justify-between">
        <h3 className="caps">Keyframes · {clip.curve.length}</h3>
        {canEdit && (
          <button
            type="button"
            className="button px-2 py-0.5"
            aria-disabled={!over && !playing}
            title={
              over || playing
                ? "Add a keyframe at the playhead (K)"
                : "Move the playhead over this clip first"
            }
            onClick={addHere}
          >
            {playing ? "Add at playhead" : `Add at ${formatTimecode(playhead, rate, frameRate).slice(3)}`}
          </button>
        )}
      </div>
      {clip.curve.length === 0 ? (
        <p className="text-faint">
          None: the level stays. Select a range and dip it, or double-click the wire.
        </p>
      ) : (
        <KeyframeTable clip={clip} />
      )}
      {canEdit && (
        <button
          type="button"
          className="button mt-4 text-trouble"
          onClick={() => void edit({ edit: "remove-clips", clips: [clip.id] })}
        >
          Remove clip
        </button>
      )}
    </section>
  );
}
