import { useQuery } from "@tanstack/react-query";
import { X } from "lucide-react";
import { Dialog } from "radix-ui";
import { type PointerEvent, useEffect, useRef, useState } from "react";
import { api } from "@/api/client";
import type { Clip } from "@/api/schema";
import { usePlayer } from "@/player";
import { useOutlines } from "@/scene/useOutlines";
import { formatTimecode } from "@/preview/timecode";
import { useMix, useMixStore } from "@/store/context";
import { useTheme } from "@/store/theme";

const WIDTH = 900;
const HEIGHT = 190;

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
  const { data: heard } = useQuery({
    queryKey: ["heard", clip.source, shown.from, shown.to],
    queryFn: () => api.heard(clip.source, shown.from, shown.to),
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
      <Wave clip={clip} shown={shown} marks={marks} heard={heard ?? null} move={move} />
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
            className="size-6 accent-[var(--copper)]"
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
      <Dialog.Title className="flex-1 truncate text-[17px] font-semibold">{title}</Dialog.Title>
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
        className="h-6 accent-[var(--copper)]"
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

interface Span {
  from: number;
  to: number;
}

interface WaveProps {
  clip: Clip;
  shown: Span;
  marks: Span;
  heard: Span | null;
  move: (edge: "from" | "to", to: number) => void;
}

function Wave({ clip, shown, marks, heard, move }: WaveProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const theme = useTheme();
  const rate = useMix((s) => s.rate);
  const { outlines, arrived } = useOutlines();
  const held = useRef<"from" | "to" | null>(null);
  const perPx = (shown.to - shown.from) / WIDTH;
  const x = (sample: number) => (sample - shown.from) / perPx;
  useEffect(() => {
    const ctx = canvas.current?.getContext("2d");
    if (!ctx) return;
    const style = getComputedStyle(document.documentElement);
    const ink = (name: string) => style.getPropertyValue(`--${name}`);
    ctx.clearRect(0, 0, WIDTH, HEIGHT);
    const at = (sample: number) => (sample - shown.from) / perPx;
    if (heard) {
      ctx.fillStyle = ink("glow");
      ctx.fillRect(at(heard.from), 0, at(heard.to) - at(heard.from), HEIGHT);
    }
    const outline = outlines.get(clip.source, ((3 * perPx) / rate) * 1000);
    const perPoint = ((outline?.msPerPoint ?? 5) * rate) / 1000;
    for (let column = 0; outline && column < WIDTH / 3; column++) {
      const from = (shown.from + column * 3 * perPx) / perPoint;
      let peak = 0;
      for (let p = Math.floor(from); p < from + (3 * perPx) / perPoint; p++)
        peak = Math.max(peak, outline.points[p] ?? 0);
      // Taller than in the lanes: here it is the quiet that matters.
      const size = (HEIGHT - 12) * Math.min(1, peak / 32768) ** 0.42;
      const sample = shown.from + column * 3 * perPx;
      ctx.fillStyle = sample >= marks.from && sample < marks.to ? ink("speech") : ink("line");
      ctx.fillRect(column * 3, HEIGHT - size, 2, size);
    }
    ctx.fillStyle = ink("copper");
    for (const edge of [marks.from, marks.to]) ctx.fillRect(at(edge) - 1, 0, 2, HEIGHT);
  }, [clip, shown.from, shown.to, perPx, marks, heard, outlines, arrived, rate, theme]);
  const sampleAt = (event: PointerEvent<HTMLCanvasElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    return Math.round(shown.from + ((event.clientX - box.left) / box.width) * WIDTH * perPx);
  };
  return (
    <canvas
      ref={canvas}
      data-testid="close-up"
      width={WIDTH}
      height={HEIGHT}
      className="w-full cursor-ew-resize touch-none rounded-md border border-line bg-sheet"
      aria-hidden
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        const sample = sampleAt(event);
        held.current =
          Math.abs(x(sample) - x(marks.from)) < Math.abs(x(sample) - x(marks.to)) ? "from" : "to";
        move(held.current, sample);
      }}
      onPointerMove={(event) => held.current && move(held.current, sampleAt(event))}
      onPointerUp={() => (held.current = null)}
    />
  );
}
