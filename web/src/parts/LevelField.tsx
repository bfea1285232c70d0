import type { Level } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { notALevel } from "@/preview/check";
import { TypedField } from "./TypedField";

interface Props {
  label: string;
  level: Level;
  disabled?: boolean;
  className?: string;
  digits?: number;
  /** The highest level there is, dB; and what stands there in place of the level, where it is not one. */
  most?: number;
  shown?: string;
  onCommit: (text: string) => Promise<boolean>;
}

/** A level that can be typed: dB, a percentage, or -inf. Up and down nudge by 1 dB, with Shift by 0.1. */
export function LevelField({ level, digits = 1, most = 24, shown, ...field }: Props) {
  return (
    <TypedField
      {...field}
      shown={shown ?? formatDb(level, digits)}
      check={(text) => notALevel(text, most)}
      stepped={(direction, fine) =>
        level === "silence" ? null : String(Math.round((level + direction * (fine ? 0.1 : 1)) * 100) / 100)
      }
    />
  );
}
