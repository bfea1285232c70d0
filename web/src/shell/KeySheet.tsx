import { RotateCcw, X } from "lucide-react";
import { Dialog } from "radix-ui";
import { useRef, useState } from "react";
import { type Command, COMMANDS } from "@/commands";
import { combinationOf, isChanged, keysOf, resetKeys, setKey, spoken, useKeymap } from "@/commands/keymap";

const MOUSE: [string, string][] = [
  ["digits, over a wire, keyframe, fade or range", "type the level, length or amount"],
  ["Shift while dragging", "keeps to one axis"],
  ["Ctrl while dragging a level", "a tenth of the way"],
  ["Ctrl while dragging a clip or its end", "later clips go along"],
  ["Ctrl-drag from an empty place", "lassoes keyframes"],
  ["Shift-click", "selects several clips or keyframes"],
  ["Alt while dragging", "holds off snapping"],
  ["Ctrl and wheel", "zooms at the pointer"],
];

interface Props {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  onGuide: () => void;
}

/** All keys, each of which can be given anew: click it, then press another. */
export function KeySheet({ open, onOpenChange, onGuide }: Props) {
  const changed = useKeymap();
  const [asked, setAsked] = useState<Command | null>(null);
  const [problem, setProblem] = useState("");
  const sheet = useRef<HTMLDivElement>(null);
  const say = (taken: Command | null) =>
    setProblem(taken ? `That key belongs to “${taken.title}”. Give that command another one first.` : "");
  const listen = (event: React.KeyboardEvent) => {
    if (!asked) return;
    event.preventDefault();
    event.stopPropagation();
    if (event.key === "Escape") {
      setAsked(null);
      return;
    }
    const combination = combinationOf(event.nativeEvent);
    if (!combination) return;
    say(setKey(asked, combination));
    setAsked(null);
  };
  return (
    <Dialog.Root
      open={open}
      onOpenChange={(next) => {
        setAsked(null);
        setProblem("");
        onOpenChange(next);
      }}
    >
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/35" />
        <Dialog.Content
          className="fixed top-[4vh] left-1/2 z-50 flex max-h-[92vh] w-[980px] max-w-[96vw] -translate-x-1/2 flex-col rounded-xl border border-line bg-paper p-5 shadow-2xl outline-none"
          aria-describedby={undefined}
          ref={sheet}
          tabIndex={-1}
          onOpenAutoFocus={(event) => {
            // The sheet itself, so that a key pressed by habit presses none of its buttons.
            event.preventDefault();
            sheet.current?.focus();
          }}
          onKeyDownCapture={listen}
        >
          <div className="mb-2 flex items-center gap-3">
            <Dialog.Title className="text-title font-semibold">Keys</Dialog.Title>
            <p className="flex-1 text-faint" role="status">
              {problem ? (
                <span className="text-trouble">{problem}</span>
              ) : asked ? (
                `Press the new key for “${asked.title}”, or Escape.`
              ) : (
                "Click a key to give its command another one."
              )}
            </p>
            <ResetAll changed={Object.keys(changed).length > 0} onReset={() => say(resetKeys(null))} />
            <button type="button" className="button" onClick={onGuide}>
              First steps
            </button>
            <Dialog.Close className="button button-quiet p-1" aria-label="Close">
              <X size={17} />
            </Dialog.Close>
          </div>
          <div className="min-h-0 columns-3 gap-6 overflow-y-auto text-aside">
            {COMMANDS.map((group) => (
              <section key={group.title} className="mb-3">
                <h2 className="caps mb-1">{group.title}</h2>
                <ul>
                  {group.commands.map((command) => (
                    <KeyRow
                      key={command.id}
                      command={command}
                      asked={asked?.id === command.id}
                      onAsk={() => {
                        setProblem("");
                        setAsked(command);
                      }}
                      onReset={() => say(resetKeys(command))}
                    />
                  ))}
                </ul>
              </section>
            ))}
            <MouseKeys />
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** Asks once more before every key is as it came. */
function ResetAll({ changed, onReset }: { changed: boolean; onReset: () => void }) {
  const [resetting, setResetting] = useState(false);
  return resetting ? (
    <button
      type="button"
      className="button button-main"
      onClick={() => {
        onReset();
        setResetting(false);
      }}
    >
      Yes, all keys as they came
    </button>
  ) : (
    <button
      type="button"
      className="button"
      aria-disabled={!changed}
      title={changed ? undefined : "No key has been changed"}
      onClick={() => setResetting(changed)}
    >
      All as they came
    </button>
  );
}

function MouseKeys() {
  return (
    <section className="break-inside-avoid">
      <h2 className="caps mb-1">With the mouse</h2>
      <dl>
        {MOUSE.map(([how, what]) => (
          <div key={how} className="flex gap-2 py-[1px]">
            <dt className="flex-1">{what}</dt>
            <dd className="w-[140px] text-right text-faint">{how}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}

interface RowProps {
  command: Command;
  asked: boolean;
  onAsk: () => void;
  onReset: () => void;
}

function KeyRow({ command, asked, onAsk, onReset }: RowProps) {
  return (
    <li className="flex min-h-[25px] break-inside-avoid items-center gap-2 py-px">
      <span className="flex-1 py-[2px] leading-[1.15]">{command.title}</span>
      {isChanged(command) && (
        <button
          type="button"
          className="size-6 cursor-pointer text-faint"
          aria-label={`Key of “${command.title}” as it came`}
          onClick={onReset}
        >
          <RotateCcw size={12} />
        </button>
      )}
      <button
        type="button"
        className={`figure h-6 min-w-8 cursor-pointer rounded border px-1.5 text-note font-semibold ${asked ? "border-copper bg-glow" : "border-line bg-sheet"}`}
        aria-label={`Change the key of “${command.title}”, now ${keysOf(command).map(spoken).join(" or ")}`}
        onClick={onAsk}
      >
        {asked ? "…" : keysOf(command).map(spoken).join(", ")}
      </button>
    </li>
  );
}
