import { ArrowDown, ArrowUp } from "lucide-react";
import { useState } from "react";
import type { Clip, Keyframe, Ramp, RampKind, Side } from "@/api/types";
import { decibelsOf } from "@/lib/format";
import { countOf, curveOf, isChosen, one, toggled } from "@/store/chosen";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { LevelField } from "@/parts/LevelField";
import { TimeField } from "./TimeField";
import { TypedField } from "@/parts/TypedField";

const RAMPS: RampKind[] = ["line", "smooth", "hold"];
type Sorting = { by: "time" | "level"; down: boolean };

/** Time and level of every keyframe side by side: sorted as wanted, several at once. */
export function KeyframeTable({ clip, channel }: { clip: Clip; channel?: Side }) {
  const [sorting, setSorting] = useState<Sorting>({ by: "time", down: false });
  const keyframes = sorted(curveOf(clip, channel), sorting);
  const sort = (by: Sorting["by"]) => setSorting((s) => ({ by, down: s.by === by ? !s.down : false }));
  const head = (by: Sorting["by"], name: string) => (
    <th
      className="font-normal"
      aria-sort={sorting.by !== by ? "none" : sorting.down ? "descending" : "ascending"}
    >
      <button type="button" className="flex cursor-pointer items-center gap-0.5" onClick={() => sort(by)}>
        {name}
        {sorting.by === by && (sorting.down ? <ArrowDown size={11} /> : <ArrowUp size={11} />)}
      </button>
    </th>
  );
  return (
    <>
      <ChosenBar />
      <table className="w-full">
        <thead>
          <tr className="text-left text-[11px] text-faint">
            <th>
              <span className="sr-only">Chosen</span>
            </th>
            {head("time", "Time")}
            {head("level", "Level dB")}
            <th className="font-normal">Ramp</th>
          </tr>
        </thead>
        <tbody>
          {keyframes.map((keyframe) => (
            <KeyframeRow
              key={keyframe.at}
              clip={clip}
              keyframe={keyframe}
              {...(channel ? { channel } : {})}
            />
          ))}
        </tbody>
      </table>
    </>
  );
}

function sorted(keyframes: Keyframe[], { by, down }: Sorting): Keyframe[] {
  const value = (k: Keyframe) => (by === "time" ? k.at : Math.max(-200, decibelsOf(k.level)));
  return [...keyframes].sort((a, b) => (down ? value(b) - value(a) : value(a) - value(b)));
}

function KeyframeRow({ clip, keyframe, channel }: { clip: Clip; keyframe: Keyframe; channel?: Side }) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const chosen = useMix((s) => isChosen(s.chosen, clip.id, keyframe.at, channel));
  const edit = store.getState().edit;
  const position = keyframe.at - clip.in + clip.at;
  const heard = keyframe.at >= clip.in && keyframe.at <= clip.in + clip.length;
  const id = { clip: clip.id, keyframe: keyframe.at, ...(channel ? { channel } : {}) };
  const ramp = typeof keyframe.ramp === "string" ? keyframe.ramp : keyframe.ramp.kind;
  return (
    <tr className={chosen ? "bg-glow" : ""}>
      <td className="w-5">
        <input
          type="checkbox"
          aria-label="Choose this keyframe"
          checked={chosen}
          onChange={() =>
            store.getState().set({ chosen: toggled(store.getState().chosen, clip.id, keyframe.at, channel) })
          }
        />
      </td>
      <td className="w-[92px] py-0.5 pr-1">
        {heard ? (
          <TimeField
            label="Keyframe time"
            sample={position}
            disabled={!canEdit}
            onCommit={(at) => edit({ edit: "set-keyframe", ...id, at })}
          />
        ) : (
          <span className="text-[11px] text-faint" title="In the part of the source that is trimmed away">
            trimmed away
          </span>
        )}
      </td>
      <td className="w-[56px] pr-1">
        <LevelField
          label="Keyframe level"
          level={keyframe.level}
          disabled={!canEdit}
          onCommit={(level) => edit({ edit: "set-keyframe", ...id, level })}
        />
      </td>
      <td>
        <RampSelect
          label="Ramp to the next keyframe"
          value={ramp}
          disabled={!canEdit}
          onChange={(kind) => void edit({ edit: "set-keyframe", ...id, ramp: kind })}
        />
      </td>
    </tr>
  );
}

interface RampSelectProps {
  label: string;
  value: RampKind | "";
  disabled: boolean;
  onChange: (kind: RampKind) => void;
}

