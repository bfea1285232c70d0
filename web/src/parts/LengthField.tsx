import { useMix } from "@/store/context";
import { notALength } from "@/preview/check";
import { TypedField } from "./TypedField";

interface Props {
  label: string;
  samples: number;
  disabled?: boolean;
  className?: string;
  onCommit: (text: string) => Promise<boolean>;
}

/** A length that can be typed: seconds, "250 ms", or frames, "12f". */
export function LengthField({ samples, ...field }: Props) {
  const rate = useMix((s) => s.rate);
  return <TypedField {...field} shown={`${(samples / rate).toFixed(2)} s`} check={notALength} />;
}
