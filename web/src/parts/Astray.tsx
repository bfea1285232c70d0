import { usePlayer } from "@/player";
import { useMix } from "@/store/context";

/** How long each track is too loud or too soft for what it carries; a click goes to where that begins. */
export function Astray({ most = Infinity }: { most?: number }) {
  const player = usePlayer();
  const figures = useMix((s) => s.figures);
  const tracks = useMix((s) => s.tracks);
  if (!figures) return null;
  const shown = figures.astray.slice(0, most);
  return (
    <>
      {shown.map(({ track, above, seconds, worst }) => {
        const first = figures.outside.find((o) => o.track === track && o.by > 0 === above);
        return (
          <button
            key={`${track} ${above}`}
            type="button"
            className="block min-h-6 cursor-pointer text-left text-aside hover:underline"
            title="Go to where that begins"
            onClick={() => first && player.seek(first.from)}
          >
            {tracks.find((t) => t.id === track)?.name} is up to {worst.toFixed(1)} dB{" "}
            {above ? "above" : "under"} its zone for {Math.round(seconds)} s.
          </button>
        );
      })}
      {figures.astray.length > shown.length && (
        <span className="text-aside text-faint">
          {figures.astray.length - shown.length} more under Speech
        </span>
      )}
    </>
  );
}
