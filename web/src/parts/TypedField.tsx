import { useRef, useState } from "react";

interface Props {
  label: string;
  /** What it shows while nothing is typed. */
  shown: string;
  disabled?: boolean;
  className?: string;
  /** Sends what was typed, as typed; the server reads it. False when it was refused. */
  onCommit: (text: string) => Promise<boolean>;
  /** What arrow up and down lead to; nothing where they lead nowhere. */
  stepped?: (direction: 1 | -1, fine: boolean) => string | null;
}

/** A value that can be typed: Enter or leaving sends it, Escape gives up, what is refused stays to be mended. */
export function TypedField({ label, shown, disabled = false, className = "", onCommit, stepped }: Props) {
  const [text, setText] = useState<string | null>(null);
  const [refused, setRefused] = useState(false);
  // Leaving the field after Enter must not send the same once more.
  const sent = useRef(false);
  const commit = async (value: string) => {
    const done = await onCommit(value.replace("−", "-"));
    setRefused(!done);
    if (done) setText(null);
    return done;
  };
  return (
    <input
      className={`field figure px-1.5 py-0.5 text-right text-[12px] ${className}`}
      aria-label={label}
      aria-invalid={refused}
      disabled={disabled}
      value={text ?? shown}
      onFocus={(event) => event.currentTarget.select()}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => {
        if (text !== null && !refused && !sent.current) void commit(text);
        else setText(null);
        setRefused(false);
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
          setText(null);
          setRefused(false);
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
  );
}
