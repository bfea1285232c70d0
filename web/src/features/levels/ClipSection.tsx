import type { Clip, Side } from "@/api/schema";
import { useMoment, usePlayer } from "@/player";
import { heardLevelAt } from "@/scene/levels";
import { formatDb } from "@/lib/format";
import { shortTimecode } from "@/preview/timecode";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { curveOf, wireOf } from "@/store/wires";
import { ChannelsSection } from "./ChannelsSection";
import { ClipMenu } from "@/commands/ClipMenu";
import { ColourSection } from "./ColourSection";
import { FadesSection } from "./FadesSection";
import { KeyframeTable } from "./KeyframeTable";
import { LevelField } from "@/parts/LevelField";
import { TimeField } from "@/parts/TimeField";
import { TypedField } from "@/parts/TypedField";

/** The selected clip, or several: gain, ends, fades, channels, level under the playhead, keyframes. */
export function ClipSection({ clip }: { clip: Clip }) {
  const canEdit = useCanEdit();
  const selected = useMix((s) => s.selected);
  const several = selected.length > 1;
  const differ = useMix((s) => s.selected.some((id) => s.clips[id] && s.clips[id].gain !== clip.gain));
  const store = useMixStore();
  const edit = store.getState().edit;
  return (
    <section aria-label={several ? `${selected.length} clips` : `Clip ${clip.name}`}>
      <div className="mb-2 flex items-center gap-2">
        {several ? (
          <h2 className="flex-1 text-head font-semibold">{selected.length} clips</h2>
        ) : (
          <TypedField
            label="Clip name"
            shown={clip.name}
            disabled={!canEdit}
            className="flex-1 border-transparent bg-transparent !px-0 !text-left font-sans !text-head font-semibold"
            onCommit={(name) => edit({ edit: "rename-clip", clip: clip.id, name })}
          />
        )}
        {canEdit && <ClipMenu clip={clip} />}
      </div>
      <dl className="grid grid-cols-[1fr_112px] items-center gap-x-2 gap-y-1.5">
        <dt className="text-faint">{several ? "Set all to, dB or %" : "Clip gain, dB or %"}</dt>
        <dd>
          <LevelField
            label="Clip gain"
            level={clip.gain}
            {...(differ ? { shown: "different" } : {})}
            disabled={!canEdit}
            onCommit={(gain) => edit({ edit: "set-clip-gain", clips: selected, gain })}
          />
        </dd>
        {several && (
          <>
            <dt className="text-faint">Change all by, dB or %</dt>
            <dd>
              <TypedField
                label="Change gain by dB or per cent"
                shown="± dB, %"
                disabled={!canEdit}
                onCommit={(by) => edit({ edit: "change-clip-gain", clips: selected, by })}
              />
            </dd>
          </>
        )}
        {!several && <Ends clip={clip} />}
      </dl>
      <FadesSection clip={clip} />
      <ChannelsSection clip={clip} />
      <ColourSection clip={clip} />
      {!several && <Keyframes clip={clip} />}
    </section>
  );
}

function Ends({ clip }: { clip: Clip }) {
  const edit = useMixStore().getState().edit;
  const canEdit = useCanEdit();
  const moment = useMoment();
  const here = moment >= clip.at && moment < clip.at + clip.length ? heardLevelAt(clip, moment) : null;
  return (
    <>
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
      <dt className="text-faint" title="Gain, wire and fades of the clip; its track comes after">
        Level at playhead
      </dt>
      <dd className="figure text-right text-aside" aria-live="off">
        {here === null ? "not over it" : `${formatDb(here)} dB`}
      </dd>
    </>
  );
}

function Keyframes({ clip }: { clip: Clip }) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const player = usePlayer();
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  const playhead = useMix((s) => s.playhead);
  const playing = useMix((s) => s.playing);
  const opened = useMix((s) => clip.channels?.left !== undefined && !s.closed.includes(clip.id));
  const side = useMix((s) => (s.side?.clip === clip.id ? s.side.side : "both"));
  const channel = opened && side !== "both" ? side : undefined;
  const over = playhead >= clip.at && playhead < clip.at + clip.length;
  const count = curveOf(clip, channel).length;
  const addName = opened
    ? "Add"
    : playing
      ? "Add at playhead"
      : `Add at ${shortTimecode(playhead, rate, frameRate)}`;
  const addHere = () => {
    const at = player.position;
    const wire = { clip: clip.id, ...(channel ? { channel } : {}) };
    if (at >= clip.at && at <= clip.at + clip.length)
      void store.getState().edit({ edit: "add-keyframe", ...wire, at });
  };
  return (
    <>
      <div className="mt-4 mb-1 flex items-center justify-between gap-1">
        <h3 className="caps grow whitespace-nowrap">Keyframes · {count}</h3>
        {opened && (
          <select
            className="field !w-auto px-0.5 py-0.5 text-aside"
            aria-label="Whose keyframes"
            value={side}
            onChange={(event) => {
              const next = event.target.value as Side | "both";
              store
                .getState()
                .set({ chosen: [], side: next === "both" ? null : { clip: clip.id, side: next } });
            }}
          >
            <option value="both">of both</option>
            <option value="left">of left</option>
            <option value="right">of right</option>
          </select>
        )}
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
            {addName}
          </button>
        )}
      </div>
      {count === 0 ? (
        <p className="text-faint">
          None: the level stays. Select a range and dip it, or double-click the wire.
        </p>
      ) : (
        <KeyframeTable of={wireOf(clip, channel)} />
      )}
    </>
  );
}
