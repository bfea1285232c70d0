import { Play, Repeat, Square } from "lucide-react";
import { useEffect, useRef } from "react";
import { usePlayer } from "@/player";
import { formatTimecode } from "@/preview/timecode";
import { parseShownTime } from "@/preview/parse";
import { useMix, useMixStore } from "@/store/context";
import type { Listening, Speed } from "@/store/screen";
import { LISTENINGS, SPEEDS } from "@/commands/listen";

const HEARD: Record<Listening, string> = { all: "All", speech: "Speech", rest: "Rest" };
const NAMED: Record<Speed, string> = { 0.5: "½", 1: "1", 1.5: "1½" };

/** Playing: what is heard, from where, how fast, and whether it loops. */
export function Transport() {
  const store = useMixStore();
  const player = usePlayer();
  const playing = useMix((s) => s.playing);
  const listening = useMix((s) => s.listening);
  const looping = useMix((s) => s.looping);
  const speed = useMix((s) => s.speed);
  const range = useMix((s) => s.range);
  return (
    <div className="flex items-center gap-2.5 max-[1150px]:gap-1.5">
      <select
        className="field !w-auto px-1 py-0.5 text-aside"
        aria-label="What is heard"
        title="What is heard (V)"
        value={listening}
        onChange={(event) => store.getState().set({ listening: event.target.value as Listening })}
      >
        {LISTENINGS.map((l) => (
          <option key={l} value={l}>
            {HEARD[l]}
          </option>
        ))}
      </select>
      <button
        type="button"
        className="grid size-9 cursor-pointer place-content-center rounded-full bg-ink text-paper"
        aria-label={playing ? "Stop" : "Play"}
        title={playing ? "Stop (Space)" : "Play (Space)"}
        onClick={() => player.toggle()}
      >
        {playing ? (
          <Square size={14} fill="currentColor" />
        ) : (
          <Play size={16} fill="currentColor" className="ml-0.5" />
        )}
      </button>
      <Clock />
      <button
        type="button"
        className="button button-quiet p-1.5 aria-pressed:bg-glow aria-pressed:text-copper-text"
        aria-pressed={looping}
        aria-label="Loop the range"
        aria-disabled={!range}
        title={range ? "Loop the range, with a second before it (Q)" : "Select a range to loop it"}
        onClick={() => range && store.getState().set({ looping: !looping })}
      >
        <Repeat size={16} />
      </button>
      <select
        className="field !w-auto px-1 py-0.5 text-aside max-[1100px]:hidden"
        aria-label="Speed"
        title="Speed, with the pitch kept (Y)"
        value={speed}
        onChange={(event) => store.getState().set({ speed: Number(event.target.value) as Speed })}
      >
        {SPEEDS.map((s) => (
          <option key={s} value={s}>
            {NAMED[s]}×
          </option>
        ))}
      </select>
    </div>
  );
}

function Clock() {
  const player = usePlayer();
  const store = useMixStore();
  const frameRate = useMix((s) => s.frameRate);
  const playing = useMix((s) => s.playing);
  const playhead = useMix((s) => s.playhead);
  const typing = useMix((s) => s.typingTime);
  const waiting = useMix((s) => s.waiting);
  const text = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    let frame = 0;
    const draw = () => {
      const { rate } = store.getState();
      if (text.current)
        text.current.textContent = formatTimecode(playing ? player.position : playhead, rate, frameRate);
      if (playing) frame = requestAnimationFrame(draw);
    };
    draw();
    return () => cancelAnimationFrame(frame);
  }, [player, store, playing, playhead, frameRate, typing]);
  return (
    <div className="figure text-center leading-none">
      {typing ? (
        <GoTo />
      ) : (
        <button
          type="button"
          className="mx-auto block min-h-6 cursor-text text-page font-semibold max-[1150px]:text-title"
          aria-label="Type a time to go to"
          title="Click to type a time to go to (Enter)"
          onClick={() => store.getState().set({ typingTime: true })}
        >
          <span ref={text} data-testid="clock" />
        </button>
      )}
      <span
        role="status"
        className={`text-mark ${waiting ? "font-semibold text-copper-text" : "text-faint"}`}
      >
        {waiting ? "waiting for sound" : `${frameRate.replace("df", " df")} frames a second`}
      </span>
    </div>
  );
}

/** The field that a typed time goes to. */
function GoTo() {
  const store = useMixStore();
  const player = usePlayer();
  const close = () => store.getState().set({ typingTime: false });
  const go = (text: string) => {
    const at = parseShownTime(text, store.getState());
    if (at === null) {
      const why = `“${text}” is not a time. Type 00:00:58:05, 0:58.2 or 58.`;
      store.getState().set({ notice: { kind: "error", text: why } });
      return;
    }
    store.getState().set({ notice: null });
    player.seek(Math.min(at, store.getState().length));
    close();
  };
  return (
    <input
      className="field figure mx-auto block !w-[152px] py-0 text-center text-title font-semibold max-[1150px]:!w-[11.5ch] max-[1150px]:!px-0"
      aria-label="Time to go to"
      placeholder="0:58.2"
      autoFocus
      onBlur={close}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === "Enter") go(event.currentTarget.value);
        if (event.key === "Escape") close();
      }}
    />
  );
}
