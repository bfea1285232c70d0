import { Headphones } from "lucide-react";
import { useState } from "react";
import type { Buried } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { usePlayer } from "@/player";
import { formatTimecode } from "@/preview/timecode";
import { useCanEdit, useMix, useMixStore } from "@/store/context";

/** A stretch of buried speech: what covers it, and what helps. */
export function Stretch({ buried }: { buried: Buried }) {
  const store = useMixStore();
  const player = usePlayer();
  const canEdit = useCanEdit();
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  const tracks = useMix((s) => s.tracks);
  const [note, setNote] = useState(false);
  const name = (id: string | null) => tracks.find((t) => t.id === id)?.name ?? "the rest";
  const { from, to, worst, covering, dipped, dip, lift, accepted } = buried;
  const edit = store.getState().edit;
  const dipEdit = buried.dipEdit;
  const liftEdit = buried.liftEdit;
  const listen = () => {
    store.getState().set({ range: { from, to, tracks: null }, looping: true, stretch: from });
    void player.play(Math.max(0, from - rate));
  };
  const accept = (text: string | undefined) =>
    void edit(
      text === undefined
        ? { edit: "accept-buried", from, to }
        : { edit: "accept-buried", from, to, note: text },
    );
  return (
    <div
      className={`grid gap-1.5 rounded-lg border p-2 ${accepted === null ? "border-trouble/40 bg-trouble-sheet" : "border-line"}`}
    >
      <p>
        <span className="figure text-aside">
          {formatTimecode(from, rate, frameRate)}–{formatTimecode(to, rate, frameRate)}
        </span>
        : speech {worst < 0 ? "lies" : "stands"}{" "}
        <strong>{formatDb(Math.abs(worst)).replace("+", "")} LU</strong> {worst < 0 ? "under" : "above"} the
        rest at its worst; {name(covering)} covers it most.
      </p>
      {accepted !== null && <p className="text-faint">Accepted{accepted ? `: “${accepted}”` : ""}.</p>}
      <div className="flex flex-wrap gap-1.5">
        <button type="button" className="button px-2 py-0.5" onClick={listen}>
          <Headphones size={13} aria-hidden /> Listen
        </button>
        {canEdit && accepted === null && (
          <>
            {dipEdit && dip !== null && (
              <button
                type="button"
                className="button button-main px-2 py-0.5"
                title={`Lowers ${dipped.map(name).join(", ")} over this stretch (S)`}
                onClick={() => void edit(dipEdit)}
              >
                Dip {dipped.length === 1 ? name(dipped[0] ?? null) : `${dipped.length} tracks`}{" "}
                {formatDb(dip)} dB
              </button>
            )}
            {liftEdit && lift !== null && (
              <button type="button" className="button px-2 py-0.5" onClick={() => void edit(liftEdit)}>
                Lift speech {formatDb(lift)} dB
              </button>
            )}
            <button type="button" className="button px-2 py-0.5" onClick={() => setNote(!note)}>
              Accept…
            </button>
          </>
        )}
        {canEdit && accepted !== null && (
          <button type="button" className="button px-2 py-0.5" onClick={() => accept(undefined)}>
            Look at it again
          </button>
        )}
      </div>
      {!dipEdit && accepted === null && (
        <p className="text-aside text-faint">
          {dipped.length === 0
            ? "What covers it is on a locked track, so no dip is offered."
            : "No dip within 40 dB clears it: the speech itself is too quiet. Lift its clip, or accept it."}
        </p>
      )}
      {note && (
        <Note
          onNote={(text) => {
            accept(text);
            setNote(false);
          }}
        />
      )}
    </div>
  );
}

/** Why a stretch is wanted as it is. */
function Note({ onNote }: { onNote: (text: string) => void }) {
  const [text, setText] = useState("");
  return (
    <form
      className="flex gap-1.5"
      onSubmit={(event) => {
        event.preventDefault();
        onNote(text);
      }}
    >
      <input
        className="field min-w-0 flex-1 px-1.5 py-0.5 text-aside"
        aria-label="Why it is accepted"
        placeholder="Why, if you like"
        value={text}
        autoFocus
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => event.stopPropagation()}
      />
      <button type="submit" className="button px-2 py-0.5">
        Accept
      </button>
    </form>
  );
}
