import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "@/api/client";
import { formatDb } from "@/lib/format";
import { formatTimecode } from "@/lib/timecode";
import { useMix, useMixStore } from "@/store/context";
import { notANumber } from "@/parts/check";
import { numberIn } from "@/parts/parse";
import { PlanFoot } from "./PlanFoot";

interface Settings {
  window: number;
  up: number;
  down: number;
  tolerance: number;
}

const FIELDS: { key: keyof Settings; name: string; unit: string; min: number; max: number; step: number }[] =
  [
    { key: "window", name: "Looks at", unit: "s at a time", min: 0.5, max: 10, step: 0.5 },
    { key: "up", name: "Lifts at most", unit: "dB", min: 0, max: 24, step: 1 },
    { key: "down", name: "Lowers at most", unit: "dB", min: 0, max: 30, step: 1 },
    { key: "tolerance", name: "May be off by", unit: "dB", min: 0.1, max: 3, step: 0.1 },
  ];

/** Speech inside clips to one level, pauses let alone; the curve that would come is seen while the numbers change. */
export function SteadyForm({ onDone }: { onDone: () => void }) {
  const store = useMixStore();
  const project = useMix((s) => s.project.id);
  const revision = useMix((s) => s.revision);
  const clips = useMix((s) => s.clips);
  const selected = useMix((s) => s.selected);
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  const [settings, setSettings] = useState<Settings>({ window: 3, up: 9, down: 12, tolerance: 0.5 });
  const [to, setTo] = useState<"own" | "stem" | "number">("own");
  const [level, setLevel] = useState("-20");
  const number = numberIn(level);
  const wrong = to === "number" ? notANumber(level, -60, 0, "dBFS") : null;
  const wanted = to === "number" ? (number ?? -20) : to;
  const [shown, setShown] = useState(selected[0] ?? "");
  const { data, error, isFetching } = useQuery({
    queryKey: ["steady", project, revision, selected, settings, wanted],
    queryFn: () => api.steady(project, { clips: selected, to: wanted, ...settings }),
    enabled: selected.length > 0 && wrong === null,
    placeholderData: (old) => old,
    retry: false,
  });
  const edit = data?.edit ?? null;
  const row = data?.rows.find((r) => r.clip === shown) ?? data?.rows[0];
  return (
    <div className="grid min-h-0 grid-rows-[auto_auto_minmax(0,1fr)_auto] gap-3">
      <div className="grid grid-cols-[auto_1fr_64px_auto] items-center gap-x-3 gap-y-1">
        <span className="text-faint">To</span>
        <span className="col-span-3 flex gap-2">
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
      </div>
      {row && <Preview before={row.levelsBefore} after={row.levelsAfter} />}
      <div className="min-h-16 overflow-y-auto rounded-lg border border-line">
        <table className="w-full text-[12.5px]">
          <thead className="sticky top-0 bg-sunk">
            <tr className="text-right text-[11px] text-faint">
              <th className="px-2 py-1 text-left font-normal">Clip</th>
              <th className="px-2 font-normal">wanders by</th>
              <th className="px-2 font-normal">after</th>
              <th className="px-2 font-normal">keyframes</th>
            </tr>
          </thead>
          <tbody>
            {data?.rows.map((r) => (
              <tr key={r.clip} className={`border-t border-line ${r === row ? "bg-glow" : ""}`}>
                <th className="px-2 py-0.5 text-left font-normal">
                  <button
                    type="button"
                    className="min-h-6 cursor-pointer"
                    aria-pressed={r === row}
                    onClick={() => setShown(r.clip)}
                  >
                    {clips[r.clip]?.name}{" "}
                    <span className="figure text-[11px] text-faint">
                      {formatTimecode(clips[r.clip]?.at ?? 0, rate, frameRate)}
                    </span>
                  </button>
                </th>
                <td className="figure px-2 text-right">
                  {r.before === null ? "no speech" : `±${r.before.toFixed(1)} dB`}
                </td>
                <td className="figure px-2 text-right">
                  {r.after === null ? "stays" : `±${r.after.toFixed(1)} dB`}
                </td>
                <td className="figure px-2 text-right">{r.keyframes}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
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
    <>
      <span className="text-faint">{name}</span>
      <input
        type="range"
        className="h-6 accent-[var(--copper)]"
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
    </>
  );
}

const WIDTH = 680;
const HEIGHT = 110;

/** Momentary level along the clip, before and after. dBFS, −60 to 0. */
function Preview({ before, after }: { before: (number | null)[]; after: (number | null)[] }) {
  const path = (levels: (number | null)[]) =>
    levels
      .map((level, i) => {
        const x = (i * WIDTH) / Math.max(1, levels.length - 1);
        const y = (Math.min(60, -(level ?? -60)) / 60) * HEIGHT;
        return `${i ? "L" : "M"}${x.toFixed(1)} ${y.toFixed(1)}`;
      })
      .join("");
  return (
    <figure>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="w-full rounded-lg border border-line bg-sheet"
        role="img"
        aria-label="Level along the clip, before and after"
      >
        {[-20, -40].map((db) => (
          <g key={db}>
            <line x1="0" x2={WIDTH} y1={(-db / 60) * HEIGHT} y2={(-db / 60) * HEIGHT} stroke="var(--line)" />
            <text x="4" y={(-db / 60) * HEIGHT - 3} fontSize="10" fill="var(--faint)">
              {formatDb(db)}
            </text>
          </g>
        ))}
        <path d={path(before)} fill="none" stroke="var(--faint)" strokeWidth="1.2" strokeDasharray="3 2" />
        <path d={path(after)} fill="none" stroke="var(--copper)" strokeWidth="1.8" />
      </svg>
      <figcaption className="mt-0.5 text-[11px] text-faint">
        Level along the clip in dBFS: dashed as it is, solid as it would be.
      </figcaption>
    </figure>
  );
}
