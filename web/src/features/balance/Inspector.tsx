import { useState } from "react";
import type { Clip, Keyframe, RampKind } from "@/api/types";
import { usePlayer } from "@/features/player";
import { clipsInRange, storedLevelAt } from "@/features/timeline";
import { formatDb } from "@/lib/format";
import { formatTimecode } from "@/lib/timecode";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { LevelField } from "./LevelField";
import { TimeField } from "./TimeField";

interface Props {
  rampSeconds: number;
  setRampSeconds: (seconds: number) => void;
}

/** What is selected, in exact numbers: times and levels side by side. */
export function Inspector({ rampSeconds, setRampSeconds }: Props) {
  const clip = useMix((s) => (s.selected[0] === undefined ? undefined : s.clips[s.selected[0]]));
  const range = useMix((s) => s.range);
  return (
    <div className="grid gap-5 p-3">
      <RangeSection clip={clip} rampSeconds={rampSeconds} setRampSeconds={setRampSeconds} />
      {clip ? <ClipSection clip={clip} /> : !range && <Lesson />}
    </div>
  );
}

function Lesson() {
  const empty = useMix((s) => s.length === 0);
  return (
    <div className="grid gap-2 text-faint">
      <p className="font-semibold text-ink">{empty ? "Begin here" : "Nothing selected"}</p>
      {empty ? (
        <ol className="grid list-decimal gap-1 pl-5">
          <li>Bring files in under “Sources”, or drop them on this page.</li>
          <li>Add tracks on the horizon: speech above, the rest beneath.</li>
          <li>Drag each source onto its track.</li>
          <li>Drag the copper wire to set levels; 0 dB is unchanged, not silent.</li>
        </ol>
      ) : (
        <>
          <p>Click a clip to see its levels. Drag across a lane to select a range of time, then dip it.</p>
          <p>0 dB leaves a sound unchanged. It is not silence.</p>
        </>
      )}
    </div>
  );
}

function RangeSection({ clip, rampSeconds, setRampSeconds }: Props & { clip: Clip | undefined }) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const range = useMix((s) => s.range);
  const rate = useMix((s) => s.rate);
  const [amount, setAmount] = useState("-11");
  if (!range) return null;
  const clips =
    range.track === null ? (clip ? [clip.id] : []) : targetsOnTrack(store.getState(), range.track);
  const reason = !canEdit
    ? "Your role here is viewer."
    : clips.length === 0
      ? range.track === null
        ? "Select the clip to dip, too."
        : "No clip lies under this range."
      : null;
  const set = (edge: "from" | "to") => async (text: string) => {
    const sample = parseShownTime(text, store.getState());
    const next = sample === null ? null : { ...range, [edge]: sample };
    if (!next || next.to <= next.from) {
      store.getState().set({
        notice: {
          kind: "error",
          text: next
            ? "A range must end after it starts."
            : `“${text}” is not a time. Type 00:00:58:05 or 0:58.2.`,
        },
      });
      return false;
    }
    store.getState().set({ range: next, notice: null });
    return true;
  };
  return (
    <section aria-label="Range">
      <h2 className="caps mb-2">Range · {((range.to - range.from) / rate).toFixed(2)} s</h2>
      <div className="grid grid-cols-2 gap-2">
        <TimeField label="Range from" sample={range.from} onCommit={set("from")} />
        <TimeField label="Range to" sample={range.to} onCommit={set("to")} />
      </div>
      <form
        className="mt-2 grid grid-cols-[1fr_1fr_auto] items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (reason) return;
          const by = Number(amount.replace("−", "-").replace(",", "."));
          if (!Number.isFinite(by))
            store.getState().set({
              notice: {
                kind: "error",
                text: `“${amount}” is not an amount in dB. Type a number such as -11.`,
              },
            });
          else
            void store.getState().edit({
              edit: "dip-range",
              clips,
              from: range.from,
              to: range.to,
              by,
              ramp: Math.round(rampSeconds * rate),
            });
        }}
      >
        <label className="grid gap-0.5 text-[11px] text-faint">
          By, dB
          <input
            className="field figure px-1.5 py-0.5 text-right text-[12px] text-ink"
            aria-label="Dip by dB"
            value={amount}
            onChange={(e) => setAmount(e.target.value)}
            onKeyDown={(e) => e.key !== "Escape" && e.stopPropagation()}
          />
        </label>
        <label className="grid gap-0.5 text-[11px] text-faint">
          Ramps, s
          <input
            className="field figure px-1.5 py-0.5 text-right text-[12px] text-ink"
            aria-label="Ramp seconds"
            type="number"
            min={0}
            max={60}
            step={0.1}
            value={rampSeconds}
            onChange={(e) => setRampSeconds(Math.min(60, Math.max(0, Number(e.target.value) || 0)))}
            onKeyDown={(e) => e.stopPropagation()}
          />
        </label>
        <button className="button button-main" disabled={reason !== null}>
          {amount.trim().startsWith("-") || amount.trim().startsWith("−") ? "Dip" : "Lift"}
        </button>
      </form>
      <p className="mt-1 text-[11px] text-faint">
        {reason ??
          `Works on ${clips.length === 1 ? "one clip" : `${clips.length} clips`}. Or drag inside the range; D repeats.`}
      </p>
    </section>
  );
}

