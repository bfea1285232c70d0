import { Check, X } from "lucide-react";
import { useState } from "react";
import { useMix, useMixStore } from "@/store/context";
import { FIRST_STEPS, TOUR } from "./steps";

const GUIDES = {
  first: { name: "First steps", steps: FIRST_STEPS, aside: "Put the first steps aside" },
  tour: { name: "A short tour", steps: TOUR, aside: "Put the tour aside" },
};

/** First steps, or a tour, one at a time beneath the lanes; what was done stays ticked off. */
export function Guide({ kind, onClose }: { kind: keyof typeof GUIDES; onClose: () => void }) {
  const { name, steps, aside } = GUIDES[kind];
  const store = useMixStore();
  const [begun] = useState(() => store.getState().revision);
  const now = useMix((s) => steps.map((step) => (step.done(s, begun) ? "1" : "0")).join(""));
  const [done, setDone] = useState(now);
  const all = [...now].map((is, i) => (is === "1" || done[i] === "1" ? "1" : "0")).join("");
  if (all !== done) setDone(all);
  const next = all.indexOf("0");
  const step = steps[next];
  return (
    <aside className="flex items-center gap-3 border-t border-line bg-sheet px-3 py-1" aria-label={name}>
      <h2 className="caps shrink-0">{name}</h2>
      <ol className="flex shrink-0 gap-1">
        {steps.map(({ what }, i) => (
          <li key={what} title={what}>
            <span
              className={`figure grid size-[18px] place-content-center rounded-full border text-mark ${i === next ? "border-copper font-semibold text-copper-text" : "border-line text-faint"}`}
            >
              {all[i] === "1" ? (
                <Check size={11} aria-label={`done: ${what}`} className="text-speech" />
              ) : (
                i + 1
              )}
            </span>
          </li>
        ))}
      </ol>
      <p className="min-w-0 flex-1 truncate" title={step?.how}>
        {step ? (
          <>
            <strong>{step.what}.</strong> <span className="text-faint">{step.how}</span>
          </>
        ) : (
          "That is all it takes. “?” shows every key."
        )}
      </p>
      <button type="button" className="button button-quiet p-0.5" aria-label={aside} onClick={onClose}>
        <X size={15} />
      </button>
    </aside>
  );
}
