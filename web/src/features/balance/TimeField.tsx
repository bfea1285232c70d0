import { useState } from "react";
import { formatTimecode } from "@/lib/timecode";
import { useMix } from "@/store/context";

interface Props {
  label: string;
  sample: number;
  disabled?: boolean;
  onCommit: (text: string) => Promise<boolean>;
}

/** A time that can be typed, as timecode or as minutes and seconds. */
export function TimeField({ label, sample, disabled = false, onCommit }: Props) {
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  const [text, setText] = useState<string | null>(null);
  const [refused, setRefused] = useState(false);
  const commit = async () => {
    if (text === null) return;
    const done = await onCommit(text);
    setRefused(!done);
    if (done) setText(null);
  };
  return (
    <input
      className="field figure px-1.5 py-0.5 text-[12px]"
      aria-label={label}
      aria-invalid={refused}
      disabled={disabled}
      value={text ?? formatTimecode(sample, rate, frameRate)}
      onFocus={(event) => event.currentTarget.select()}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => {
        if (refused) setText(null);
        else void commit();
        setRefused(false);
      }}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === "Enter") void commit();
        if (event.key === "Escape") setText(null);
      }}
    />
  );
}
