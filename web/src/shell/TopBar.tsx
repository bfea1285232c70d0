import { CircleHelp, History, Moon, Redo2, Sun, Undo2 } from "lucide-react";
import { memo, type ReactNode } from "react";
import { PeopleHere, Saved } from "@/features/people";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { switchTheme, useTheme } from "@/store/theme";
import { CompareSwitch } from "@/features/versions";
import { ProgrammeMeter } from "@/features/speech";
import { Transport } from "./Transport";

export type Room = "balance" | "intake" | "desk" | "handover";

interface Props {
  room: Room;
  onRoom: (room: Room) => void;
  onClose: () => void;
  onKeys: () => void;
  /** Whether the history stands in the panel. */
  history: boolean;
  onHistory: () => void;
  /** Arrangements to choose from. */
  layout: ReactNode;
}

export const TopBar = memo(function TopBar(props: Props) {
  const { room, onRoom, onClose, onKeys, history, onHistory, layout } = props;
  const theme = useTheme();
  return (
    <header
      data-area="bar"
      className="grid grid-cols-[minmax(0,1.35fr)_auto_minmax(0,1fr)] items-center gap-3 max-[1150px]:grid-cols-[minmax(0,1fr)_auto_auto] max-[1150px]:gap-2 border-b border-line px-3"
    >
      <div className="flex min-w-0 items-center gap-2.5">
        <button
          type="button"
          className="shrink-0 cursor-pointer text-title font-semibold tracking-tight"
          onClick={onClose}
          title="To the projects"
          aria-label="Wattage: to the projects"
        >
          W<span className="text-copper">a</span>
          <span className="max-[1400px]:hidden">ttage</span>
        </button>
        <nav className="flex shrink-0 rounded-lg border border-line p-[2px]" aria-label="Views">
          {(["intake", "balance", "desk", "handover"] as const).map((name) => (
            <button
              key={name}
              type="button"
              className="min-h-6 cursor-pointer rounded-md px-1.5 font-semibold text-faint max-[1150px]:px-1 aria-[current=page]:bg-sunk aria-[current=page]:text-ink"
              aria-current={room === name ? "page" : undefined}
              onClick={() => onRoom(name)}
            >
              {name.charAt(0).toUpperCase() + name.slice(1)}
            </button>
          ))}
        </nav>
        <ProjectName />
        <Steps />
        <button
          type="button"
          className="button button-quiet p-1 aria-pressed:text-copper-text"
          aria-label="History and versions"
          title="History and versions"
          aria-pressed={history}
          onClick={onHistory}
        >
          <History size={16} />
        </button>
        <PeopleHere />
      </div>
      <Transport />
      <div className="flex items-center justify-end gap-2">
        <CompareSwitch />
        <ProgrammeMeter />
        {layout}
        <button
          type="button"
          className="button button-quiet p-1.5 max-[1150px]:hidden"
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
      </div>
    </header>
  );
});

function ProjectName() {
  const name = useMix((s) => s.project.name);
  return (
    <div className="min-w-0 leading-tight max-[1010px]:hidden">
      <div className="truncate font-semibold" title={name}>
        {name}
      </div>
      <Saved />
    </div>
  );
}

function Steps() {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const canUndo = useMix((s) => s.canUndo) && canEdit;
  const canRedo = useMix((s) => s.canRedo) && canEdit;
  const label = useMix((s) => s.label);
  const by = useMix((s) => (s.author.id === s.me.id ? "" : ` by ${s.author.name}`));
  return (
    <div className="flex shrink-0">
      <button
        type="button"
        className="button button-quiet p-1"
        aria-label="Undo"
        title={canUndo ? `Undo “${label}”${by} (Ctrl+Z)` : "Nothing to undo"}
        aria-disabled={!canUndo}
        onClick={() => canUndo && void store.getState().undo()}
      >
        <Undo2 size={16} />
      </button>
      <button
        type="button"
        className="button button-quiet p-1"
        aria-label="Redo"
        title={canRedo ? "Redo (Ctrl+Shift+Z)" : "Nothing to redo"}
        aria-disabled={!canRedo}
        onClick={() => canRedo && void store.getState().redo()}
      >
        <Redo2 size={16} />
      </button>
    </div>
  );
}
