import type { Level } from "@/api/types";
import { formatDb } from "@/lib/format";
import { TypedField } from "@/parts/TypedField";

interface Props {
  label: string;
  level: Level;
  disabled?: boolean;
  className?: string;
  digits?: number;
  onCommit: (text: string) => Promise<boolean>;
}

/** A level that can be typed: dB, a percentage, or -inf. Up and down nudge by 1 dB, with Shift by 0.1. */
export function LevelField({ level, digits = 1, ...field }: Props) {
  return (
    <TypedField
      {...field}
      shown={formatDb(level, digits)}
      stepped={(direction, fine) =>
        level === "silence" ? null : String(Math.round((level + direction * (fine ? 0.1 : 1)) * 100) / 100)
      }
    />
  );
}
