import { useState } from "react";
import { amountOf, clipsInRange } from "@/features/timeline";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import type { MixState } from "@/store/mixStore";
import { partAtHand, wireIn } from "@/store/wires";
import { looseChange } from "@/store/screen";
import { changeRange, laneUnder, sideUnder } from "./commands/levels";
import { deleteTakes } from "./commands/arrange";
import { SideRange } from "./SideRange";
import { lengthOf, parseShownTime } from "@/parts/parse";
import { TamePanel } from "./TamePanel";
import { TimeField } from "./TimeField";
import { TypedField } from "@/parts/TypedField";

/** The selected range of time in exact numbers, and what can be done to it. */
export function RangeSection() {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const range = useMix((s) => s.range);
  const rate = useMix((s) => s.rate);
  const settings = useMix((s) => s.settings);
  useMix((s) => s.selected);
  useMix((s) => s.activeLane);
  useMix((s) => s.tracks);
  const loose = useMix(looseChange);
  const adjusting = loose !== null;
  useMix((s) => s.side);
  const [typed, setAmount] = useState<string | null>(null);
  const done = loose?.edit === "dip-range" && typeof loose.by === "number" ? loose.by : settings.by;
  const amount = typed ?? String(done);
  // A dip made or changed by hand stands in the field, not what was typed before it.
  const [shownFor, setShownFor] = useState(loose);
  if (shownFor !== loose) {
    setShownFor(loose);
    setAmount(null);
  }
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
  const setRamp = async (text: string) => {
    const ramp = lengthOf(text, store.getState());
    if (ramp === null) {
      const why = `“${text}” is not a length. Type seconds (0.4) or frames (12f).`;
      store.getState().set({ notice: { kind: "error", text: why } });
      return false;
    }
    store.getState().set({ settings: { ...settings, ramp, rampChosen: true }, notice: null });
    const last = looseChange(store.getState());
    return last ? store.getState().edit({ ...last, ramp }, { instead: true }) : true;
  };
  const state = () => store.getState();
  return (
    <section aria-label="Range">
      <h2 className="caps mb-2">Range · {((range.to - range.from) / rate).toFixed(2)} s</h2>
      <div className="grid grid-cols-2 gap-2">
        <TimeField label="Range from" sample={range.from} onCommit={set("from")} />
        <TimeField label="Range to" sample={range.to} onCommit={set("to")} />
      </div>
      {side ? (
        <SideRange {...side} range={range} />
      ) : (
        <>
          <form
            className="mt-2 grid grid-cols-[1fr_auto_auto] items-end gap-1.5"
            onSubmit={(event) => {
              event.preventDefault();
              if (reason) return;
              const field = event.currentTarget.querySelector("input");
              void changeRange(state(), { edit: "dip-range", by: amountOf(amount) ?? amount }).then(
                (done) => {
                  // The keys are back with the timeline: Space plays, arrows nudge.
                  if (done && document.activeElement === field) field?.blur();
                },
              );
            }}
          >
            <label className="grid gap-0.5 text-[11px] text-faint">
              dB, or a level
              <input
                className="field figure px-1.5 py-0.5 text-right text-[12px] text-ink"
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
              onClick={() =>
                void changeRange(state(), { edit: "set-range", level: amount.replace("−", "-") })
              }
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
      )}
      <div className="mt-2 grid grid-cols-[auto_74px_1fr] items-center gap-2">
        <span className="text-faint">Ramps</span>
        <TypedField
          label="Ramps"
          shown={`${(settings.ramp / rate).toFixed(2)} s`}
          disabled={!canEdit}
          onCommit={setRamp}
        />
        <select
          className="field px-1 py-0.5 text-[12px]"
          aria-label="Where the ramps lie"
          disabled={!canEdit}
          value={settings.inside === null ? "itself" : settings.inside ? "inside" : "outside"}
          title="By itself: outside, so that a bed is down before the speech starts; inside where it lifts"
          onChange={(event) => {
            const chosen = event.target.value;
            const inside = chosen === "itself" ? null : chosen === "inside";
            state().set({ settings: { ...settings, inside } });
            const last = looseChange(state());
            if (last && inside !== null) void state().edit({ ...last, inside }, { instead: true });
          }}
        >
          <option value="itself">by itself</option>
          <option value="outside">outside it</option>
          <option value="inside">inside it</option>
        </select>
      </div>
      <p className="mt-1 text-[11px] text-faint">
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
