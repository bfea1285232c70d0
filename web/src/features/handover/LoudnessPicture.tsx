import type { Figures } from "@/api/schema";
import { usePlayer } from "@/player";
import { formatDb } from "@/lib/format";
import { formatTimecode } from "@/preview/timecode";
import { useMix } from "@/store/context";

const WIDTH = 1000;
const HEIGHT = 112;
/** LUFS at the upper and lower edge. */
const [LOUD, SOFT] = [-6, -42];
const TENTHS = 10;

/** Loudness along the programme against its target, peaks over the limit above, clearance of the speech beneath; a click goes there. */
export function LoudnessPicture({ onGo }: { onGo: () => void }) {
  const player = usePlayer();
  const figures = useMix((s) => s.figures);
  const aim = useMix((s) => s.aim);
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  const length = useMix((s) => s.length);
  if (!figures || figures.history.length < 2 || length === 0) return null;
  const go = (at: number) => {
    player.seek(Math.max(0, Math.min(length, Math.round(at))));
    onGo();
  };
  const first = figures.over.places[0];
  const buried = figures.buried.length + figures.moreBuried.length;
  return (
    <div className="mt-2">
      <div className="grid grid-cols-[52px_minmax(0,1fr)]">
        <div className="figure relative text-mark text-faint" aria-hidden>
          <span className="absolute right-2" style={{ top: heightOf(aim.loudness) + 6 }}>
            {formatDb(aim.loudness)}
          </span>
          <span className="absolute right-2 bottom-[2px]">clear</span>
        </div>
        <button
          type="button"
          className="block w-full cursor-pointer overflow-hidden rounded-md border border-line bg-sheet"
          aria-label="Loudness along the programme; go to a moment of it"
          title="Loudness over 3 s; the dashed line is the target, red above where samples pass full scale, beneath how clear the speech is. Click to go there in Balance"
          onClick={(event) => {
            const box = event.currentTarget.getBoundingClientRect();
            go(event.detail ? ((event.clientX - box.left) / box.width) * length : player.position);
          }}
        >
          <Drawing figures={figures} aim={aim.loudness} length={length} rate={rate} />
        </button>
      </div>
      <p className="mt-1 flex flex-wrap gap-x-4 pl-[52px] text-aside">
        {first && (
          <button
            type="button"
            className="min-h-6 cursor-pointer text-trouble underline"
            onClick={() => go(first[0] ?? 0)}
          >
            ▼ {figures.over.exact ? "passes" : "may pass"} full scale in {figures.over.places.length}{" "}
            {figures.over.places.length === 1 ? "place" : "places"}, first at{" "}
            {formatTimecode(first[0] ?? 0, rate, frameRate)}
          </button>
        )}
        {buried > 0 ? (
          <button
            type="button"
            className="min-h-6 cursor-pointer text-trouble underline"
            onClick={() => go(figures.buried[0]?.from ?? 0)}
          >
            ▬ speech is buried in {buried.toLocaleString("en")} {buried === 1 ? "place" : "places"}
          </button>
        ) : (
          figures.clearPart !== null && <span className="text-faint">Speech is clear all along.</span>
        )}
      </p>
    </div>
  );
}

interface DrawingProps {
  figures: Figures;
  /** LUFS */
  aim: number;
  length: number;
  rate: number;
}

function Drawing({ figures, aim, length, rate }: DrawingProps) {
  const x = (sample: number) => (WIDTH * sample) / length;
  const y = heightOf;
  const line = figures.history
    .map((lufs, i) => `${i === 0 ? "M" : "L"}${x((i + 1.5) * rate).toFixed(1)} ${y(lufs ?? SOFT).toFixed(1)}`)
    .join("");
  return (
    <svg
      viewBox={`0 -10 ${WIDTH} ${HEIGHT + 26}`}
      preserveAspectRatio="none"
      className="block h-[148px] w-full"
      aria-hidden
    >
      <path d={`${line}L${WIDTH} ${HEIGHT}L0 ${HEIGHT}Z`} fill="var(--speech)" opacity="0.22" />
      <path d={line} fill="none" stroke="var(--speech)" strokeWidth="1.4" vectorEffect="non-scaling-stroke" />
      <line
        x1="0"
        x2={WIDTH}
        y1={y(aim)}
        y2={y(aim)}
        stroke="var(--copper)"
        strokeWidth="1.5"
        strokeDasharray="5 4"
        vectorEffect="non-scaling-stroke"
      />
      {figures.over.places.map(([from = 0]) => (
        <path key={from} d={`M${x(from)} 0l-4 -9h8z`} fill="var(--trouble)" />
      ))}
      {figures.clearance.map(([start, values]) => (
        <rect
          key={start}
          x={x((start * rate) / TENTHS)}
          width={x((values.length * rate) / TENTHS)}
          y={HEIGHT + 4}
          height="10"
          fill="var(--speech)"
          opacity="0.5"
        />
      ))}
      {[...figures.buried.map((b) => [b.from, b.to]), ...figures.moreBuried].map(([from = 0, to = 0]) => (
        <rect
          key={from}
          x={x(from)}
          width={Math.max(2, x(to - from))}
          y={HEIGHT + 2}
          height="14"
          fill="var(--trouble)"
        />
      ))}
    </svg>
  );
}

/** Where a loudness is drawn, px from above. */
function heightOf(lufs: number): number {
  return ((LOUD - Math.min(LOUD, Math.max(SOFT, lufs))) / (LOUD - SOFT)) * HEIGHT;
}
