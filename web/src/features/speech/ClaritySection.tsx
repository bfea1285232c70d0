import type { Aim, Clarity } from "@/api/schema";
import { formatTimecode } from "@/preview/timecode";
import { CORE } from "@/preview/constants";
import { usePlayer } from "@/player";
import { useCanEdit, useMix, useMixStore } from "@/store/context";

/** As many as are listed; the strip shows all of them. */
const LISTED = 40;

const ROOMS = Object.entries(CORE.aim.rooms) as [Aim["room"], string][];

/** How much of the speech is understood, where it is to be, and what covers it. */
export function ClaritySection() {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const aim = useMix((s) => s.aim);
  const clarity = useMix((s) => s.clarity);
  if (clarity?.average == null) return null;
  const edit = store.getState().edit;
  return (
    <section aria-label="Clarity" className="grid gap-1.5">
      <h2 className="font-semibold">Clarity</h2>
      <p>
        On average <strong>{Math.round(clarity.average)}</strong> of 100;{" "}
        <strong>{Math.floor(100 * (clarity.clearPart ?? 0))} %</strong> of the speech reaches {aim.clarity}.
      </p>
      <label className="flex items-center justify-between gap-2">
        <span className="whitespace-nowrap text-faint">Understood in</span>
        <select
          className="field min-w-0 py-0.5 text-aside"
          aria-label="Where it is to be understood"
          disabled={!canEdit}
          value={aim.room}
          onChange={(event) => void edit({ edit: "set-aim", room: event.target.value as Aim["room"] })}
        >
          {ROOMS.map(([room, name]) => (
            <option key={room} value={room}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <CoveredList covered={clarity.covered} />
      <LackingList lacking={clarity.lacking} />
    </section>
  );
}

/** Recordings that cannot be any clearer, whatever the mix does. */
function LackingList({ lacking }: { lacking: Clarity["lacking"] }) {
  const sources = useMix((s) => s.sources);
  if (lacking.length === 0) return null;
  return (
    <ul aria-label="Speech with bands missing" className="grid gap-0.5 text-aside text-faint">
      {lacking.map(({ source, rate, hz, most }) => (
        <li key={source}>
          {sources[source]?.name} was recorded at {rate / 1000} kHz:{" "}
          {hz > 0 ? `nothing above ${hz / 1000} kHz is in it` : "the bands of speech are not in it"}, so it
          reaches {most} at most.
        </li>
      ))}
    </ul>
  );
}

function CoveredList({ covered }: { covered: Clarity["covered"] }) {
  const store = useMixStore();
  const player = usePlayer();
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  const tracks = useMix((s) => s.tracks);
  if (covered.length === 0) return <p className="text-faint">Nothing is covered.</p>;
  const go = (from: number) => {
    store.getState().set({ judged: "clarity" });
    player.seek(from);
  };
  return (
    <ul aria-label="Covered speech" className="grid max-h-56 gap-0.5 overflow-y-auto">
      {covered.slice(0, LISTED).map(({ from, worst, track, fromHz, toHz }) => (
        <li key={from}>
          <button
            type="button"
            className="button button-quiet grid w-full grid-cols-[auto_2em_1fr_auto] items-baseline gap-2 px-1 py-0.5 text-left"
            title="Go there"
            onClick={() => go(from)}
          >
            <span className="figure text-aside">{formatTimecode(from, rate, frameRate)}</span>
            <span className="figure text-right text-trouble">{worst}</span>
            <span className="truncate text-aside">
              {tracks.find((t) => t.id === track)?.name ?? "Softly spoken"}
            </span>
            <span className="text-aside text-faint">
              {fromHz / 1000}–{toHz / 1000} kHz
            </span>
          </button>
        </li>
      ))}
      {covered.length > LISTED && (
        <li className="px-1 text-faint">
          and {(covered.length - LISTED).toLocaleString("en")} more in the strip
        </li>
      )}
    </ul>
  );
}
