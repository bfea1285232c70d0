import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "@/api/client";
import { HearPlan } from "@/parts/HearPlan";
import { formatTimecode } from "@/preview/timecode";
import { useMix, useMixStore } from "@/store/context";
import { PlanFoot } from "./PlanFoot";
import { SpectrumPicture } from "./SpectrumPicture";
import { extentOf } from "./extentOf";
import { usePlanned } from "./usePlanned";

/** Clips that others can be made like; a list of more is no choice. */
const MOST = 60;

/** The long-term spectrum of the selected clips brought to that of another: both curves are seen before it is done. */
export function EvenColourForm({ onDone }: { onDone: () => void }) {
  const store = useMixStore();
  const project = useMix((s) => s.project.id);
  const revision = useMix((s) => s.revision);
  const selected = useMix((s) => s.selected);
  const clips = useMix((s) => s.clips);
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  const others = Object.values(clips)
    .filter((clip) => selected.length > 1 || !selected.includes(clip.id))
    .sort((a, b) => a.at - b.at)
    .slice(0, MOST);
  const [chosen, setChosen] = useState<string | null>(null);
  const to = chosen ?? others.find((c) => c.track === clips[selected[0] ?? ""]?.track)?.id ?? others[0]?.id;
  const { data, error } = useQuery({
    queryKey: ["even-colour", project, revision, selected, to],
    queryFn: () => api.evenColour(project, { clips: selected, to: to ?? "" }),
    enabled: to !== undefined && selected.length > 0,
    placeholderData: (old) => old,
    retry: false,
  });
  const { after, setAfter } = usePlanned(data?.clips);
  const edit = data?.edit ?? null;
  const row = data?.rows[0];
  return (
    <div className="grid min-h-0 grid-rows-[auto_minmax(120px,1fr)_auto_auto] gap-3">
      <label className="flex items-center gap-2">
        <span className="text-faint">To sound like</span>
        <select
          className="field !w-auto max-w-[420px] py-0.5"
          value={to ?? ""}
          onChange={(event) => setChosen(event.target.value)}
        >
          {others.map((clip) => (
            <option key={clip.id} value={clip.id}>
              {clip.name} at {formatTimecode(clip.at, rate, frameRate)}
            </option>
          ))}
        </select>
      </label>
      {row ? (
        <SpectrumPicture row={row} name={clips[row.clip]?.name ?? ""} like={clips[to ?? ""]?.name ?? ""} />
      ) : (
        <p className="text-faint">{others.length ? "Listening…" : "There is no other clip to sound like."}</p>
      )}
      <HearPlan after={after} onAfter={setAfter} {...extentOf(clips, selected)} />
      <PlanFoot
        error={error?.message ?? null}
        text={
          row
            ? `${data.rows.length === 1 ? "The curves lie" : `${data.rows.length} clips; the curves of the first lie`} ${row.off.toFixed(1)} dB apart now, and ${row.left.toFixed(1)} afterwards.`
            : "Select a clip, and choose what it is to sound like."
        }
        name="Even up the colour"
        disabled={!edit}
        onDo={() =>
          edit &&
          void store
            .getState()
            .edit(edit)
            .then((done) => done && onDone())
        }
      />
    </div>
  );
}
