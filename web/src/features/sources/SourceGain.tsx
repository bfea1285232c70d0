import { useState } from "react";
import type { Level, Side, Source } from "@/api/schema";
import { decibelsOf } from "@/lib/format";
import { useCanEdit, useMixStore } from "@/store/context";
import { LevelSlider } from "@/parts/LevelSlider";
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
      {channel && <span className="figure w-3 text-note text-faint">{channel === "left" ? "L" : "R"}</span>}
      <LevelSlider
        className="flex-1"
        label={`Slider for the ${name}`}
        ink="copper"
        min={MIN}
        max={24}
        disabled={!canEdit}
        value={dragged ?? Math.max(MIN, decibelsOf(gain))}
        onMove={(value, held) => {
          setDragged(value);
          if (!held)
            void set(value <= MIN ? "silence" : value).then(() =>
              setDragged((now) => (now === value ? null : now)),
            );
        }}
      />
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
