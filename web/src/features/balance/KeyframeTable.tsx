import type { Clip, Keyframe, RampKind } from "@/api/types";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { LevelField } from "./LevelField";
import { TimeField } from "./TimeField";

const RAMPS: { kind: RampKind; name: string }[] = [
  { kind: "line", name: "line" },
  { kind: "smooth", name: "smooth" },
  { kind: "hold", name: "hold" },
];

/** Time and level of every keyframe side by side. */
export function KeyframeTable({ clip }: { clip: Clip }) {
  return (
    <table className="w-full">
      <thead>
        <tr className="text-left text-[11px] text-faint">
          <th className="font-normal">Time</th>
          <th className="font-normal">Level dB</th>
          <th className="font-normal">Ramp</th>
          <th>
            <span className="sr-only">Remove</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {clip.curve.map((keyframe) => (
          <KeyframeRow key={keyframe.at} clip={clip} keyframe={keyframe} />
        ))}
      </tbody>
    </table>
  );
}

function KeyframeRow({ clip, keyframe }: { clip: Clip; keyframe: Keyframe }) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const chosen = useMix((s) => s.keyframe === keyframe.at);
  const edit = store.getState().edit;
  const position = keyframe.at - clip.in + clip.at;
  const heard = keyframe.at >= clip.in && keyframe.at <= clip.in + clip.length;
  const id = { clip: clip.id, keyframe: keyframe.at };
  const ramp = typeof keyframe.ramp === "string" ? keyframe.ramp : keyframe.ramp.kind;
  return (
    <tr
      className={chosen ? "bg-glow" : ""}
      onFocus={() => chosen || store.getState().set({ keyframe: keyframe.at })}
    >
      <td className="w-[96px] py-0.5 pr-1">
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
      <td className="w-[62px] pr-1">
        <LevelField
          label="Keyframe level"
          level={keyframe.level}
          disabled={!canEdit}
          onCommit={(level) => edit({ edit: "set-keyframe", ...id, level })}
        />
      </td>
      <td>
        <select
          className="field px-0.5 py-0.5 text-[12px]"
          aria-label="Ramp to the next keyframe"
          disabled={!canEdit}
          value={ramp}
          onChange={(event) =>
            void edit({ edit: "set-keyframe", ...id, ramp: event.target.value as RampKind })
          }
        >
          {RAMPS.map((r) => (
            <option key={r.kind} value={r.kind}>
              {r.name}
            </option>
          ))}
          {ramp === "gain" && <option value="gain">gain</option>}
        </select>
      </td>
      <td>
        {canEdit && (
          <button
            type="button"
            className="size-6 cursor-pointer text-faint hover:text-trouble"
            aria-label="Remove keyframe"
            onClick={() => void edit({ edit: "remove-keyframes", clip: clip.id, keyframes: [keyframe.at] })}
          >
            ×
          </button>
        )}
      </td>
    </tr>
  );
}
