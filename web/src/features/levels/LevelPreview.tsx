import { formatDb } from "@/lib/format";

const WIDTH = 680;
const HEIGHT = 110;

/** Momentary level along the clip, before and after. dBFS, −60 to 0. */
export function LevelPreview({ before, after }: { before: (number | null)[]; after: (number | null)[] }) {
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
