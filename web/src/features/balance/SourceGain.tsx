import { Slider } from "radix-ui";
import { useState } from "react";
import type { Level, Side, Source } from "@/api/types";
import { decibelsOf, formatDb } from "@/lib/format";
import { useCanEdit, useMixStore } from "@/store/context";
import { LevelField } from "@/parts/LevelField";

const MIN = -36;

/** The gain of a source, or of one of its channels: dragged or typed. */
export function SourceGain({ source, gain, channel }: { source: Source; gain: Level; channel?: Side }) {
  const edit = useMixStore().getState().edit;
  const canEdit = useCanEdit();
  const [dragged, setDragged] = useState<number | null>(null);
  const name = `gain of ${source.name}${channel ? `, ${channel}` : ""}`;
  const set = (value: number | string) =>
    edit({ edit: "set-source-gain", source: source.id, gain: value, ...(channel ? { channel } : {}) });
  return (
    <div className="flex items-center gap-2">
      {channel && <span className="figure w-3 text-[11px] text-faint">{channel === "left" ? "L" : "R"}</span>}
      <Slider.Root
        className="relative flex h-5 flex-1 touch-none items-center"
        min={MIN}
        max={24}
        step={0.1}
        disabled={!canEdit}
        value={[dragged ?? Math.max(MIN, decibelsOf(gain))]}
        onValueChange={([v]) => setDragged(v ?? null)}
        onValueCommit={([v = 0]) => void set(v <= MIN ? "silence" : v).then(() => setDragged(null))}
      >
        <Slider.Track className="relative h-[2px] flex-1 rounded bg-line">
          <span aria-hidden className="absolute -top-[3px] h-[8px] w-px bg-faint" style={{ left: "60%" }} />
        </Slider.Track>
        <Slider.Thumb
          className="block h-[14px] w-[9px] cursor-ew-resize rounded-[3px] bg-copper shadow"
          aria-label={`Slider for the ${name}`}
          aria-valuetext={`${formatDb(dragged ?? gain)} dB`}
        />
      </Slider.Root>
      <LevelField
        className="!w-[58px]"
        label={`Source ${name}`}
        level={dragged ?? gain}
        disabled={!canEdit}
        onCommit={set}
      />
    </div>
  );
}
