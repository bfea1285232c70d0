import type { EvenUpPlan } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { formatTimecode } from "@/preview/timecode";
import { useMix } from "@/store/context";

const LIMITS: Record<string, string> = { peak: "peak at its limit: tame it first", gain: "gain at +24" };

/** What would become of each clip. */
export function EvenUpRows({ rows }: { rows: EvenUpPlan["rows"] }) {
  const clips = useMix((s) => s.clips);
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  return (
    <div className="min-h-24 overflow-y-auto rounded-lg border border-line">
      <table className="w-full text-aside">
        <thead className="sticky top-0 bg-sunk">
          <tr className="text-right text-note text-faint">
            <th className="px-2 py-1 text-left font-normal">Clip</th>
            <th className="px-2 font-normal">now</th>
            <th className="px-2 font-normal">change</th>
            <th className="px-2 font-normal">after</th>
            <th className="px-2 text-left font-normal">limit reached</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.clip} className="border-t border-line">
              <th className="max-w-64 truncate px-2 py-1 text-left font-normal">
                {clips[row.clip]?.name ?? row.clip}{" "}
                <span className="figure text-note text-faint">
                  {formatTimecode(clips[row.clip]?.at ?? 0, rate, frameRate)}
                </span>
              </th>
              <td className="figure px-2 text-right">{row.now === null ? "silent" : formatDb(row.now)}</td>
              <td className="figure px-2 text-right">
                {row.by === null ? "stays" : `${formatDb(row.by)} dB`}
              </td>
              <td className="figure px-2 text-right">
                {row.after === null ? "silent" : formatDb(row.after)}
              </td>
              <td className="px-2 text-trouble">{row.limit ? LIMITS[row.limit] : ""}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
