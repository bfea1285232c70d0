import { RadioGroup } from "radix-ui";
import { useState } from "react";
import type { Order } from "@/api/schema";
import { decibelsOf, formatDb } from "@/lib/format";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { areFiguresFresh } from "@/store/screen";
import { Places } from "./Places";
import { useHandOver } from "./useFiles";

const FORMATS: { bits: 16 | 24 | 32; name: string; use: string }[] = [
  { bits: 24, name: "WAV, 24 bit", use: "for further work; dithered" },
  { bits: 16, name: "WAV, 16 bit", use: "where it is asked for; dithered" },
  { bits: 32, name: "WAV, 32 bit float", use: "keeps what passes full scale" },
];

/** The whole programme as it sounds, without a target and without a guard: one file. */
export function OneFile({ onGo }: { onGo: () => void }) {
  const empty = useMix((s) => s.length === 0);
  const canEdit = useCanEdit();
  const [bits, setBits] = useState<16 | 24 | 32>(24);
  const { begin, isPending, problem } = useHandOver();
  const reason = empty
    ? "There is nothing to render yet. Place a clip on a track first."
    : canEdit
      ? null
      : "Your role here is viewer. Files made by others can be fetched.";
  const order: Order = { format: "wav", bits, target: { loudness: null, truePeak: null } };
  return (
    <section aria-label="One file, as it is" className="mt-5">
      <h2 className="caps mb-1">One file, as it is</h2>
      <RadioGroup.Root
        value={String(bits)}
        onValueChange={(v) => setBits(Number(v) as 16 | 24 | 32)}
        aria-label="File format"
        className="grid grid-cols-[minmax(0,1fr)] gap-1"
      >
        {FORMATS.map((f) => (
          <RadioGroup.Item
            key={f.bits}
            value={String(f.bits)}
            className="flex min-h-7 items-baseline gap-2 rounded-md border border-line bg-sheet px-2.5 py-1 text-left data-[state=checked]:border-copper"
          >
            <span aria-hidden className="figure text-copper-text">
              {bits === f.bits ? "●" : "○"}
            </span>
            <span className="w-[118px] shrink-0 font-semibold">{f.name}</span>
            <span className="truncate text-aside text-faint">{f.use}</span>
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
      <div className="mt-2 flex items-center gap-3">
        <button
          type="button"
          className="button px-4 py-1"
          disabled={reason !== null || isPending}
          onClick={() => void begin({ files: [order], pattern: "{project} r{revision}" })}
        >
          Render
        </button>
        <span className="text-aside text-faint">
          {problem ?? reason ?? "Runs behind; you can go on working."}
        </span>
      </div>
      <WillClip bits={bits} onGo={onGo} />
    </section>
  );
}

/** Says before a render what would pass full scale in it, by how much and where; and offers the way out. */
function WillClip({ bits, onGo }: { bits: 16 | 24 | 32; onGo: () => void }) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const over = useMix((s) => s.figures?.over);
  const fresh = useMix(areFiguresFresh);
  const peak = useMix((s) => s.figures?.programme.peak ?? null);
  const programme = useMix((s) => s.faders.programme);
  if (!over || over.places.length === 0 || peak === null) return null;
  const by = Math.ceil(peak * 10) / 10;
  const lowered = decibelsOf(programme) - by;
  const flattened =
    bits === 32 ? "A float file keeps it; the next program may not." : "This file would be flattened there.";
  return (
    <div role="alert" className="mt-3 rounded-lg border border-trouble bg-trouble-sheet p-3 text-trouble">
      <p>
        <strong>
          {over.exact ? "It passes" : "It may pass"} full scale by {over.exact ? "" : "up to "}
          {formatDb(peak).replace("+", "")} dB
        </strong>
        , in {over.places.length === 1 ? "one place" : `${over.places.length} places`}. {flattened}
      </p>
      <Places places={over.places.map(([at = 0, , db = 0]) => ({ at, db }))} onGo={onGo} />
      {canEdit && (
        <button
          type="button"
          className="button mt-2 text-ink"
          disabled={!fresh}
          onClick={() =>
            void store.getState().edit({ edit: "set-programme-fader", fader: lowered.toFixed(2) })
          }
        >
          Lower the programme by {by.toFixed(1)} dB
        </button>
      )}
    </div>
  );
}
