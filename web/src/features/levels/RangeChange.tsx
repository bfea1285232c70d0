import { useState } from "react";
import { changeRange } from "@/commands/levels";
import { useMix, useMixStore } from "@/store/context";
import { looseChange } from "@/store/screen";
import { amountOf } from "@/timeline";

/** What can be done to the selected range: by an amount, to a level, to silence, to nothing. */
export function RangeChange({
  reason,
}: {
  /** Why nothing can be done; null where it can. */ reason: string | null;
}) {
  const store = useMixStore();
  const settings = useMix((s) => s.settings);
  const loose = useMix(looseChange);
  const [typed, setAmount] = useState<string | null>(null);
  const done = loose?.edit === "dip-range" && typeof loose.by === "number" ? loose.by : settings.by;
  const amount = typed ?? String(done);
  // A dip made or changed by hand stands in the field, not what was typed before it.
  const [shownFor, setShownFor] = useState(loose);
  if (shownFor !== loose) {
    setShownFor(loose);
    setAmount(null);
  }
  const state = () => store.getState();
  return (
    <>
      <form
        className="mt-2 grid grid-cols-[1fr_auto_auto] items-end gap-1.5"
        onSubmit={(event) => {
          event.preventDefault();
          if (reason) return;
          const field = event.currentTarget.querySelector("input");
          void changeRange(state(), { edit: "dip-range", by: amountOf(amount) ?? amount }).then((done) => {
            // The keys are back with the timeline: Space plays, arrows nudge.
            if (done && document.activeElement === field) field?.blur();
          });
        }}
      >
        <label className="grid gap-0.5 text-note text-faint">
          dB, or a level
          <input
            className="field figure px-1.5 py-0.5 text-right text-aside text-ink"
            aria-label="Dip by dB"
            value={amount}
            onChange={(e) => setAmount(e.target.value)}
            onKeyDown={(e) => {
              e.stopPropagation();
              if (e.key === "Escape") e.currentTarget.blur();
            }}
          />
        </label>
        <button className="button button-main px-2" disabled={reason !== null} title="Change by this (D)">
          {/^[-−]/.test(amount.trim()) ? "Dip" : "Lift"}
        </button>
        <button
          type="button"
          className="button px-2"
          disabled={reason !== null}
          title="Bring the wire to this level"
          onClick={() => void changeRange(state(), { edit: "set-range", level: amount.replace("−", "-") })}
        >
          Set to
        </button>
      </form>
      <div className="mt-1.5 grid grid-cols-2 gap-1.5">
        <button
          type="button"
          className="button px-2"
          disabled={reason !== null}
          title="Silence the range (Shift+D)"
          onClick={() => void changeRange(state(), { edit: "set-range", level: "silence" })}
        >
          Silence
        </button>
        <button
          type="button"
          className="button px-2"
          disabled={reason !== null}
          title="No keyframes there, 0 dB (Z)"
          onClick={() => void changeRange(state(), { edit: "reset-range" })}
        >
          Reset
        </button>
      </div>
    </>
  );
}
