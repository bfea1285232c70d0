import { CircleHelp, Moon, Play, Redo2, Square, Sun, Undo2 } from "lucide-react";
import { memo, useEffect, useRef } from "react";
import { Handover } from "@/features/handover";
import { useLevels, usePlayer } from "@/features/player";
import { formatTimecode } from "@/lib/timecode";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { switchTheme, useTheme } from "@/store/theme";
import { MeterBar } from "./MeterBar";

export const TopBar = memo(function TopBar({ onClose, onKeys }: { onClose: () => void; onKeys: () => void }) {
  const store = useMixStore();
  const player = usePlayer();
  const theme = useTheme();
  const canEdit = useCanEdit();
  const name = useMix((s) => s.project.name);
  const playing = useMix((s) => s.playing);
  const canUndo = useMix((s) => s.canUndo) && canEdit;
  const canRedo = useMix((s) => s.canRedo) && canEdit;
  const saving = useMix((s) => s.pending > 0);
  return (
    <header className="grid grid-cols-[1fr_auto_1fr] items-center gap-4 border-b border-line px-4">
      <div className="flex min-w-0 items-center gap-3">
        <button
          type="button"
          className="cursor-pointer text-[18px] font-semibold tracking-tight"
          onClick={onClose}
          title="To the projects"
          aria-label="Wattage: to the projects"
        >
          W<span className="text-copper">a</span>ttage
        </button>
        <span className="truncate font-semibold" title={name}>
          {name}
        </span>
        <span className="text-[11px] text-faint" role="status">
          {canEdit ? (saving ? "saving…" : "saved") : "view only"}
        </span>
        <div className="flex">
          <button
            type="button"
            className="button button-quiet p-1.5"
            aria-label="Undo"
            title={canUndo ? "Undo (Ctrl+Z)" : "Nothing to undo"}
            aria-disabled={!canUndo}
            onClick={() => canUndo && void store.getState().undo()}
          >
            <Undo2 size={17} />
          </button>
          <button
            type="button"
            className="button button-quiet p-1.5"
            aria-label="Redo"
            title={canRedo ? "Redo (Ctrl+Shift+Z)" : "Nothing to redo"}
            aria-disabled={!canRedo}
            onClick={() => canRedo && void store.getState().redo()}
          >
            <Redo2 size={17} />
          </button>
        </div>
      </div>
      <div className="flex items-center gap-4">
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
      </div>
      <div className="flex items-center justify-end gap-3">
        <ProgrammeMeter />
        <button
          type="button"
          className="button button-quiet p-1.5"
          aria-label={theme === "day" ? "Switch to night" : "Switch to day"}
          title={theme === "day" ? "Night" : "Day"}
          onClick={switchTheme}
        >
          {theme === "day" ? <Moon size={17} /> : <Sun size={17} />}
        </button>
        <button
          type="button"
          className="button button-quiet p-1.5"
          aria-label="Keys and help"
          title="Keys and help (?)"
          onClick={onKeys}
        >
          <CircleHelp size={17} />
        </button>
        <Handover />
      </div>
    </header>
  );
});

/** The large timecode, written straight into the page once a frame. */
function Clock() {
  const player = usePlayer();
  const store = useMixStore();
  const frameRate = useMix((s) => s.frameRate);
  const playing = useMix((s) => s.playing);
  const playhead = useMix((s) => s.playhead);
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
  }, [player, store, playing, playhead, frameRate]);
  return (
    <div className="figure flex items-baseline gap-2">
      <span ref={text} data-testid="clock" className="text-[25px] leading-none font-semibold" />
      <span className="text-[11px] text-faint">{frameRate.replace("df", " df")} fps</span>
    </div>
  );
}

function ProgrammeMeter() {
  const levels = useLevels();
  const [left, right] = levels?.programme ?? [-Infinity, -Infinity];
  const peak = Math.max(left, right);
  return (
    <div className="w-[190px]" role="group" aria-label="Programme peak">
      <div className="flex items-baseline justify-between text-[11px] text-faint">
        <span>Programme peak</span>
        <span className={`figure ${peak > 0 ? "text-trouble" : "text-ink"}`}>
          {peak > -60 ? `${peak > 0 ? "over " : ""}${peak.toFixed(1).replace("-", "−")} dBFS` : "—"}
        </span>
      </div>
      <div className="mt-1 grid gap-[2px]">
        <MeterBar db={left} />
        <MeterBar db={right} />
      </div>
    </div>
  );
}
