import { CORE } from "@/preview/constants";
import { CircleDot } from "lucide-react";
import { useEffect, useState } from "react";
import type { Pass, Track } from "@/api/schema";
import { useRecorder } from "@/ride";
import { Astray } from "@/parts/Astray";
import { notANumber } from "@/preview/check";
import { numberIn } from "@/preview/parse";
import { TypedField } from "@/parts/TypedField";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { type AfterPass, isAnyArmed, isArmed, whyUnheard } from "@/store/screen";

/** Begins a ride, and says when and where it may write. */
export function RideBar() {
  const store = useMixStore();
  const recorder = useRecorder();
  const canEdit = useCanEdit();
  const armed = useMix((s) => s.tracks.filter((t) => isArmed(s.modes, t.id)).length);
  const playing = useMix((s) => s.playing);
  const range = useMix((s) => s.range);
  const punch = useMix((s) => s.punch);
  const preRoll = useMix((s) => s.preRoll);
  const countIn = useMix((s) => s.countIn);
  if (!canEdit) return null;
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
      <button
        type="button"
        className="button px-2 py-1 aria-pressed:border-copper aria-pressed:text-copper-text"
        aria-pressed={playing && armed > 0}
        aria-disabled={armed === 0}
        title={
          armed === 0
            ? "Choose touch, latch or write on a track first"
            : `Plays from ${preRoll} s before the playhead; what is ridden counts from the playhead on`
        }
        onClick={() => {
          if (countIn !== null && !playing) store.getState().set({ countIn: null });
          else if (armed > 0 && !playing) void recorder.ride(preRoll);
        }}
      >
        <CircleDot size={14} aria-hidden /> Ride{armed ? ` ${armed}` : ""}
      </button>
      {countIn === null ? (
        <label className="flex items-center gap-1.5 text-aside text-faint">
          after
          <TypedField
            className="!w-12"
            label="Time before the ride counts, s"
            shown={preRoll.toFixed(1)}
            check={(text) => notANumber(text, 0, 10, "s")}
            onCommit={async (text) => {
              store.getState().set({ preRoll: numberIn(text) ?? preRoll });
              return true;
            }}
          />
          s
        </label>
      ) : (
        <CountIn until={countIn} />
      )}
      <label
        className="flex items-center gap-1.5 text-aside text-faint"
        title={range ? undefined : "Select a range first"}
      >
        <input
          type="checkbox"
          className="size-6"
          disabled={!range}
          checked={punch && range !== null}
          onChange={(event) => store.getState().set({ punch: event.target.checked })}
        />
        only in the range
      </label>
    </div>
  );
}

const AFTER: { value: AfterPass; name: string }[] = [
  { value: "touch", name: "write turns to touch" },
  { value: "same", name: "modes stay" },
  { value: "read", name: "all go to read" },
];

/** How long a touched fader takes back to its lane, and what modes become when a pass ends; while any track is armed. */
export function RideSettings() {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const armed = useMix(isAnyArmed);
  const glide = useMix((s) => s.glide);
  const afterPass = useMix((s) => s.afterPass);
  if (!armed || !canEdit) return null;
  return (
    <>
      <label className="flex items-center gap-1.5 text-aside text-faint">
        touch glides back in
        <TypedField
          className="!w-12"
          label="Time in which touch glides back, s"
          shown={glide.toFixed(2)}
          check={(text) => notANumber(text, 0, 5, "s")}
          onCommit={async (text) => {
            store.getState().set({ glide: numberIn(text) ?? glide });
            return true;
          }}
        />
        s
      </label>
      <label className="flex items-center gap-1.5 text-aside text-faint">
        afterwards
        <select
          className="field !w-auto px-1 py-0.5 text-aside"
          aria-label="What modes become when a pass ends"
          value={afterPass}
          onChange={(event) => store.getState().set({ afterPass: event.target.value as AfterPass })}
        >
          {AFTER.map(({ value, name }) => (
            <option key={value} value={value}>
              {name}
            </option>
          ))}
        </select>
      </label>
    </>
  );
}

/** Why tracks would be ridden without being heard, or seen; null where nothing is in the way. */
function useUnheard(): string | null {
  const unheard = useMix((s) => {
    const reasons = s.tracks.filter((t) => isArmed(s.modes, t.id)).map((t) => whyUnheard(s, t));
    return [...new Set(reasons.filter((reason) => reason !== null))].join("; ");
  });
  const hidden = useMix((s) =>
    s.tracks
      .filter((t) => isArmed(s.modes, t.id) && s.hiddenWires.includes(t.id))
      .map((t) => `“${t.name}”`)
      .join(", "),
  );
  if (!unheard && !hidden) return null;
  const said = [
    unheard ? `You would ride unheard: ${unheard}.` : "",
    hidden ? `Wires of ${hidden} are hidden: what is written is not seen in Balance.` : "",
  ];
  return said.filter(Boolean).join(" ");
}

