import { usePlayer } from "@/player";
import { formatDb } from "@/lib/format";
import { formatTimecode } from "@/preview/timecode";
import { useMix } from "@/store/context";

const SHOWN = 8;

interface Place {
  at: number;
  db: number;
  /** Whose it is; nothing where that is not known. */
  of?: string | undefined;
}

/** Moments at which something is too loud; a press goes there. */
export function Places({ places, onGo }: { places: Place[]; onGo: () => void }) {
  const player = usePlayer();
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  return (
    <p className="figure mt-1 flex flex-wrap gap-x-3 text-note">
      {places.slice(0, SHOWN).map(({ at, db, of }) => (
        <button
          key={at}
          type="button"
          className="min-h-6 cursor-pointer underline"
          title="Go there"
          onClick={() => {
            player.seek(at);
            onGo();
          }}
        >
          {formatTimecode(at, rate, frameRate)} {formatDb(db)}
          {of ? ` ${of}` : ""}
        </button>
      ))}
      {places.length > SHOWN && <span>and {places.length - SHOWN} more</span>}
    </p>
  );
}
