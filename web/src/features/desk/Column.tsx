import type { Reading } from "@/player";
import type { Loud } from "./useMoments";
import { averageAt, heightOf, type Scale, type ScaleId, SCALES } from "./scale";

interface Props {
  reading: Reading;
  loud: Loud;
  scale: ScaleId;
  ink: string;
  zone?: { low?: number; high: number } | undefined;
}

/**
 * A tall meter of two channels. In dBFS and VU the bars are averages and the thin lines peaks; in LUFS there is one bar, the
 * momentary loudness, and a line for the short-term one. The bracket is where the sound of this stem belongs.
 */
export function Column({ reading, loud, scale, ink, zone }: Props) {
  const inLoudness = scale === "lufs";
  const shown = SCALES[scale];
  const bars = inLoudness
    ? [{ bar: averageAt(shown, loud.momentary ?? -200), line: averageAt(shown, loud.shortTerm ?? -200) }]
    : [0, 1].map((side) => ({ bar: reading.average[side] ?? -200, line: reading.peak[side] ?? -200 }));
  return (
    <div className="relative flex min-h-0 flex-1 gap-[2px]" aria-hidden>
      {zone && (
        <div
          className="absolute -left-[5px] w-[4px] border-y border-l border-ink/60"
          style={{
            bottom: `${100 * heightOf(zone.low ?? -60)}%`,
            height: `${100 * (heightOf(zone.high) - heightOf(zone.low ?? -60))}%`,
          }}
        />
      )}
      {bars.map(({ bar, line }, side) => (
        <div key={side} className="relative h-full flex-1 overflow-hidden rounded-[2px] bg-sunk">
          <div
            className="absolute inset-x-0 bottom-0 h-full origin-bottom"
            style={{ background: `var(--${ink})`, transform: `scaleY(${heightOf(bar)})` }}
          />
          <div
            className={`absolute inset-x-0 h-[2px] ${line > 0 ? "bg-trouble" : "bg-ink"}`}
            style={{ bottom: `calc(${100 * heightOf(line)}% - 1px)`, opacity: line > -60 ? 1 : 0 }}
          />
          {line > 0 && <div className="hatched absolute inset-x-0 top-0 h-[5%]" />}
        </div>
      ))}
    </div>
  );
}

/** The numbers of a scale, to stand beside the columns. */
export function Marks({ scale }: { scale: Scale }) {
  return (
    <div className="figure relative w-[30px] text-right text-mark text-faint" aria-hidden>
      {scale.marks.map((mark) => (
        <span
          key={mark}
          className={`absolute right-[3px] translate-y-1/2 leading-none ${mark === 0 ? "text-ink" : ""}`}
          style={{ bottom: `${100 * heightOf(averageAt(scale, mark))}%` }}
        >
          {mark > 0 ? `+${mark}` : String(mark).replace("-", "−")}
        </span>
      ))}
    </div>
  );
}
