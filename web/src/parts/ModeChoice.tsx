import type { Track } from "@/api/schema";
import { RIDES, useRideMode } from "./rideModes";

interface Props {
  track: Track;
  disabled: boolean;
  className: string;
}

/** How a track is ridden, in one word. */
export function ModeChoice({ track, disabled, className }: Props) {
  const [shown, choose] = useRideMode(track);
  return (
    <select
      className={`field h-6 ${className} px-1 py-0 text-note ${shown === "off" || shown === "read" ? "" : "border-copper font-semibold text-copper-text"}`}
      aria-label={`How ${track.name} is ridden`}
      title={RIDES.find((m) => m.mode === shown)?.hint}
      disabled={disabled}
      value={shown}
      onChange={(event) => choose(event.target.value as typeof shown)}
    >
      {RIDES.map((m) => (
        <option key={m.mode} value={m.mode} title={m.hint}>
          {m.mode}
        </option>
      ))}
    </select>
  );
}
