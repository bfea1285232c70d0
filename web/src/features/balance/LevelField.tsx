import { useState } from "react";
import type { Level } from "@/api/types";
import { formatDb } from "@/lib/format";

interface Props {
  label: string;
  level: Level;
  disabled?: boolean;
  className?: string;
  digits?: number;
  /** Sends what was typed, as typed; the server reads it. False when it was refused. */
  onCommit: (text: string) => Promise<boolean>;
}

/** A level that can be typed: dB, a percentage, or -inf. Up and down nudge by 1 dB, with Shift by 0.1. */
export function LevelField({ label, level, disabled = false, className = "", digits = 1, onCommit }: Props) {
  const [text, setText] = useState<string | null>(null);
  const [refused, setRefused] = useState(false);
  const commit = async (value: string) => {
    const done = await onCommit(value.replace("−", "-"));
    setRefused(!done);
    if (done) setText(null);
  };
  return (
    <input
      className={`field figure px-1.5 py-0.5 text-right text-[12px] ${className}`}
      aria-label={label}
      aria-invalid={refused}
      disabled={disabled}
      value={text ?? formatDb(level, digits)}
      onFocus={(event) => event.currentTarget.select()}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => {
        if (text !== null && !refused) void commit(text);
        else setText(null);
        setRefused(false);
      }}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === "Enter") void commit(event.currentTarget.value);
        if (event.key === "Escape") {
          setText(null);
          setRefused(false);
        }
        if ((event.key === "ArrowUp" || event.key === "ArrowDown") && level !== "silence") {
          event.preventDefault();
          void commit(
            String(
              Math.round((level + (event.key === "ArrowUp" ? 1 : -1) * (event.shiftKey ? 0.1 : 1)) * 100) /
                100,
            ),
          );
        }
      }}
    />
  );
}