/** Says which tracks would be ridden unheard, or else which are outside their zones. */
export function RideWarnings() {
  const why = useUnheard();
  if (!why) return <Astray most={2} />;
  return (
    <p role="status" className="min-w-0 truncate text-aside font-semibold text-trouble" title={why}>
      {why}
    </p>
  );
}

/** Seconds until what is ridden counts. */
function CountIn({ until }: { until: number }) {
  const [left, setLeft] = useState(() => until - performance.now());
  useEffect(() => {
    const timer = setInterval(() => setLeft(until - performance.now()), 50);
    return () => clearInterval(timer);
  }, [until]);
  return (
    <strong className="figure text-head text-copper-text" role="timer" aria-label="Until the ride counts">
      {Math.max(0, left / 1000).toFixed(1)} s
    </strong>
  );
}

/** Right after a ride: how closely the lane follows what was ridden. */
export function Thinning() {
  const store = useMixStore();
  const ridden = useMix((s) => (s.ridden?.revision === s.revision ? s.ridden : null));
  const tracks = useMix((s) => s.tracks);
  const rate = useMix((s) => s.rate);
  // How close it comes is told by the server, at the end of what the edit is called.
  const label = useMix((s) => s.label);
  if (!ridden) return null;
  const { tolerance = CORE.ride.usual.tolerance, spacing = CORE.ride.usual.spacing } = ridden.edit;
  const ids = ridden.edit.passes.map((pass) => pass.track);
  const count = tracks
    .filter((t) => ids.includes(t.id))
    .reduce((sum, t) => sum + (t.lanes?.level?.length ?? 0) + (t.lanes?.pan?.length ?? 0), 0);
  const near = tracks
    .filter((t) => ids.includes(t.id))
    .reduce((sum, t) => sum + nearOnes(t, ridden.edit.passes, spacing * rate), 0);
  const set = (part: { tolerance?: number; spacing?: number }) => async (text: string) => {
    const value = numberIn(text);
    if (value === null) return false;
    const edit = {
      ...ridden.edit,
      // What was set last holds; the other gives way where both cannot.
      ...(part.tolerance === undefined
        ? { spacing: value / 1000, holds: "spacing" as const }
        : { tolerance: value, holds: "tolerance" as const }),
    };
    const done = await store.getState().edit(edit, { instead: true });
    if (done) store.getState().set({ ridden: { revision: store.getState().revision, edit } });
    return done;
  };
  return (
    <span
      className="flex items-center gap-1.5 text-aside text-faint"
      role="group"
      aria-label="Thinning of the last ride"
    >
      {count} keyframes, within
      <TypedField
        className="!w-12"
        label="Tolerance of thinning, dB"
        shown={String(tolerance)}
        check={(text) => notANumber(text, 0, 6, "dB")}
        onCommit={set({ tolerance })}
      />
      dB, apart
      <TypedField
        className="!w-12"
        label="Spacing of keyframes, ms"
        shown={String(Math.round(spacing * 1000))}
        check={(text) => notANumber(text, 0, 500, "ms")}
        onCommit={set({ spacing })}
      />
      ms
      {ridden.edit.holds === "spacing" && (
        <span title="The spacing was set last, so it holds, and the tolerance gives way as far as that takes">
          · that comes {label.slice(label.lastIndexOf("within"))}
        </span>
      )}
      {near > 0 && (
        <span title="Where the level moves faster than keyframes at this distance can follow within this tolerance, some stand nearer">
          · {near} nearer, where the level {ridden.edit.holds === "spacing" ? "steps" : "moves fast"}
        </span>
      )}
    </span>
  );
}

/** How many keyframes of a ride stand nearer to the one before than was asked for; what joins it to the lane does not count. */
function nearOnes(track: Track, passes: Pass[], spacing: number): number {
  const pass = passes.find((p) => p.track === track.id);
  const own = (track.lanes?.level ?? []).filter((k) => pass && k.at >= pass.start && k.at <= pass.stop);
  return own.filter((k, i) => i > 0 && k.at - (own[i - 1]?.at ?? 0) < spacing).length;
}
