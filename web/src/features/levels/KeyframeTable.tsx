import { ArrowDown, ArrowUp } from "lucide-react";
import { useState } from "react";
import type { Chosen, Keyframe, Ramp, RampKind, WireId } from "@/api/schema";
import { decibelsOf } from "@/lib/format";
import { frameAt } from "@/preview/timecode";
import { countOf, isChosen, toggled } from "@/store/chosen";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import type { MixState } from "@/store/mixStore";
import type { Range } from "@/store/screen";
import { type Wire, wireIn } from "@/store/wires";
import { LevelField } from "@/parts/LevelField";
import { TimeField } from "@/parts/TimeField";
import { TypedField } from "@/parts/TypedField";

const RAMPS: RampKind[] = ["line", "smooth", "hold"];
type Sorting = { by: "time" | "level"; down: boolean };

/** Rows that a table shows at most; a ridden hour has thousands. */
const MOST = 200;

/** Time and level of every keyframe of a wire side by side: sorted as wanted, several at once. */
export function KeyframeTable({ of }: { of: WireId }) {
  const [sorting, setSorting] = useState<Sorting>({ by: "time", down: false });
  const clips = useMix((s) => s.clips);
  const tracks = useMix((s) => s.tracks);
  const range = useMix((s) => s.range);
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  const wire = wireIn({ clips, tracks }, of);
  if (!wire) return null;
  const listed = inRange(wire, range);
  const keyframes = sorted(listed.slice(0, MOST), sorting);
  // Where several stand within a frame, timecode would show them all alike.
  const frameOf = (k: Keyframe) => frameAt(k.at - wire.ahead, rate, frameRate);
  const inFrame = new Map<number, number>();
  for (const k of wire.curve) inFrame.set(frameOf(k), (inFrame.get(frameOf(k)) ?? 0) + 1);
  const sort = (by: Sorting["by"]) => setSorting((s) => ({ by, down: s.by === by ? !s.down : false }));
  const head = (by: Sorting["by"], name: string, width: string) => (
    <th
      className={`font-normal ${width}`}
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
      <table className="w-full table-fixed">
        <thead>
          <tr className="text-left text-note text-faint">
            <th className="w-7">
              <span className="sr-only">Chosen</span>
            </th>
            {head("time", "Time", "w-[98px]")}
            {head("level", "Level dB", "w-[62px]")}
            <th className="font-normal">Ramp</th>
          </tr>
        </thead>
        <tbody>
          {keyframes.map((keyframe) => (
            <KeyframeRow
              key={keyframe.at}
              wire={wire}
              keyframe={keyframe}
              fine={(inFrame.get(frameOf(keyframe)) ?? 0) > 1}
            />
          ))}
        </tbody>
      </table>
      {listed.length > MOST && (
        <p className="mt-1 text-note text-faint">
          The first {MOST} of {listed.length}. Select a range to see those in it.
        </p>
      )}
    </>
  );
}

/** All of them where they are few, else those under the range. */
function inRange({ curve, ahead }: Wire, range: Range | null): Keyframe[] {
  if (curve.length <= MOST || !range) return curve;
  return curve.filter((k) => k.at - ahead >= range.from && k.at - ahead <= range.to);
}

function sorted(keyframes: Keyframe[], { by, down }: Sorting): Keyframe[] {
  const value = (k: Keyframe) => (by === "time" ? k.at : Math.max(-200, decibelsOf(k.level)));
  return [...keyframes].sort((a, b) => (down ? value(b) - value(a) : value(a) - value(b)));
}

function KeyframeRow({ wire, keyframe, fine }: { wire: Wire; keyframe: Keyframe; fine: boolean }) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const chosen = useMix((s) => isChosen(s.chosen, wire.id, keyframe.at));
  const edit = store.getState().edit;
  const position = keyframe.at - wire.ahead;
  const heard = keyframe.at >= wire.from && keyframe.at <= wire.to;
  const id = { ...wire.id, keyframe: keyframe.at };
  const ramp = typeof keyframe.ramp === "string" ? keyframe.ramp : keyframe.ramp.kind;
  return (
    <tr className={chosen ? "bg-glow" : ""}>
      <td>
        <input
          type="checkbox"
          className="size-6"
          aria-label="Choose this keyframe"
          checked={chosen}
          onChange={() =>
            store.getState().set({ chosen: toggled(store.getState().chosen, wire.id, keyframe.at) })
          }
        />
      </td>
      <td className="py-0.5 pr-1">
        {heard ? (
          <TimeField
            label="Keyframe time"
            fine={fine}
            sample={position}
            disabled={!canEdit}
            onCommit={(at) => edit({ edit: "set-keyframe", ...id, at })}
          />
        ) : (
          <span className="text-note text-faint" title="In the part of the source that is trimmed away">
            trimmed away
          </span>
        )}
      </td>
      <td className="pr-1">
        <LevelField
          label="Keyframe level"
          most={wire.most}
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
      className="field w-full min-w-0 px-0.5 py-0.5 text-aside"
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
  const shape = useMix((s) => shapeOf(chosen.flatMap((c) => keyframesOf(s, c)))) ?? "";
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
      <div className="flex items-center justify-between text-note text-faint">
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
          className="button px-1 py-0.5 text-aside"
          title="Take the level of the keyframe before (P)"
          onClick={() => void edit({ edit: "copy-neighbour", chosen, from: "previous" })}
        >
          As previous
        </button>
        <button
          type="button"
          className="button px-1 py-0.5 text-aside"
          title="Take the level of the keyframe after (Shift+P)"
          onClick={() => void edit({ edit: "copy-neighbour", chosen, from: "next" })}
        >
          As next
        </button>
      </div>
      {out !== undefined && into !== undefined && shape !== "" && (
        <div className="grid grid-cols-[auto_1fr_auto_1fr] items-center gap-1.5 text-note text-faint">
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

function keyframesOf(state: MixState, chosen: Chosen): Keyframe[] {
  const taken = new Set(chosen.keyframes);
  return (wireIn(state, chosen)?.curve ?? []).filter((k) => taken.has(k.at));
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
