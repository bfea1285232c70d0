import { Plus, X } from "lucide-react";
import type { Rule } from "@/api/schema";
import { formatTimecode } from "@/preview/timecode";
import { useMix } from "@/store/context";
import { withTrack } from "./duckRules";

interface Props {
  draft: Rule;
  set: (part: Partial<Rule>) => void;
}

/** Which tracks speak, and which give way. */
export function TrackChoice({ draft, set }: Props) {
  const tracks = useMix((s) => s.tracks);
  return (
    <fieldset className="grid grid-cols-[1fr_auto_auto] items-center gap-x-3 gap-y-0.5 text-aside">
      <legend className="sr-only">Tracks</legend>
      <span className="text-note text-faint">Track</span>
      <span className="text-note text-faint" title="None ticked: all speech">
        speaks
      </span>
      <span className="text-note text-faint">gives way</span>
      {tracks.map((track) => [
        <span key={track.id} className="truncate">
          {track.name}
        </span>,
        ...(["triggers", "targets"] as const).map((part) => (
          <input
            key={`${track.id} ${part}`}
            type="checkbox"
            className="size-6 justify-self-center"
            aria-label={part === "triggers" ? `${track.name} speaks` : `${track.name} gives way`}
            checked={draft[part].includes(track.id)}
            onChange={(event) => set(withTrack(draft, part, track.id, event.target.checked))}
          />
        )),
      ])}
    </fieldset>
  );
}

/** Single clips that speak, beside whole tracks or in place of them: picked by selecting them on the timeline. */
export function ClipTriggers({ draft, set }: Props) {
  const clips = useMix((s) => s.clips);
  const selected = useMix((s) => s.selected);
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  const fresh = selected.filter((id) => clips[id] && !draft.clips.includes(id));
  const [first] = fresh;
  return (
    <div className="grid gap-1 text-aside" role="group" aria-label="Clips that speak">
      {draft.clips.map((id) => {
        const clip = clips[id];
        const name = clip?.name ?? "a clip that is gone";
        return (
          <span key={id} className="flex items-center gap-2">
            <span className="min-w-0 flex-1 truncate">{name}</span>
            {clip && <span className="figure text-faint">{formatTimecode(clip.at, rate, frameRate)}</span>}
            <button
              type="button"
              className="grid size-6 cursor-pointer place-content-center text-faint"
              aria-label={`Leave ${name} out`}
              onClick={() => set({ clips: draft.clips.filter((other) => other !== id) })}
            >
              <X size={13} />
            </button>
          </span>
        );
      })}
      <button
        type="button"
        className="button justify-self-start px-2 py-0.5"
        aria-disabled={first === undefined}
        title={first === undefined ? "Select clips on the timeline first" : "They speak, and others give way"}
        onClick={() => first !== undefined && set({ clips: [...draft.clips, ...fresh] })}
      >
        <Plus size={12} aria-hidden />{" "}
        {fresh.length === 0
          ? "Clips that speak"
          : fresh.length === 1
            ? `“${clips[first ?? ""]?.name}” speaks`
            : `${fresh.length} selected clips speak`}
      </button>
    </div>
  );
}
