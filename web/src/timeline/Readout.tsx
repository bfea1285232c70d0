import type { CSSProperties } from "react";
import { formatDb } from "@/lib/format";
import { useMix } from "@/store/context";

interface Props {
  text: string;
  at: { x: number; y: number };
  width: number;
}

/** What a drag leads to, in numbers, beside the pointer. */
export function Readout({ text, at, width }: Props) {
  return (
    <div
      role="status"
      className="figure pointer-events-none absolute z-20 rounded-md bg-ink px-2 py-1 text-aside whitespace-nowrap text-paper shadow-lg"
      style={readoutPlace(at, width)}
    >
      {text}
      <PeakAfter />
    </div>
  );
}

/** Beside the pointer, the peak that the drag leads to. */
function PeakAfter() {
  const peak = useMix((s) => (s.trying ? s.triedPeak : null));
  if (peak === null) return null;
  return (
    <span
      className={peak > 0 ? "font-semibold" : "opacity-80"}
    >{` · peak ${formatDb(peak)}${peak > 0 ? " over" : ""}`}</span>
  );
}

/** Beside the pointer and above it, on the side where there is room. */
function readoutPlace({ x, y }: { x: number; y: number }, width: number): CSSProperties {
  const top = Math.max(2, y - 34);
  return x > width / 2 ? { right: width - x + 14, top } : { left: x + 14, top };
}
