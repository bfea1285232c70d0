import { useState } from "react";
import type { Clip } from "@/api/types";
import { amountOf, clipsInRange } from "@/features/timeline";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { TimeField } from "./TimeField";

interface Props {
  clip: Clip | undefined;
  rampSeconds: number;
  setRampSeconds: (seconds: number) => void;
}

/** The selected range of time in exact numbers, and the dip. */
export function RangeSection({ clip, rampSeconds, setRampSeconds }: Props) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const range = useMix((s) => s.range);
  const rate = useMix((s) => s.rate);
  const [amount, setAmount] = useState("-11");
  if (!range) return null;
  const clips =
    range.track === null ? (clip ? [clip.id] : []) : targetsOnTrack(store.getState(), range.track);
  const reason = !canEdit
    ? "Your role here is viewer."
    : clips.length === 0
      ? range.track === null
        ? "Select the clip to dip, too."
        : "No clip lies under this range."
      : null;
  const set = (edge: "from" | "to") => async (text: string) => {
    const sample = parseShownTime(text, store.getState());
    const next = sample === null ? null : { ...range, [edge]: sample };
    if (!next || next.to <= next.from) {
      store.getState().set({
        notice: {
          kind: "error",
          text: next
            ? "A range must end after it starts."
            : `“${text}” is not a time. Type 00:00:58:05 or 0:58.2.`,
        },
      });
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
      <form
        className="mt-2 grid grid-cols-[1fr_1fr_auto] items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (reason) return;
          const by = amountOf(amount);
          if (by === null)
            store.getState().set({
              notice: {
                kind: "error",
                text: `“${amount}” is not an amount in dB. Type a number such as -11.`,
              },
            });
          else
            void store.getState().edit({
              edit: "dip-range",
              clips,
              from: range.from,
              to: range.to,
              by,
              ramp: Math.round(rampSeconds * rate),
            });
        }}
      >
        <label className="grid gap-0.5 text-[11px] text-faint">
          By, dB
          <input
            className="field figure px-1.5 py-0.5 text-right text-[12px] text-ink"
            aria-label="Dip by dB"
            value={amount}
            onChange={(e) => setAmount(e.target.value)}
            onKeyDown={(e) => e.key !== "Escape" && e.stopPropagation()}
          />
        </label>
        <label className="grid gap-0.5 text-[11px] text-faint">
          Ramps, s
          <input
            className="field figure px-1.5 py-0.5 text-right text-[12px] text-ink"
            aria-label="Ramp seconds"
            type="number"
            min={0}
            max={60}
            step={0.1}
            value={rampSeconds}
            onChange={(e) => setRampSeconds(Math.min(60, Math.max(0, Number(e.target.value) || 0)))}
            onKeyDown={(e) => e.stopPropagation()}
          />
        </label>
        <button className="button button-main" disabled={reason !== null}>
          {amount.trim().startsWith("-") || amount.trim().startsWith("−") ? "Dip" : "Lift"}
        </button>
      </form>
      <p className="mt-1 text-[11px] text-faint">
        {reason ??
          `Works on ${clips.length === 1 ? "one clip" : `${clips.length} clips`}. Or drag inside the range; D repeats.`}
      </p>
    </section>
  );
}

function targetsOnTrack(
  state: ReturnType<ReturnType<typeof useMixStore>["getState"]>,
  track: string,
): string[] {
  const any = Object.values(state.clips).find(
    (c) => c.track === track && state.range && c.at < state.range.to && c.at + c.length > state.range.from,
  );
  return any && state.range ? clipsInRange(state, state.range, any) : [];
}

/** For the selection only, which is not part of the mix; times in edits are read by the server. */
function parseShownTime(text: string, state: { rate: number; frameRate: string }): number | null {
  const timecode = /^(\d+):(\d\d):(\d\d)[:;](\d\d)$/.exec(text.trim());
  const clock = /^(?:(?:(\d+):)?(\d+):)?(\d+(?:[.,]\d*)?)$/.exec(text.trim());
  if (timecode) {
    const [h, m, s, f] = timecode.slice(1).map(Number) as [number, number, number, number];
    return Math.round((h * 3600 + m * 60 + s + f / (parseFloat(state.frameRate) || 25)) * state.rate);
  }
  return clock
    ? Math.round(
        (Number(clock[1] ?? 0) * 3600 + Number(clock[2] ?? 0) * 60 + Number(clock[3]?.replace(",", "."))) *
          state.rate,
      )
    : null;
}
