import { clipsInRange } from "@/scene/levels";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import type { MixState } from "@/store/mixStore";
import { partAtHand, wireIn } from "@/store/wires";
import { looseChange } from "@/store/screen";
import { laneUnder, sideUnder } from "@/commands/levels";
import { deleteTakes } from "@/commands/arrange";
import { RangeChange } from "./RangeChange";
import { RangeRamps } from "./RangeRamps";
import { SideRange } from "./SideRange";
import { parseShownTime } from "@/preview/parse";
import { TamePanel } from "./TamePanel";
import { TimeField } from "@/parts/TimeField";

/** The selected range of time in exact numbers, and what can be done to it. */
export function RangeSection() {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const range = useMix((s) => s.range);
  const rate = useMix((s) => s.rate);
  useMix((s) => s.selected);
  useMix((s) => s.activeLane);
  useMix((s) => s.tracks);
  const loose = useMix(looseChange);
  const adjusting = loose !== null;
  useMix((s) => s.side);
  if (!range) return null;
  const clips = clipsInRange(store.getState(), range);
  const lane = laneUnder(store.getState());
  const side = sideLaneUnder(store.getState());
  const channel = sideUnder(store.getState());
  const reason = !canEdit
    ? "Your role here is viewer."
    : clips.length === 0 && !lane
      ? "No clip lies under this range."
      : null;
  const works = side
    ? `Works on the ${side.part} lane.${side.part === "pan" ? " Or drag inside the range: up is left." : ""}`
    : lane
      ? `Works on ${wireIn(store.getState(), lane)?.name}. Or drag inside the range; D repeats.`
      : `Works on ${channel ? `the ${channel} channel of ` : ""}${clips.length === 1 ? "one clip" : `${clips.length} clips`}. Or drag inside the range; D repeats.`;
  const deletes = canEdit ? deleteTakes(store.getState()) : "";
  const set = (edge: "from" | "to") => async (text: string) => {
    const sample = parseShownTime(text, store.getState());
    const next = sample === null ? null : { ...range, [edge]: sample, marked: true };
    if (!next || next.to <= next.from) {
      const why = next
        ? "A range must end after it starts."
        : `“${text}” is not a time. Type 00:00:58:05 or 0:58.2.`;
      store.getState().set({ notice: { kind: "error", text: why } });
      return false;
    }
    store.getState().set({ range: next, notice: null });
    return true;
  };
  return (
    <section aria-label="Range">
      <h2 className="caps mb-2">Range · {((range.to - range.from) / rate).toFixed(2)} s</h2>
      <div className="grid grid-cols-2 gap-2">
        <TimeField label="Range from" sample={range.from} onCommit={set("from")} />
        <TimeField label="Range to" sample={range.to} onCommit={set("to")} />
      </div>
      {side ? <SideRange {...side} range={range} /> : <RangeChange reason={reason} />}
      <RangeRamps />
      <p className="mt-1 text-note text-faint">
        {reason ??
          (adjusting
            ? "Still loose: drag the flags on the horizon, the ends, or inside it; ↑ ↓ by 1 dB."
            : works)}{" "}
        {deletes}
      </p>
      {!lane && !side && <TamePanel />}
    </section>
  );
}

/** The pan or mute lane that a range on its track alone works on. */
function sideLaneUnder(state: MixState): { track: string; part: "pan" | "mute" } | null {
  const part = state.range?.tracks?.length === 1 ? partAtHand({ ...state, chosen: [] }) : null;
  if (!part || part.track !== state.range?.tracks?.[0]) return null;
  return part.lane === "pan" || part.lane === "mute" ? { track: part.track, part: part.lane } : null;
}
