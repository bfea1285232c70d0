import { Play, Square } from "lucide-react";
import { usePlayer } from "@/player";
import { useMix } from "@/store/context";

interface Props {
  after: boolean;
  onAfter: (after: boolean) => void;
  /** Timeline samples that the plan is about. */
  from: number;
  to: number;
}

/** Plays what the plan is about, as it is and as it would be, in turn without a stop. */
export function HearPlan({ after, onAfter, from, to }: Props) {
  const player = usePlayer();
  const playing = useMix((s) => s.playing);
  const toggle = () => {
    const at = player.position;
    if (playing) player.stop();
    else void player.play(at >= from && at < to ? at : from);
  };
  return (
    <div className="flex flex-wrap items-center gap-2" role="group" aria-label="Listen to the plan">
      <button type="button" className="button" onClick={toggle}>
        {playing ? <Square size={13} aria-hidden /> : <Play size={13} aria-hidden />}
        {playing ? "Stop" : "Hear it"}
      </button>
      <div
        className="flex rounded-lg border border-line p-[2px]"
        role="radiogroup"
        aria-label="What is heard"
      >
        {[false, true].map((would) => (
          <button
            key={String(would)}
            type="button"
            role="radio"
            aria-checked={after === would}
            className="min-h-6 cursor-pointer rounded-md px-2 aria-checked:bg-ink aria-checked:text-paper"
            onClick={() => onAfter(would)}
          >
            {would ? "as it would be" : "as it is"}
          </button>
        ))}
      </div>
    </div>
  );
}
