import { Check, X } from "lucide-react";
import { useMix } from "@/store/context";
import type { MixState } from "@/store/mixStore";

const STEPS: { what: string; how: string; done: (s: MixState) => boolean }[] = [
  {
    what: "Bring in a voice and a piece of music",
    how: "Drop the files anywhere on this page. Intake sets a rough level for each.",
    done: (s) => Object.keys(s.sources).length > 0,
  },
  {
    what: "Add a track for speech and one for music",
    how: "“+ Track” on the horizon: speech rises above it, the rest hangs beneath.",
    done: (s) => s.tracks.some((t) => t.stem === "speech") && s.tracks.some((t) => t.stem !== "speech"),
  },
  {
    what: "Lay both out",
    how: "Drag each source from “Sources” onto its track; move it by its name.",
    done: (s) => new Set(Object.values(s.clips).map((c) => c.track)).size > 1,
  },
  {
    what: "Dip the music under the voice",
    how: "Drag across the music where the voice speaks, then drag down inside. Two gestures, four keyframes.",
    done: (s) => Object.values(s.clips).some((c) => c.curve.length >= 4),
  },
  {
    what: "Fade something in",
    how: "Drag the half-round grip at a clip’s corner.",
    done: (s) => Object.values(s.clips).some((c) => (c.fadeIn?.length ?? 0) + (c.fadeOut?.length ?? 0) > 0),
  },
  {
    what: "Hear before and after",
    how: "Press C while it plays: A is the state before, B the present.",
    done: (s) => s.hearing !== null,
  },
];

/** First steps, ticked off as they are taken. */
export function Guide({ onClose }: { onClose: () => void }) {
  const done = useMix((s) => STEPS.map((step) => (step.done(s) ? "1" : "0")).join(""));
  const next = done.indexOf("0");
  const carrying = useMix((s) => s.carried !== null);
  return (
    <aside
      className={`absolute bottom-[76px] left-[220px] z-30 w-[310px] rounded-xl border border-line bg-sheet p-3 shadow-xl ${carrying ? "pointer-events-none opacity-20" : ""}`}
      aria-label="First steps"
    >
      <div className="mb-1 flex items-center">
        <h2 className="flex-1 font-semibold">First steps</h2>
        <button
          type="button"
          className="button button-quiet p-0.5"
          aria-label="Put the first steps aside"
          onClick={onClose}
        >
          <X size={15} />
        </button>
      </div>
      <ol className="grid gap-1">
        {STEPS.map((step, i) => {
          const isDone = done[i] === "1";
          return (
            <li key={step.what} className={isDone ? "text-faint" : ""}>
              <span className="flex items-baseline gap-1.5">
                <span className="figure w-4 shrink-0 text-[11px]">
                  {isDone ? <Check size={13} aria-label="done" className="inline text-speech" /> : i + 1}
                </span>
                <span className={i === next ? "font-semibold" : ""}>{step.what}</span>
              </span>
              {i === next && <span className="block pl-5.5 text-[12px] text-faint">{step.how}</span>}
            </li>
          );
        })}
      </ol>
      {next < 0 && <p className="mt-2 text-faint">That is all it takes. “?” shows every key.</p>}
    </aside>
  );
}
