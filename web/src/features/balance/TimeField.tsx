import { formatTimecode } from "@/lib/timecode";
import { useMix } from "@/store/context";
import { TypedField } from "@/parts/TypedField";

interface Props {
  label: string;
  sample: number;
  disabled?: boolean;
  className?: string;
  onCommit: (text: string) => Promise<boolean>;
}

/** A time that can be typed, as timecode or as minutes and seconds. */
export function TimeField({ sample, ...field }: Props) {
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  return <TypedField {...field} shown={formatTimecode(sample, rate, frameRate)} />;
}
