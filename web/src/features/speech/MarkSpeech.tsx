import { X } from "lucide-react";
import type { Clip, MixSource } from "@/api/schema";
import { formatTimecode } from "@/preview/timecode";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { markRange } from "@/commands/markSpeech";

/** Marks that are listed; they are all on the strip. */
const MOST = 12;

interface Mark {
  source: string;
  name: string;
  speech: boolean;
  /** Timeline samples, where it is heard. */
  from: number;
  to: number;
  track: string;
}

/** What is taken for speech put right by hand: it holds for the recording, wherever it is used. */
export function MarkSpeech() {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const range = useMix((s) => s.range);
  const clips = useMix((s) => s.clips);
  const sources = useMix((s) => s.sources);
  const marks = marksIn(clips, sources);
  if (!canEdit && marks.length === 0) return null;
  const why = range ? undefined : "Select a range over the speech first";
  return (
    <section aria-label="Speech put right by hand" className="grid gap-1.5">
      <h3 className="caps">Is it speech?</h3>
      {canEdit && (
        <div className="flex flex-wrap gap-1.5">
          {(
            [
              ["speech", "This is speech"],
              ["other", "Nobody speaks here"],
              ["found", "As it is heard"],
            ] as const
          ).map(([as, name]) => (
            <button
              key={as}
              type="button"
              className="button px-2 py-0.5"
              aria-disabled={!range}
              title={why}
              onClick={() => void markRange(store.getState(), as)}
            >
              {name}
            </button>
          ))}
        </div>
      )}
      <Marks marks={marks} />
    </section>
  );
}

function Marks({ marks }: { marks: Mark[] }) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  if (marks.length === 0)
    return (
      <p className="text-aside text-faint">
        The bar on top of the strip shows what is taken for speech. Where it is wrong, select the range and
        say so.
      </p>
    );
  return (
    <ul className="grid gap-0.5 text-aside">
      {marks.slice(0, MOST).map((mark) => (
        <li key={`${mark.source} ${mark.from} ${mark.track}`} className="flex items-center gap-2">
          <span className="figure">{formatTimecode(mark.from, rate, frameRate)}</span>
          <span className="min-w-0 flex-1 truncate">
            {mark.speech ? "speech" : "nobody speaks"}, {mark.name}
          </span>
          {canEdit && (
            <button
              type="button"
              className="grid size-6 cursor-pointer place-content-center text-faint"
              aria-label={`Take back the mark at ${formatTimecode(mark.from, rate, frameRate)}`}
              onClick={() =>
                void store.getState().edit({
                  edit: "mark-speech",
                  tracks: [mark.track],
                  from: mark.from,
                  to: mark.to,
                  as: "found",
                })
              }
            >
              <X size={13} />
            </button>
          )}
        </li>
      ))}
      {marks.length > MOST && <li className="text-faint">and {marks.length - MOST} more</li>}
    </ul>
  );
}

function marksIn(clips: Record<string, Clip>, sources: Record<string, MixSource>): Mark[] {
  const marks: Mark[] = [];
  for (const clip of Object.values(clips)) {
    const source = sources[clip.source];
    for (const part of ["speech", "other"] as const) {
      for (const { from, to } of source?.marks?.[part] ?? []) {
        const [first, last] = [Math.max(from, clip.in), Math.min(to, clip.in + clip.length)];
        if (first >= last) continue;
        const shift = clip.at - clip.in;
        marks.push({
          source: clip.source,
          name: clip.name,
          speech: part === "speech",
          from: first + shift,
          to: last + shift,
          track: clip.track,
        });
      }
    }
  }
  return marks.sort((a, b) => a.from - b.from);
}
