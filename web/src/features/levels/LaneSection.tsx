import { X } from "lucide-react";
import type { Edit, Lane, LanePart, Track } from "@/api/schema";
import { moveMuteEdge } from "@/timeline";
import { spansOf } from "@/preview/lanes";
import { formatPan } from "@/preview/pan";
import { parseShownTime } from "@/preview/parse";
import { TypedField } from "@/parts/TypedField";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { typedPan } from "@/store/typedPan";
import { isLevels, laneCurve, partAtHand } from "@/store/wires";
import { Late } from "@/commands/Late";
import { KeyframeTable } from "./KeyframeTable";
import { TimeField } from "@/parts/TimeField";

/** The lane of a track that is worked on: what it holds in numbers, and what can become of it. */
export function LaneSection() {
  const track = useMix((s) => {
    const part = partAtHand(s);
    return part ? s.tracks.find((t) => t.id === part.track) : undefined;
  });
  const part = useMix((s) => partAtHand(s)?.lane);
  if (!track || !part) return null;
  return (
    <section aria-label={`The ${part} lane of ${track.name}`}>
      <h2 className="text-head font-semibold">
        {track.name} · {part} lane
      </h2>
      <p className="mt-1 mb-2 text-aside text-faint">{WHAT[part]}</p>
      {isGiving(part) && <Late track={track.id} />}
      {track.lanes?.off && !isGiving(part) && (
        <p className="mb-2 text-aside text-copper-text">
          {track.name} is off: its lanes are kept, and not followed. Choose <em>read</em> in its head.
        </p>
      )}
      <LaneActions track={track} part={part} />
      {isLevels(part) ? (
        <LevelPoints track={track} lane={part} />
      ) : part === "pan" ? (
        <PanPoints track={track} />
      ) : (
        <MuteSpans track={track} />
      )}
    </section>
  );
}

const STAYS =
  "It stays on the timeline when clips are moved or replaced; the copper wire of a clip travels with its sound.";
const WHAT: Record<LanePart, string> = {
  level: `What the fader does over time. ${STAYS}`,
  ducking: "What the rules made of the speech. What you change here is held when they run again.",
  band: "How far the band of speech, about 400 Hz to 5 kHz, gives way; the rest of the sound stays. What you change here is held when the rules run again.",
  pan: `Where the track stands over time: left is up. ${STAYS}`,
  mute: "Where the track is muted. Select a range on it to mute more.",
};

/** Pan points that are listed at most; a ridden hour has thousands. */
const MOST = 200;

const isGiving = (part: LanePart) => part === "ducking" || part === "band";

/** How many points a lane holds. */
function countOf(track: Track, part: LanePart): number {
  if (part === "pan") return track.lanes?.pan?.length ?? 0;
  return part === "mute" ? (track.lanes?.mute?.length ?? 0) : laneCurve(track, part).length;
}

function LaneActions({ track, part }: { track: Track; part: LanePart }) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const tracks = useMix((s) => s.tracks);
  const range = useMix((s) => (s.range?.tracks?.includes(track.id) ? s.range : null));
  const empty = countOf(track, part) === 0;
  if (!canEdit) return null;
  const edit = (change: Edit) => void store.getState().edit(change);
  const choose = () => {
    if (!isLevels(part)) return;
    const keyframes = laneCurve(track, part).map((k) => k.at);
    store.getState().set({ chosen: [{ track: track.id, lane: part, keyframes }], selected: [] });
  };
  const within = range ? { from: range.from, to: range.to } : {};
  return (
    <div className="mb-2 flex flex-wrap gap-1.5">
      {isLevels(part) && (
        <button
          type="button"
          className="button px-2 py-0.5"
          aria-disabled={empty}
          title={
            empty ? "It has no keyframes yet" : "Then drag, type or press ↑ ↓ to lift or lower all of it"
          }
          onClick={() => !empty && choose()}
        >
          Choose all
        </button>
      )}
      <button
        type="button"
        className="button px-2 py-0.5"
        aria-disabled={empty}
        title={empty ? "There is nothing to clear" : range ? "Only in the selected range" : undefined}
        onClick={() => !empty && edit({ edit: "clear-lane", track: track.id, lane: part, ...within })}
      >
        {range ? "Clear the range" : "Clear"}
      </button>
      <select
        className="field !w-auto px-1 py-0.5 text-aside"
        aria-label="Copy this lane to"
        disabled={empty}
        title={empty ? "There is nothing to copy" : "Another track gets the same lane"}
        value=""
        onChange={(event) =>
          edit({ edit: "copy-lane", track: track.id, lane: part, to: [event.target.value] })
        }
      >
        <option value="">Copy to…</option>
        {tracks
          .filter((t) => t.id !== track.id)
          .map((t) => (
            <option key={t.id} value={t.id}>
              {t.name}
            </option>
          ))}
      </select>
    </div>
  );
}

