import { useQuery } from "@tanstack/react-query";
import { X } from "lucide-react";
import { Dialog } from "radix-ui";
import { useEffect, useRef, useState } from "react";
import { api } from "@/api/client";
import type { Clip } from "@/api/schema";
import { usePlayer } from "@/player";
import { formatTimecode } from "@/preview/timecode";
import { useMix, useMixStore } from "@/store/context";
import { CloseUpWave } from "./CloseUpWave";

/** A clip's source from close by: where it really begins and ends, marked by hand or taken as the waveform suggests. */
export function CloseUp({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  const clip = useMix((s) => (s.selected[0] === undefined ? undefined : s.clips[s.selected[0]]));
  return (
    <Dialog.Root open={open && clip !== undefined} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/35" />
        <Dialog.Content
          className="fixed top-[14vh] left-1/2 z-50 w-[950px] max-w-[96vw] -translate-x-1/2 rounded-xl border border-line bg-paper p-5 shadow-2xl"
          aria-describedby={undefined}
        >
          {clip && <Trimmer key={clip.id} clip={clip} onDone={() => onOpenChange(false)} />}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Trimmer({ clip, onDone }: { clip: Clip; onDone: () => void }) {
  const store = useMixStore();
  const player = usePlayer();
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  const whole = useMix((s) => s.sources[clip.source]?.length ?? clip.in + clip.length);
  const [marks, setMarks] = useState({ from: clip.in, to: clip.in + clip.length });
  const [close, setClose] = useState(true);
  const margin = Math.round(Math.max(rate, clip.length * 0.1));
  const shown = { from: Math.max(0, clip.in - margin), to: Math.min(whole, clip.in + clip.length + margin) };
  const isSpeech = useMix((s) => s.tracks.find((t) => t.id === clip.track)?.stem === "speech");
  const { data: heard } = useQuery({
    queryKey: ["heard", clip.source, shown.from, shown.to, isSpeech],
    queryFn: () => api.heard(clip.source, shown.from, shown.to, isSpeech),
  });
  const heardHere = useRef(false);
  // What was begun here ends here.
  useEffect(() => () => void (heardHere.current && player.stop()), [player]);
  const move = (edge: "from" | "to", to: number) =>
    setMarks((m) =>
      edge === "from"
        ? { ...m, from: Math.max(0, Math.min(to, m.to - 480)) }
        : { ...m, to: Math.min(whole, Math.max(to, m.from + 480)) },
    );
  const trim = async () => {
    const shift = clip.at - clip.in;
    const done = await store.getState().edit({
      edit: "trim-clip",
      clip: clip.id,
      from: Math.max(0, marks.from + shift),
      to: marks.to + shift,
      ripple: close,
    });
    if (done) onDone();
  };
  const seconds = (samples: number) => `${(samples / rate).toFixed(2)} s`;
  return (
    <>
      <SheetHead title={`${clip.name}, close up`} />
      <CloseUpWave source={clip.source} shown={shown} marks={marks} heard={heard ?? null} move={move} />
      <div className="mt-3 grid grid-cols-[auto_1fr_auto] items-center gap-4">
        <div className="grid grid-cols-[auto_220px_auto] items-center gap-x-3 gap-y-1">
          {(["from", "to"] as const).map((edge) => (
            <Edge
              key={edge}
              name={edge === "from" ? "Begins" : "Ends"}
              value={marks[edge]}
              min={shown.from}
              max={shown.to}
              text={formatTimecode(marks[edge], rate, frameRate)}
              onChange={(value) => move(edge, value)}
            />
          ))}
        </div>
        <p className="text-faint" role="status">
          {heard === undefined
            ? "Listening to it…"
            : heard === null
              ? "Nothing stands out of the background here."
              : `It suggests to take off ${seconds(Math.max(0, heard.from - clip.in))} before and ${seconds(Math.max(0, clip.in + clip.length - heard.to))} after.`}
        </p>
        <button
          type="button"
          className="button"
          disabled={!heard}
          onClick={() => heard && setMarks({ from: heard.from, to: heard.to })}
        >
          Take the suggestion
        </button>
      </div>
      <div className="mt-4 flex items-center gap-3">
        <label className="flex flex-1 items-center gap-2">
          <input
            className="size-6"
            type="checkbox"
            checked={close}
            onChange={(event) => setClose(event.target.checked)}
          />
          Close the gap: what comes later on the track moves up
        </label>
        <button
          type="button"
          className="button"
          onClick={() => {
            heardHere.current = true;
            void player.play(Math.max(0, marks.from + clip.at - clip.in));
          }}
        >
          Hear it
        </button>
        <button type="button" className="button button-main" onClick={() => void trim()}>
          Trim to {seconds(marks.to - marks.from)}
        </button>
      </div>
    </>
  );
}

function SheetHead({ title }: { title: string }) {
  return (
    <div className="mb-3 flex items-center gap-3">
      <Dialog.Title className="flex-1 truncate text-title font-semibold">{title}</Dialog.Title>
      <Dialog.Close className="button button-quiet p-1" aria-label="Close">
        <X size={17} />
      </Dialog.Close>
    </div>
  );
}

interface EdgeProps {
  name: string;
  value: number;
  min: number;
  max: number;
  text: string;
  onChange: (value: number) => void;
}

function Edge({ name, value, min, max, text, onChange }: EdgeProps) {
  return (
    <>
      <span className="text-faint">{name}</span>
      <input
        type="range"
        className="h-6"
        aria-label={`${name} at`}
        aria-valuetext={text}
        min={min}
        max={max}
        step={480}
        value={value}
        onChange={(event) => onChange(Number(event.target.value))}
      />
      <span className="figure">{text}</span>
    </>
  );
}
