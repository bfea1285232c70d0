import { formatDb } from "@/lib/format";
import { useCanEdit, useMix, useMixStore } from "@/store/context";

/** EBU R 128; ATSC A/85; the podcast ones are common practice. LUFS, dBTP. */
export const TARGETS = [
  ["Broadcast, EBU R 128", -23, -1],
  ["Broadcast, ATSC A/85", -24, -2],
  ["Podcast, stereo", -16, -1],
  ["Podcast, mono", -19, -1],
] as const;

/** What the programme is to reach: one of the usual targets, or whatever it was set to. */
export function TargetChoice() {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const aim = useMix((s) => s.aim);
  const target = TARGETS.findIndex(
    ([, loudness, peak]) => loudness === aim.loudness && peak === aim.truePeak,
  );
  return (
    <div className="grid grid-cols-[auto_1fr] items-center gap-2">
      <span className="text-faint">Target</span>
      <select
        className="field py-0.5 text-[12px]"
        aria-label="Loudness target"
        disabled={!canEdit}
        value={target}
        onChange={(event) => {
          const chosen = TARGETS[Number(event.target.value)];
          if (chosen)
            void store.getState().edit({ edit: "set-aim", loudness: chosen[1], truePeak: chosen[2] });
        }}
      >
        {target < 0 && (
          <option value={-1}>{`${formatDb(aim.loudness)} LUFS, ${formatDb(aim.truePeak)} dBTP`}</option>
        )}
        {TARGETS.map(([name, loudness], i) => (
          <option key={name} value={i}>
            {name}: {formatDb(loudness)} LUFS
          </option>
        ))}
      </select>
    </div>
  );
}
