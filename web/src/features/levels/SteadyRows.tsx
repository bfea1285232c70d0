import type { SteadyPlan } from "@/api/schema";
import { formatTimecode } from "@/preview/timecode";
import { useMix } from "@/store/context";

type Row = SteadyPlan["rows"][number];

interface Props {
  rows: Row[];
  shown: Row | undefined;
  onShow: (clip: string) => void;
}

/** What would become of each clip; the curve of the one that is pressed is shown. */
export function SteadyRows({ rows, shown, onShow }: Props) {
  const clips = useMix((s) => s.clips);
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  return (
    <div className="min-h-16 overflow-y-auto rounded-lg border border-line">
      <table className="w-full text-aside">
        <thead className="sticky top-0 bg-sunk">
          <tr className="text-right text-note text-faint">
            <th className="px-2 py-1 text-left font-normal">Clip</th>
            <th className="px-2 font-normal">wanders by</th>
            <th className="px-2 font-normal">after</th>
            <th className="px-2 font-normal">keyframes</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr key={r.clip} className={`border-t border-line ${r === shown ? "bg-glow" : ""}`}>
              <th className="px-2 py-0.5 text-left font-normal">
                <button
                  type="button"
                  className="min-h-6 cursor-pointer"
                  aria-pressed={r === shown}
                  onClick={() => onShow(r.clip)}
                >
                  {clips[r.clip]?.name}{" "}
                  <span className="figure text-note text-faint">
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
  );
}
