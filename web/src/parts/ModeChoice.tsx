import type { Track } from "@/api/schema";
import { useMix, useMixStore } from "@/store/context";
import type { RideMode } from "@/store/screen";

const MODES: { mode: "off" | RideMode; hint: string }[] = [
  { mode: "off", hint: "lanes are kept but not followed" },
  { mode: "read", hint: "lanes are followed, nothing is written" },
  { mode: "touch", hint: "writes only while a hand is on it, then glides back" },
  { mode: "latch", hint: "writes from the first touch until playing stops" },
  { mode: "write", hint: "writes from play to stop, then goes to touch" },
];

/** How a track is ridden. Off is part of the mix, the others are a matter of this screen. */
export function ModeChoice({
  track,
  disabled,
  className,
}: {
  track: Track;
  disabled: boolean;
  className: string;
}) {
  const store = useMixStore();
  const mode = useMix((s) => s.modes[track.id] ?? "read");
  const shown = track.lanes?.off ? "off" : mode;
  return (
    <select
      className={`field h-6 ${className} px-0.5 py-0 text-[11px] ${shown === "off" || shown === "read" ? "" : "border-copper font-semibold text-copper-text"}`}
      aria-label={`How ${track.name} is ridden`}
      title={MODES.find((m) => m.mode === shown)?.hint}
      disabled={disabled}
      value={shown}
      onChange={(event) => {
        const next = event.target.value as "off" | RideMode;
        const { modes, set, edit } = store.getState();
        if (next !== "off") set({ modes: { ...modes, [track.id]: next } });
        if ((next === "off") !== (track.lanes?.off === true))
          void edit({ edit: "set-lanes-off", track: track.id, off: next === "off" });
      }}
    >
      {MODES.map((m) => (
        <option key={m.mode} value={m.mode} title={m.hint}>
          {m.mode}
        </option>
      ))}
    </select>
  );
}
