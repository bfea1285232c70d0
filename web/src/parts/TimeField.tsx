import { formatClock } from "@/lib/format";
import { formatTimecode } from "@/preview/timecode";
import { notATime } from "@/preview/check";
import { useMix } from "@/store/context";
import { TypedField } from "./TypedField";

interface Props {
  label: string;
  sample: number;
  disabled?: boolean;
  className?: string;
  /** Whether frames are too coarse for it: then it is shown to the millisecond. */
  fine?: boolean;
  onCommit: (text: string) => Promise<boolean>;
}

/** A time that can be typed, as timecode or as minutes and seconds. */
export function TimeField({ sample, fine = false, ...field }: Props) {
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  const shown = fine ? formatClock(sample, rate) : formatTimecode(sample, rate, frameRate);
  return <TypedField {...field} shown={shown} check={notATime} />;
}