function targetsOnTrack(
  state: ReturnType<ReturnType<typeof useMixStore>["getState"]>,
  track: string,
): string[] {
  const any = Object.values(state.clips).find(
    (c) => c.track === track && state.range && c.at < state.range.to && c.at + c.length > state.range.from,
  );
  return any && state.range ? clipsInRange(state, state.range, any) : [];
}

/** For the selection only, which is not part of the mix; times in edits are read by the server. */
function parseShownTime(text: string, state: { rate: number; frameRate: string }): number | null {
  const timecode = /^(\d+):(\d\d):(\d\d)[:;](\d\d)$/.exec(text.trim());
  const clock = /^(?:(?:(\d+):)?(\d+):)?(\d+(?:[.,]\d*)?)$/.exec(text.trim());
  if (timecode) {
    const [h, m, s, f] = timecode.slice(1).map(Number) as [number, number, number, number];
    return Math.round((h * 3600 + m * 60 + s + f / (parseFloat(state.frameRate) || 25)) * state.rate);
  }
  return clock
    ? Math.round(
        (Number(clock[1] ?? 0) * 3600 + Number(clock[2] ?? 0) * 60 + Number(clock[3]?.replace(",", "."))) *
          state.rate,
      )
    : null;
}

function ClipSection({ clip }: { clip: Clip }) {
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

const RAMPS: { kind: RampKind; name: string }[] = [
  { kind: "line", name: "line" },
  { kind: "smooth", name: "smooth" },
  { kind: "hold", name: "hold" },
];

function KeyframeTable({ clip }: { clip: Clip }) {
  return (
    <table className="w-full">
      <thead>
        <tr className="text-left text-[11px] text-faint">
          <th className="font-normal">Time</th>
          <th className="font-normal">Level dB</th>
          <th className="font-normal">Ramp</th>
          <th>
            <span className="sr-only">Remove</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {clip.curve.map((keyframe) => (
          <KeyframeRow key={keyframe.at} clip={clip} keyframe={keyframe} />
        ))}
      </tbody>
    </table>
  );
}

function KeyframeRow({ clip, keyframe }: { clip: Clip; keyframe: Keyframe }) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const chosen = useMix((s) => s.keyframe === keyframe.at);
  const edit = store.getState().edit;
  const position = keyframe.at - clip.in + clip.at;
  const heard = keyframe.at >= clip.in && keyframe.at <= clip.in + clip.length;
  const id = { clip: clip.id, keyframe: keyframe.at };
  const ramp = typeof keyframe.ramp === "string" ? keyframe.ramp : keyframe.ramp.kind;
  return (
    <tr
      className={chosen ? "bg-glow" : ""}
      onFocus={() => chosen || store.getState().set({ keyframe: keyframe.at })}
    >
      <td className="w-[96px] py-0.5 pr-1">
        {heard ? (
          <TimeField
            label="Keyframe time"
            sample={position}
            disabled={!canEdit}
            onCommit={(at) => edit({ edit: "set-keyframe", ...id, at })}
          />
        ) : (
          <span className="text-[11px] text-faint" title="In the part of the source that is trimmed away">
            trimmed away
          </span>
        )}
      </td>
      <td className="w-[62px] pr-1">
        <LevelField
          label="Keyframe level"
          level={keyframe.level}
          disabled={!canEdit}
          onCommit={(level) => edit({ edit: "set-keyframe", ...id, level })}
        />
      </td>
      <td>
        <select
          className="field px-0.5 py-0.5 text-[12px]"
          aria-label="Ramp to the next keyframe"
          disabled={!canEdit}
          value={ramp}
          onChange={(event) =>
            void edit({ edit: "set-keyframe", ...id, ramp: event.target.value as RampKind })
          }
        >
          {RAMPS.map((r) => (
            <option key={r.kind} value={r.kind}>
              {r.name}
            </option>
          ))}
          {ramp === "gain" && <option value="gain">gain</option>}
        </select>
      </td>
      <td>
        {canEdit && (
          <button
            type="button"
            className="size-6 cursor-pointer text-faint hover:text-trouble"
            aria-label="Remove keyframe"
            onClick={() => void edit({ edit: "remove-keyframes", clip: clip.id, keyframes: [keyframe.at] })}
          >
            ×
          </button>
        )}
      </td>
    </tr>
  );
}
