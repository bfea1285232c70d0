import type { EvenColourPlan } from "@/api/schema";

type Row = EvenColourPlan["rows"][number];

const WIDTH = 660;
const HEIGHT = 230;
const LEFT = 34;
const BOTTOM = 22;
/** Frequencies that are named. */
const NAMED = [200, 500, 1000, 2000, 5000];

/** Two spectra, and the one that would come of it: louder is up. */
export function SpectrumPicture({ row, name, like }: { row: Row; name: string; like: string }) {
  const all = [...row.now, ...row.wanted, ...row.after];
  const step = Math.max(...all) - Math.min(...all) > 50 ? 12 : 6;
  const low = Math.floor((Math.min(...all) - 2) / step) * step;
  const high = Math.ceil((Math.max(...all) + 2) / step) * step;
  const [first = 160] = row.hertz;
  const last = row.hertz.at(-1) ?? 8000;
  const x = (hertz: number) => LEFT + ((WIDTH - LEFT - 8) * Math.log(hertz / first)) / Math.log(last / first);
  const y = (db: number) => 6 + ((HEIGHT - BOTTOM - 6) * (high - db)) / (high - low);
  const line = (levels: number[]) =>
    levels.map((db, i) => `${x(row.hertz[i] ?? first).toFixed(1)},${y(db).toFixed(1)}`).join(" ");
  const steps = Array.from({ length: (high - low) / step + 1 }, (_, i) => low + step * i);
  return (
    <figure className="grid min-h-0 grid-rows-[minmax(0,1fr)_auto] gap-1">
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="h-full max-h-[300px] w-full"
        role="img"
        aria-label={`Spectrum of ${name}: ${row.off.toFixed(1)} dB from that of ${like} now, ${row.left.toFixed(1)} afterwards`}
      >
        {steps.map((db) => (
          <g key={db}>
            <line x1={LEFT} x2={WIDTH - 8} y1={y(db)} y2={y(db)} className="stroke-line" />
            <text x={LEFT - 5} y={y(db) + 3.5} textAnchor="end" className="fill-faint text-mark">
              {db > 0 ? `+${db}` : String(db).replace("-", "−")}
            </text>
          </g>
        ))}
        {NAMED.map((hertz) => (
          <text key={hertz} x={x(hertz)} y={HEIGHT - 6} textAnchor="middle" className="fill-faint text-mark">
            {hertz < 1000 ? `${hertz} Hz` : `${hertz / 1000} kHz`}
          </text>
        ))}
        <polyline points={line(row.now)} className="fill-none stroke-faint" strokeWidth={2} />
        <polyline
          points={line(row.wanted)}
          className="fill-none stroke-ink"
          strokeWidth={1.6}
          strokeDasharray="2 4"
        />
        <polyline points={line(row.after)} className="fill-none stroke-copper" strokeWidth={3} />
      </svg>
      <figcaption className="text-note text-faint">
        Third octaves about their mean: grey “{name}” as it is, dotted “{like}”, copper as it would be.
      </figcaption>
    </figure>
  );
}