function RampSelect({ label, value, disabled, onChange }: RampSelectProps) {
  return (
    <select
      className="field w-full px-0.5 py-0.5 text-[12px]"
      aria-label={label}
      disabled={disabled}
      value={value}
      onChange={(event) => onChange(event.target.value as RampKind)}
    >
      {value === "" && <option value="">ramps…</option>}
      {RAMPS.map((kind) => (
        <option key={kind}>{kind}</option>
      ))}
      {value === "gain" && <option>gain</option>}
    </select>
  );
}

/** What is done to all chosen keyframes at once, in however many clips they are. */
function ChosenBar() {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const chosen = useMix((s) => s.chosen);
  const shape = useMix((s) => shapeOf(chosen.flatMap((c) => keyframesOf(s.clips[c.clip], c)))) ?? "";
  const count = countOf(chosen);
  if (!canEdit || count === 0) return null;
  const edit = store.getState().edit;
  const [out, into] = shape.split(" ").map(Number);
  const ease = (ramp: Ramp) => edit({ edit: "set-keyframes", chosen, ramp });
  const part = (text: string) => Number(text.replace("%", "").replace(",", ".")) / 100;
  return (
    <div
      className="mb-2 grid gap-1.5 rounded-md border border-line bg-sheet p-2"
      aria-label="Chosen keyframes"
    >
      <div className="flex items-center justify-between text-[11px] text-faint">
        <span role="status">
          {count} chosen{chosen.length > 1 ? ` in ${chosen.length} wires` : ""}
        </span>
        <button
          type="button"
          className="cursor-pointer text-trouble"
          onClick={() => void edit({ edit: "remove-keyframes", chosen })}
        >
          Remove
        </button>
      </div>
      <div className="grid grid-cols-3 gap-1.5">
        <TypedField
          label="Level of all chosen keyframes"
          shown="level"
          onCommit={(level) => edit({ edit: "set-keyframes", chosen, level })}
        />
        <TypedField
          label="Change all chosen keyframes by dB"
          shown="± dB"
          onCommit={(text) =>
            edit({ edit: "move-keyframes", chosen, later: 0, by: Number(text.replace(",", ".")) })
          }
        />
        <RampSelect
          label="Ramps of all chosen keyframes"
          value=""
          disabled={false}
          onChange={(kind) => void ease(kind)}
        />
      </div>
      <div className="grid grid-cols-2 gap-1.5">
        <button
          type="button"
          className="button px-1 py-0.5 text-[12px]"
          title="Take the level of the keyframe before (P)"
          onClick={() => void edit({ edit: "copy-neighbour", chosen, from: "previous" })}
        >
          As previous
        </button>
        <button
          type="button"
          className="button px-1 py-0.5 text-[12px]"
          title="Take the level of the keyframe after (Shift+P)"
          onClick={() => void edit({ edit: "copy-neighbour", chosen, from: "next" })}
        >
          As next
        </button>
      </div>
      {out !== undefined && into !== undefined && shape !== "" && (
        <div className="grid grid-cols-[auto_1fr_auto_1fr] items-center gap-1.5 text-[11px] text-faint">
          leaves
          <TypedField
            label="Ease-out, per cent of the ramp"
            shown={`${Math.round(out * 100)} %`}
            onCommit={(text) =>
              ease({ kind: "smooth", easeOut: part(text), easeIn: Math.min(into, 1 - part(text)) })
            }
          />
          arrives
          <TypedField
            label="Ease-in, per cent of the ramp"
            shown={`${Math.round(into * 100)} %`}
            onCommit={(text) =>
              ease({ kind: "smooth", easeIn: part(text), easeOut: Math.min(out, 1 - part(text)) })
            }
          />
        </div>
      )}
    </div>
  );
}

function keyframesOf(clip: Clip | undefined, { keyframes, channel }: ReturnType<typeof one>): Keyframe[] {
  const taken = new Set(keyframes);
  return clip ? curveOf(clip, channel).filter((k) => taken.has(k.at)) : [];
}

/** Ease-out and ease-in of the smooth ramps among them, as text so that it compares; null when there is none. */
function shapeOf(keyframes: Keyframe[]): string | null {
  for (const { ramp } of keyframes) {
    if (ramp === "smooth") return "0.5 0.5";
    if (typeof ramp !== "string" && ramp.kind === "smooth")
      return `${ramp.easeOut ?? 0.5} ${ramp.easeIn ?? 0.5}`;
  }
  return null;
}