function LevelPoints({ track, lane }: { track: Track; lane: Lane }) {
  const count = laneCurve(track, lane).length;
  return count === 0 ? (
    <p className="text-faint">No keyframes yet. Double-click the line, or select a range and dip it.</p>
  ) : (
    <>
      <h3 className="caps mb-1">Keyframes · {count}</h3>
      <KeyframeTable of={{ track: track.id, lane }} />
    </>
  );
}

function PanPoints({ track }: { track: Track }) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const points = track.lanes?.pan ?? [];
  const edit = store.getState().edit;
  if (points.length === 0)
    return (
      <p className="text-faint">No points yet. Double-click the line, or select a range and drag in it.</p>
    );
  const change = (point: number, part: { at?: string; pan?: number }) =>
    edit({ edit: "set-pan-point", track: track.id, point, ...part });
  return (
    <table className="w-full" aria-label="Pan points">
      <thead>
        <tr className="text-left text-note text-faint">
          <th className="font-normal">Time</th>
          <th className="font-normal">Pan</th>
          <th>
            <span className="sr-only">Remove</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {points.slice(0, MOST).map(({ at, pan }) => (
          <tr key={at}>
            <td className="w-[102px] py-0.5 pr-1">
              <TimeField
                label="Time of the pan point"
                sample={at}
                disabled={!canEdit}
                onCommit={(text) => change(at, { at: text })}
              />
            </td>
            <td className="pr-1">
              <TypedField
                label="Pan"
                shown={formatPan(pan)}
                disabled={!canEdit}
                onCommit={async (text) => {
                  const next = typedPan(store.getState(), text);
                  return next !== null && change(at, { pan: next });
                }}
              />
            </td>
            <td>
              <RemoveButton
                of="this pan point"
                onRemove={() => void edit({ edit: "remove-pan-points", track: track.id, points: [at] })}
              />
            </td>
          </tr>
        ))}
      </tbody>
      {points.length > MOST && (
        <caption className="caption-bottom pt-1 text-left text-note text-faint">
          The first {MOST} of {points.length}. The others are on the timeline.
        </caption>
      )}
    </table>
  );
}

function MuteSpans({ track }: { track: Track }) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const length = useMix((s) => s.length);
  const spans = spansOf(track.lanes?.mute ?? []);
  const edit = store.getState().edit;
  if (spans.length === 0)
    return <p className="text-faint">It is heard all along. Select a range on it, then mute it there.</p>;
  const move = (edge: { at: number; muted: boolean }) => async (text: string) => {
    const at = parseShownTime(text, store.getState());
    return at !== null && (at === edge.at || edit(moveMuteEdge(track.id, edge, at)));
  };
  return (
    <ul className="grid gap-1" aria-label="Muted stretches">
      {spans.map(({ from, to }) => {
        const until = Math.min(to, Math.max(length, from + 1));
        return (
          <li key={from} className="grid grid-cols-[1fr_1fr_24px] items-center gap-1.5">
            <TimeField
              label="Muted from"
              sample={from}
              disabled={!canEdit}
              onCommit={move({ at: from, muted: true })}
            />
            <TimeField
              label="Muted to"
              sample={until}
              disabled={!canEdit}
              onCommit={move({ at: until, muted: false })}
            />
            <RemoveButton
              of="this mute"
              onRemove={() =>
                void edit({ edit: "set-mute-range", track: track.id, from, to: until, muted: false })
              }
            />
          </li>
        );
      })}
    </ul>
  );
}

function RemoveButton({ of, onRemove }: { of: string; onRemove: () => void }) {
  const canEdit = useCanEdit();
  if (!canEdit) return null;
  return (
    <button
      type="button"
      className="grid size-6 cursor-pointer place-content-center text-faint"
      aria-label={`Remove ${of}`}
      onClick={onRemove}
    >
      <X size={13} />
    </button>
  );
}
