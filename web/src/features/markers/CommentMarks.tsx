import { MessageSquareText } from "lucide-react";
import { usePlayer } from "@/player";
import { formatTimecode } from "@/preview/timecode";
import { useMix, useMixStore } from "@/store/context";
import { useComments } from "./useComments";

interface Props {
  /** Where a moment is, px. */
  x: (sample: number) => number;
  width: number;
  top: number;
}

/** Open comments along the horizon; a press goes there and shows what is said. */
export function CommentMarks({ x, width, top }: Props) {
  const store = useMixStore();
  const player = usePlayer();
  const comments = useComments();
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  return comments.map(({ id, at, text, author, doneBy, cutOut }) => {
    const left = x(at);
    if (doneBy !== null || left < -12 || left > width + 12) return null;
    return (
      <button
        key={id}
        type="button"
        className="absolute z-10 grid size-6 cursor-pointer place-content-center text-copper-text"
        style={{ left: left - 12, top }}
        aria-label={`Comment of ${author.name} at ${formatTimecode(at, rate, frameRate)}: ${text}`}
        title={`${author.name}${cutOut ? " (cut out since)" : ""}: ${text.slice(0, 300)}`}
        onPointerDown={(event) => event.stopPropagation()}
        onClick={() => {
          player.seek(at);
          store.getState().set({ comment: { id } });
        }}
      >
        <span className="grid size-[17px] place-content-center rounded-full border border-line bg-sheet shadow-sm">
          <MessageSquareText size={11} aria-hidden />
        </span>
      </button>
    );
  });
}
