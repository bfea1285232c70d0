import type { Rule } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { TypedField } from "@/parts/TypedField";
import { CORE } from "@/preview/constants";
import { notANumber } from "@/preview/check";
import { numberIn } from "@/preview/parse";
import { useMix } from "@/store/context";
import { withTrack } from "./duckRules";

interface Props {
  draft: Rule;
  set: (part: Partial<Rule>) => void;
}

/** The tracks of a rule that listens to each of them by itself: a hush, or microphones that take turns. */
export function OwnTracks({ draft, set }: Props) {
  const tracks = useMix((s) => s.tracks);
  return (
    <fieldset className="grid gap-0.5 text-aside">
      <legend className="caps mb-1">{draft.kind === "turns" ? "Microphones in one room" : "Tracks"}</legend>
      {tracks.map((track) => (
        <label key={track.id} className="flex min-h-6 items-center gap-2">
          <input
            type="checkbox"
            className="size-6"
            checked={draft.targets.includes(track.id)}
            onChange={(event) => set(withTrack(draft, "targets", track.id, event.target.checked))}
          />
          <span className="truncate">{track.name}</span>
        </label>
      ))}
    </fieldset>
  );
}

export function ByHowMuch({ draft, set }: Props) {
  const [least, most] = CORE.duck.depth;
  return (
    <label className="flex items-center gap-2">
      <span className="flex-1">
        {draft.kind === "turns" ? "Who is silent gives way by" : "Pauses go down by"}
      </span>
      <TypedField
        className="!w-16"
        label="Depth, dB"
        shown={formatDb(draft.depth ?? -12).replace("+", "")}
        check={(text) => notANumber(text, least, most, "dB")}
        onCommit={async (text) => {
          set({ depth: numberIn(text) ?? draft.depth ?? -12 });
          return true;
        }}
      />
      dB
    </label>
  );
}
