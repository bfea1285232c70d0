import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { api } from "@/api/client";
import { clipsInRange } from "@/scene/levels";
import { formatDb } from "@/lib/format";
import { useMix, useMixStore } from "@/store/context";

/** What is selected: a range, or clips. */
function measuredPart(state: Parameters<typeof clipsInRange>[0]): {
  clips: string[];
  from?: number;
  to?: number;
} {
  const { range, selected, clips, chosen } = state;
  const first = chosen[0];
  // Between two chosen keyframes of a clip it is that stretch.
  if (!range && first && "clip" in first && first.keyframes.length > 1) {
    const clip = clips[first.clip];
    const ahead = clip ? clip.in - clip.at : 0;
    const ends = [Math.min(...first.keyframes) - ahead, Math.max(...first.keyframes) - ahead] as const;
    return { clips: [first.clip], from: ends[0], to: ends[1] };
  }
  return range ? { clips: clipsInRange(state, range), from: range.from, to: range.to } : { clips: selected };
}

/** How loud what is selected is heard: as it is, and while something is dragged, as that would make it. */
export function Measured() {
  const store = useMixStore();
  const project = useMix((s) => s.project.id);
  const revision = useMix((s) => s.hearing?.revision ?? s.revision);
  const pending = useMix((s) => s.trying);
  useMix((s) => s.range);
  useMix((s) => s.selected);
  useMix((s) => s.chosen);
  const part = measuredPart(store.getState());
  const { data } = useQuery({
    queryKey: ["measure", project, revision, part, pending],
    queryFn: () => api.measure(project, part, pending),
    enabled: part.clips.length > 0,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const peak = data?.peak ?? null;
  useEffect(() => store.getState().set({ triedPeak: peak }), [store, peak]);
  if (part.clips.length === 0 || !data) return null;
  const text = (value: number | null) => (value === null ? "silent" : formatDb(value));
  return (
    <dl
      className="mt-2 grid grid-cols-3 gap-1 rounded-md bg-sunk px-2 py-1 text-center"
      aria-label="How loud it is heard"
    >
      <Figure
        name="average"
        unit="dBFS"
        value={text(data.average)}
        hint="K-weighted, pauses left out, as in Intake"
      />
      <Figure
        name="peak"
        unit="dBFS"
        value={text(data.peak)}
        hint={part.clips.length > 1 ? "No sample is higher" : "The highest sample"}
        trouble={(data.peak ?? -1) > 0}
      />
      <Figure name="loudness" unit="LUFS" value={text(data.loudness)} hint="Integrated over this part" />
    </dl>
  );
}

interface FigureProps {
  name: string;
  unit: string;
  value: string;
  hint: string;
  trouble?: boolean;
}

function Figure({ name, unit, value, hint, trouble = false }: FigureProps) {
  return (
    <div title={hint}>
      <dt className="text-mark text-faint">
        {name}, {unit}
      </dt>
      <dd className={`figure text-aside font-semibold ${trouble ? "text-trouble" : ""}`}>
        {value}
        {trouble && <span className="block text-mark">over full scale</span>}
      </dd>
    </div>
  );
}
