import type { Figures, Predicted } from "@/api/schema";
import { usePlayer } from "@/player";
import { formatDb } from "@/lib/format";
import { useMix } from "@/store/context";
import { Astray } from "@/parts/Astray";
import { STEMS } from "@/parts/stems";
import { TargetChoice } from "@/parts/TargetChoice";
import { offTarget } from "./target";
import { Zones } from "./Zones";

/** What will be measured, worked out after every edit: the programme against its target, then stems and tracks. */
export function Programme() {
  const project = useMix((s) => s.project.id);
  const figures = useMix((s) => s.figures);
  const aim = useMix((s) => s.aim);
  const tracks = useMix((s) => s.tracks);
  if (!figures) return null;
  return (
    <section aria-label="Loudness" className="grid gap-2">
      <h2 className="caps">Loudness, as it will measure</h2>
      <TargetChoice />
      <p className="text-aside">{verdict(figures, aim)}</p>
      <Astray />
      <History />
      <table className="w-full text-aside">
        <thead>
          <tr className="text-right text-note text-faint">
            <th className="text-left font-normal">LUFS, LU, dBFS</th>
            <th className="font-normal">whole</th>
            <th className="font-normal">range</th>
            <th className="font-normal" title="Highest short-term loudness, over 3 s">
              3 s
            </th>
            <th className="font-normal" title="No sample is higher">
              peak ≤
            </th>
          </tr>
        </thead>
        <tbody>
          <Row name="Programme" strong figures={figures.programme} />
          {STEMS.map(({ stem, name }) => (
            <Row key={stem} name={name} figures={figures.stems[stem]} />
          ))}
        </tbody>
        <tbody className="border-t border-line">
          {figures.tracks.map((track) => (
            <Row key={track.id} name={tracks.find((t) => t.id === track.id)?.name ?? ""} figures={track} />
          ))}
        </tbody>
      </table>
      <Zones />
      <p className="text-aside text-faint">
        One row per 100 ms:{" "}
        {["csv", "json"].map((format) => (
          <a
            key={format}
            className="mr-2 underline"
            href={`/api/projects/${project}/revisions/${figures.revision}/figures.${format}`}
            download
          >
            {format.toUpperCase()}
          </a>
        ))}
      </p>
    </section>
  );
}

const HEIGHT = 54;
/** LUFS at the upper and lower edge. */
const [LOUD, SOFT] = [-6, -46];

/** Short-term loudness over the whole programme against the target; a click goes there. */
function History() {
  const player = usePlayer();
  const history = useMix((s) => s.figures?.history);
  const target = useMix((s) => s.aim.loudness);
  const rate = useMix((s) => s.rate);
  if (!history || history.length < 2) return null;
  const y = (lufs: number) => ((LOUD - Math.min(LOUD, Math.max(SOFT, lufs))) / (LOUD - SOFT)) * HEIGHT;
  const bars = history
    .map((lufs, i) => (lufs === null ? "" : `M${i + 0.5} ${HEIGHT}V${y(lufs).toFixed(1)}`))
    .join("");
  const loudest = Math.max(...history.map((lufs) => lufs ?? -100));
  return (
    <button
      type="button"
      className="block w-full cursor-pointer overflow-hidden rounded-md border border-line bg-sheet"
      aria-label={`Short-term loudness over the programme, at most ${formatDb(loudest)} LUFS; go to the loudest moment`}
      title="Short-term loudness over the programme, the dashed line is the target. Click to go there"
      onClick={(event) => {
        const box = event.currentTarget.getBoundingClientRect();
        // Each is of the 3 s that end there; by keyboard it goes to the loudest.
        const at = event.detail
          ? ((event.clientX - box.left) / box.width) * history.length
          : history.indexOf(loudest);
        player.seek(Math.max(0, Math.round((at + 1.5) * rate)));
      }}
    >
      <svg
        viewBox={`0 0 ${history.length} ${HEIGHT}`}
        preserveAspectRatio="none"
        className="block w-full"
        style={{ height: HEIGHT }}
        aria-hidden
      >
        <path d={bars} stroke="var(--speech)" strokeWidth="0.8" />
        <line
          x1="0"
          x2={history.length}
          y1={y(target)}
          y2={y(target)}
          stroke="var(--copper)"
          strokeDasharray="4 3"
          vectorEffect="non-scaling-stroke"
        />
      </svg>
    </button>
  );
}

function Row({ name, figures, strong = false }: { name: string; figures: Predicted; strong?: boolean }) {
  const cell = (value: number | null) => (value === null ? "silent" : formatDb(value));
  return (
    <tr className={strong ? "font-semibold" : ""}>
      <th className="max-w-[88px] truncate py-px text-left font-normal" title={name}>
        {name}
      </th>
      {figures.integrated === null ? (
        <td className="text-right text-faint" colSpan={4}>
          silent
        </td>
      ) : (
        <>
          <td className="figure text-right">{cell(figures.integrated)}</td>
          <td className="figure text-right">{formatDb(figures.range).replace("+", "")}</td>
          <td className="figure text-right">
            {figures.maxShortTerm === null ? "–" : cell(figures.maxShortTerm)}
          </td>
          <td className="figure text-right">{cell(figures.peak)}</td>
        </>
      )}
    </tr>
  );
}

/** What of the programme passes the highest peak that is allowed. */
function overLimit({ programme, over }: Figures, limit: number): string {
  const peak = programme.peak === null ? "" : `${formatDb(programme.peak)} dBFS`;
  return over.exact
    ? `The highest sample, ${peak}, passes ${formatDb(limit)} dBTP.`
    : `No sample passes ${peak}, but some may pass ${formatDb(limit)} dBTP; a render tells.`;
}

/** A plain sentence about the programme and its target. */
function verdict(figures: Figures, aim: { truePeak: number }): string {
  if (figures.verdict.off === null) return "The programme is silent.";
  const word = offTarget(figures.verdict);
  const loud =
    word === "on target"
      ? "On target."
      : `${word.replace("over", "LU louder").replace("under", "LU quieter")} than the target.`;
  return loud + (figures.verdict.mayPass ? ` ${overLimit(figures, aim.truePeak)}` : "");
}
