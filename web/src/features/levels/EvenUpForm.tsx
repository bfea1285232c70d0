import { CORE } from "@/preview/constants";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "@/api/client";
import { formatTimecode } from "@/preview/timecode";
import { useMix, useMixStore } from "@/store/context";
import { notANumber } from "@/preview/check";
import { numberIn } from "@/preview/parse";
import { EvenUpPicture } from "./EvenUpPicture";
import { EvenUpRows } from "./EvenUpRows";
import { HearPlan } from "@/parts/HearPlan";
import { PlanFoot } from "./PlanFoot";
import { extentOf } from "./extentOf";
import { usePlanned } from "./usePlanned";

/** Whole clips to one level: of their stem, a number, or that of one of them; with a table of what would become of each. */
export function EvenUpForm({ onDone }: { onDone: () => void }) {
  const store = useMixStore();
  const project = useMix((s) => s.project.id);
  const revision = useMix((s) => s.revision);
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  const clips = useMix((s) => s.clips);
  const selected = useMix((s) => s.selected);
  const [by, setBy] = useState<"average" | "peak">("average");
  const [to, setTo] = useState("stem");
  const [level, setLevel] = useState("-20");
  const number = numberIn(level);
  const wanted = to === "stem" ? "stem" : to === "number" ? (number ?? 0) : { clip: to };
  const wrong = to === "number" ? notANumber(level, ...CORE.average.asked, "dBFS") : null;
  const usable = wrong === null;
  const { data, error } = useQuery({
    queryKey: ["even-up", project, revision, selected, by, wanted],
    queryFn: () => api.evenUp(project, { clips: selected, by, to: wanted }),
    enabled: usable && selected.length > 0,
    placeholderData: (old) => old,
    retry: false,
  });
  const edit = data?.edit ?? null;
  const { after, setAfter } = usePlanned(data?.clips);
  const name = (id: string) => clips[id]?.name ?? id;
  return (
    <div className="grid min-h-0 grid-rows-[auto_auto_auto_minmax(64px,1fr)_auto] gap-3">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <label className="flex items-center gap-2">
          <span className="text-faint">By</span>
          <select
            className="field !w-auto py-0.5"
            value={by}
            onChange={(e) => setBy(e.target.value as typeof by)}
          >
            <option value="average">average of what is loud enough to count</option>
            <option value="peak">highest peak</option>
          </select>
        </label>
        <label className="flex items-center gap-2">
          <span className="text-faint">To</span>
          <select className="field !w-auto py-0.5" value={to} onChange={(e) => setTo(e.target.value)}>
            <option value="stem">its stem: speech −20, background −30</option>
            <option value="number">a level…</option>
            {selected.slice(0, 30).map((id) => (
              <option key={id} value={id}>
                as {name(id)} at {formatTimecode(clips[id]?.at ?? 0, rate, frameRate)}
              </option>
            ))}
          </select>
        </label>
        {to === "number" && (
          <label className="flex items-center gap-2">
            <input
              className="field figure !w-20 px-1.5 py-0.5 text-right"
              aria-label="Level in dBFS"
              aria-invalid={!usable}
              value={level}
              onChange={(e) => setLevel(e.target.value)}
            />
            <span className="text-faint">dBFS</span>
          </label>
        )}
      </div>
      <EvenUpPicture rows={data?.rows ?? []} />
      <HearPlan after={after} onAfter={setAfter} {...extentOf(clips, selected)} />
      <EvenUpRows rows={data?.rows ?? []} />
      <PlanFoot
        error={wrong ?? error?.message ?? null}
        text={edit ? "One step; undo takes it back." : "All of them are there already."}
        name="Even up"
        disabled={!edit || !usable}
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
