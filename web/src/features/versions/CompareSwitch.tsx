import { Equal, EqualNot } from "lucide-react";
import { useEffect } from "react";
import { formatDb } from "@/lib/format";
import { useMix, useMixStore } from "@/store/context";
import { matchLevels, prepareA, stateA, switchAB } from "@/commands/compare";

/** A is an earlier state or a snapshot, B the present. One press switches what is heard and seen, at the same spot. */
export function CompareSwitch() {
  const store = useMixStore();
  const a = useMix((s) => stateA(s)?.name ?? null);
  const revision = useMix((s) => s.revision);
  const against = useMix((s) => s.against?.revision ?? null);
  const hearing = useMix((s) => s.hearing !== null);
  const matched = useMix((s) => s.matched);
  const trim = useMix((s) => s.trim);
  const playing = useMix((s) => s.playing);
  useEffect(() => {
    if (playing || against !== null) prepareA(store.getState());
  }, [store, playing, revision, against]);
  const name = a ?? "nothing to compare with yet";
  return (
    <div className="flex items-center gap-1" role="group" aria-label="Compare">
      <div className="flex rounded-lg border border-line p-[2px]">
        {(["A", "B"] as const).map((side) => (
          <button
            key={side}
            type="button"
            className="figure h-6 w-7 cursor-pointer rounded-md text-aside font-semibold text-faint aria-pressed:bg-ink aria-pressed:text-paper"
            aria-pressed={(side === "A") === hearing}
            aria-disabled={a === null}
            title={side === "A" ? `Hear A: ${name} (C)` : "Hear B: the present (C)"}
            onClick={() => (side === "A") !== hearing && void switchAB(store)}
          >
            {side}
          </button>
        ))}
      </div>
      <button
        type="button"
        className="button button-quiet px-1 py-0.5 text-note aria-pressed:text-copper-text"
        aria-pressed={matched}
        aria-label="Match the loudness of A and B"
        title={
          matched
            ? `The louder of the two is turned down${trim ? `: now by ${formatDb(trim)} dB` : ""}`
            : "Both sound as they are: the louder one will seem better"
        }
        onClick={() => {
          store.getState().set({ matched: !matched });
          void matchLevels(store);
        }}
      >
        {matched ? trim ? `${formatDb(trim)} dB` : <Equal size={14} /> : <EqualNot size={14} />}
      </button>
    </div>
  );
}
