import { CORE } from "@/preview/constants";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "@/api/client";
import { formatDb } from "@/lib/format";
import { useMix, useMixStore } from "@/store/context";
import { notANumber } from "@/preview/check";
import { numberIn } from "@/preview/parse";
import { HearPlan } from "@/parts/HearPlan";
import { PlanFoot } from "./PlanFoot";
import { SteadyPicture } from "./SteadyPicture";
import { SteadyRows } from "./SteadyRows";
import { usePlanned } from "./usePlanned";

interface Settings {
  window: number;
  up: number;
  down: number;
  tolerance: number;
  ceiling: number;
}

const FIELDS: { key: keyof Settings; name: string; unit: string; min: number; max: number; step: number }[] =
  [
    { key: "window", name: "Looks at", unit: "s", min: 0.5, max: 10, step: 0.5 },
    { key: "up", name: "Lifts at most", unit: "dB", min: 0, max: 24, step: 1 },
    { key: "down", name: "Lowers at most", unit: "dB", min: 0, max: 30, step: 1 },
    { key: "ceiling", name: "No peak above", unit: "dBFS", min: -20, max: 0, step: 1 },
    { key: "tolerance", name: "May be off by", unit: "dB", min: 0.1, max: 3, step: 0.1 },
  ];

/** Speech inside clips to one level, pauses let alone; the curve that would come is seen while the numbers change. */
export function SteadyForm({ onDone }: { onDone: () => void }) {
  const store = useMixStore();
  const project = useMix((s) => s.project.id);
  const revision = useMix((s) => s.revision);
  const selected = useMix((s) => s.selected);
  const [settings, setSettings] = useState<Settings>(CORE.steady.usual);
  const [to, setTo] = useState<"own" | "stem" | "number">("own");
  const [level, setLevel] = useState("-20");
  const number = numberIn(level);
  const wrong = to === "number" ? notANumber(level, ...CORE.average.asked, "dBFS") : null;
  const wanted = to === "number" ? (number ?? -20) : to;
  const [pauses, setPauses] = useState<Pauses>("follow");
  const [shown, setShown] = useState(selected[0] ?? "");
  const { data, error, isFetching } = useQuery({
    queryKey: ["steady", project, revision, selected, settings, pauses, wanted],
    queryFn: () => api.steady(project, { clips: selected, to: wanted, pauses, ...settings }),
    enabled: selected.length > 0 && wrong === null,
    placeholderData: (old) => old,
    retry: false,
  });
  const edit = data?.edit ?? null;
  const { after, setAfter } = usePlanned(data?.clips);
  const row = data?.rows.find((r) => r.clip === shown) ?? data?.rows[0];
  const clip = useMix((s) => s.clips[row?.clip ?? ""]);
  return (
    <div className="grid min-h-0 grid-rows-[auto_auto_auto_auto_minmax(56px,1fr)_auto] gap-3">
      <div className="flex items-center gap-3">
        <span className="text-faint">To</span>
        <span className="flex gap-2">
          <select
            className="field !w-auto py-0.5"
            aria-label="Level to steady to"
            value={to}
            onChange={(e) => setTo(e.target.value as typeof to)}
          >
            <option value="own">the clip’s own average</option>
            <option value="stem">its stem: speech −20, background −30 dBFS</option>
            <option value="number">a level…</option>
          </select>
          {to === "number" && (
            <label className="flex items-center gap-1 text-faint">
              <input
                className="field figure !w-16 py-0.5 text-right"
                aria-label="Level to steady to, dBFS"
                value={level}
                aria-invalid={wrong !== null}
                onChange={(event) => setLevel(event.target.value)}
              />
              dBFS
            </label>
          )}
        </span>
      </div>
      <div className="grid grid-cols-2 gap-x-8 gap-y-1">
        {FIELDS.map(({ key, name, unit, min, max, step }) => (
          <Setting
            key={key}
            name={name}
            unit={unit}
            min={min}
            max={max}
            step={step}
            value={settings[key]}
            onChange={(value) => setSettings((s) => ({ ...s, [key]: value }))}
          />
        ))}
        <PausesChoice pauses={pauses} onPauses={setPauses} />
      </div>
      {row && <SteadyPicture row={row} />}
      {clip && <HearPlan after={after} onAfter={setAfter} from={clip.at} to={clip.at + clip.length} />}
      <SteadyRows rows={data?.rows ?? []} shown={row} onShow={setShown} />
      <PlanFoot
        error={wrong ?? error?.message ?? null}
        text={
          isFetching
            ? "Working it out…"
            : edit
              ? "Writes keyframes that can be edited like any others. One step; undo takes it back."
              : "Nobody speaks in these clips, so nothing would change."
        }
        name="Steady"
        disabled={!edit || wrong !== null}
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

type Pauses = "keep" | "follow" | "hush";

function PausesChoice({ pauses, onPauses }: { pauses: Pauses; onPauses: (pauses: Pauses) => void }) {
  return (
    <label className="grid grid-cols-[96px_1fr] items-center gap-x-2">
      <span className="text-faint">Pauses</span>
      <select
        className="field py-0.5"
        value={pauses}
        onChange={(event) => onPauses(event.target.value as Pauses)}
      >
        <option value="follow">go down with the speech</option>
        <option value="keep">keep their level</option>
        <option value="hush">are hushed by {CORE.steady.hush} dB</option>
      </select>
    </label>
  );
}

interface SettingProps {
  name: string;
  unit: string;
  min: number;
  max: number;
  step: number;
  value: number;
  onChange: (value: number) => void;
}

function Setting({ name, unit, min, max, step, value, onChange }: SettingProps) {
  return (
    <div className="grid grid-cols-[96px_1fr_40px_auto] items-center gap-x-2">
      <span className="text-faint">{name}</span>
      <input
        type="range"
        className="h-6"
        aria-label={name}
        aria-valuetext={`${value} ${unit}`}
        min={min}
        max={max}
        step={step}
        value={value}
        onChange={(event) => onChange(Number(event.target.value))}
      />
      <span className="figure text-right">{formatDb(value).replace("+", "")}</span>
      <span className="text-faint">{unit}</span>
    </div>
  );
}
