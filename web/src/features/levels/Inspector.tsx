import { useMix } from "@/store/context";
import { partAtHand } from "@/store/wires";
import { ClipSection } from "./ClipSection";
import { LaneSection } from "./LaneSection";
import { Measured } from "./Measured";
import { RangeSection } from "./RangeSection";
import { TamePanel } from "./TamePanel";

/** What is selected, in exact numbers: times and levels side by side. */
export function Inspector() {
  const clip = useMix((s) => (s.selected[0] === undefined ? undefined : s.clips[s.selected[0]]));
  const range = useMix((s) => s.range);
  const lane = useMix((s) => partAtHand(s) !== null);
  return (
    <div className="grid gap-5 p-3">
      <RangeSection />
      {range && <Measured />}
      <LaneSection />
      {clip && !range && <Measured />}
      {clip ? <ClipSection key={clip.id} clip={clip} /> : !range && !lane && <Lesson />}
      {clip && !range && <TamePanel />}
    </div>
  );
}

function Lesson() {
  const empty = useMix((s) => s.length === 0);
  return (
    <div className="grid gap-2 text-faint">
      <p className="font-semibold text-ink">{empty ? "Begin here" : "Nothing selected"}</p>
      {empty ? (
        <ol className="grid list-decimal gap-1 pl-5">
          <li>Bring files in under “Sources”, or drop them on this page.</li>
          <li>Add tracks on the horizon: speech above, the rest beneath.</li>
          <li>Drag each source onto its track.</li>
          <li>Drag the copper wire to set levels; 0 dB is unchanged, not silent.</li>
        </ol>
      ) : (
        <>
          <p>Click a clip to see its levels. Drag across a lane to select a range of time, then dip it.</p>
          <p>0 dB leaves a sound unchanged. It is not silence.</p>
        </>
      )}
    </div>
  );
}
