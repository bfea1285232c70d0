import { useRef, useState } from "react";
import { createPortal } from "react-dom";

interface Props {
  label: string;
  /** What it shows while nothing is typed. */
  shown: string;
  disabled?: boolean;
  className?: string;
  /** What the field itself can tell to be wrong, as a sentence; null where nothing is. */
  check?: (text: string) => string | null;
  /** Sends what was typed, as typed; the server reads it. False when it was refused. */
  onCommit: (text: string) => Promise<boolean>;
  /** What arrow up and down lead to; nothing where they lead nowhere. */
  stepped?: (direction: 1 | -1, fine: boolean) => string | null;
}

/** A value that can be typed: Enter or leaving sends it, Escape gives up, what is refused stays to be mended. */
export function TypedField({
  label,
  shown,
  disabled = false,
  className = "",
  check,
  onCommit,
  stepped,
}: Props) {
  const [text, setText] = useState<string | null>(null);
  const [refused, setRefused] = useState(false);
  const [problem, setProblem] = useState<{ text: string; x: number; y: number } | null>(null);
  const input = useRef<HTMLInputElement>(null);
  // Leaving the field after Enter must not send the same once more.
  const sent = useRef(false);
  const commit = async (value: string) => {
    const plain = value.replace("−", "-");
    const wrong = check?.(plain) ?? null;
    const box = input.current?.getBoundingClientRect();
    setProblem(wrong === null ? null : { text: wrong, x: box?.left ?? 0, y: box?.bottom ?? 0 });
    const done = wrong === null && (await onCommit(plain));
    setRefused(!done);
    // What was typed since the answer was asked for stays.
    if (done) setText((now) => (now === text ? null : now));
    return done;
  };
  const giveUp = () => {
    setText(null);
    setRefused(false);
    setProblem(null);
  };
  return (
    <>
      <input
        ref={input}
        className={`field figure px-1.5 py-0.5 text-right text-aside ${className}`}
        aria-label={label}
        aria-invalid={refused}
        disabled={disabled}
        value={text ?? shown}
        onFocus={(event) => event.currentTarget.select()}
        onChange={(event) => {
          setText(event.target.value);
          setProblem(null);
        }}
        onBlur={() => {
          if (text !== null && !refused && !sent.current) void commit(text);
          else giveUp();
        }}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === "Enter") {
            // What was taken gives the keys back to the timeline.
            const field = event.currentTarget;
            sent.current = true;
            void commit(field.value)
              .then((done) => done && field.blur())
              .finally(() => (sent.current = false));
          }
          if (event.key === "Escape") {
            // Given up, and the keys are back with the timeline.
            const field = event.currentTarget;
            sent.current = true;
            giveUp();
            field.blur();
            sent.current = false;
          }
          if (event.key === "ArrowUp" || event.key === "ArrowDown") {
            const next = stepped?.(event.key === "ArrowUp" ? 1 : -1, event.shiftKey);
            if (next === null || next === undefined) return;
            event.preventDefault();
            void commit(next);
          }
        }}
      />
      {problem &&
        createPortal(
          <p
            role="alert"
            className="pointer-events-none fixed z-[60] max-w-72 rounded-md border border-trouble bg-trouble-sheet px-2 py-1 text-aside text-trouble shadow-lg"
            style={{
              left: Math.max(8, Math.min(problem.x, window.innerWidth - 296)),
              top: problem.y + 4,
            }}
          >
            {problem.text}
          </p>,
          document.body,
        )}
    </>
  );
}
