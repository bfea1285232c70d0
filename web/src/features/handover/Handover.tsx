import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Download, X } from "lucide-react";
import { Dialog, RadioGroup } from "radix-ui";
import { useState } from "react";
import { api } from "@/api/client";
import { askedAgain } from "@/api/problem";
import type { Delivery } from "@/api/types";
import { usePlayer } from "@/features/player";
import { newId } from "@/lib/ids";
import { decibelsOf, formatBytes, formatDb } from "@/lib/format";
import { formatTimecode } from "@/lib/timecode";
import { useCanEdit, useMix, useMixStore } from "@/store/context";

const FORMATS: { value: Delivery["format"]; name: string; use: string }[] = [
  { value: "pcm24", name: "WAV, 24 bit", use: "For further work and most handovers. Dithered." },
  { value: "pcm16", name: "WAV, 16 bit", use: "For players and uploads that ask for it. Dithered." },
  { value: "float32", name: "WAV, 32 bit float", use: "Peaks above full scale survive; for another editor." },
];

/** Renders the programme to a file behind the scenes, and offers the files made so far. */
export function Handover() {
  const project = useMix((s) => s.project);
  const empty = useMix((s) => s.length === 0);
  const canEdit = useCanEdit();
  const client = useQueryClient();
  const [open, setOpen] = useState(false);
  const [format, setFormat] = useState<Delivery["format"]>("pcm24");
  const key = ["deliveries", project.id];
  const { data: deliveries = [] } = useQuery({
    queryKey: key,
    queryFn: () => api.deliveries(project.id),
    enabled: open,
    refetchInterval: (query) =>
      query.state.data?.some((d) => d.state === "waiting" || d.state === "running") ? 500 : false,
  });
  const refresh = { onSettled: () => client.invalidateQueries({ queryKey: key }) };
  const store = useMixStore();
  const render = useMutation({
    mutationFn: ({ revision, key }: { revision: number; key: string }) =>
      api.render(project.id, format, revision, key),
    ...askedAgain,
    ...refresh,
  });
  const remove = useMutation({ mutationFn: (id: string) => api.removeDelivery(id), ...refresh });
  const start = async () => {
    // What is still on its way is meant, too.
    await store.getState().settled();
    render.mutate({ revision: store.getState().revision, key: newId("render") });
  };
  const reason = empty
    ? "There is nothing to render yet. Place a clip on a track first."
    : canEdit
      ? null
      : "Your role here is viewer. Files made by others can be fetched below.";

  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="button button-main px-4 py-2">Handover</Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/35" />
        <Dialog.Content
          className="fixed top-[8vh] left-1/2 z-50 max-h-[84vh] w-[560px] max-w-[94vw] -translate-x-1/2 overflow-y-auto rounded-xl border border-line bg-paper p-5 shadow-2xl"
          aria-describedby={undefined}
        >
          <div className="mb-3 flex items-center">
            <Dialog.Title className="flex-1 text-[17px] font-semibold">Hand over {project.name}</Dialog.Title>
            <Dialog.Close className="button button-quiet p-1" aria-label="Close">
              <X size={17} />
            </Dialog.Close>
          </div>
          <RadioGroup.Root
            value={format}
            onValueChange={(v) => setFormat(v as Delivery["format"])}
            aria-label="File format"
            className="grid gap-2"
          >
            {FORMATS.map((f) => (
              <RadioGroup.Item
                key={f.value}
                value={f.value}
                className="flex items-baseline gap-3 rounded-lg border border-line bg-sheet px-3 py-2 text-left data-[state=checked]:border-copper"
              >
                <span aria-hidden className="figure text-copper-text">
                  {format === f.value ? "●" : "○"}
                </span>
                <span className="w-32 font-semibold">{f.name}</span>
                <span className="text-faint">{f.use}</span>
              </RadioGroup.Item>
            ))}
          </RadioGroup.Root>
          <div className="mt-4 flex items-center gap-3">
            <button
              type="button"
              className="button button-main px-4 py-1.5"
              disabled={reason !== null || render.isPending}
              onClick={() => void start()}
            >
              Render
            </button>
            <span className="text-faint">
              {render.error?.message ?? reason ?? "Runs behind; you can go on working."}
            </span>
          </div>
          {open && <WillClip format={format} onGo={() => setOpen(false)} />}
          {deliveries.length > 0 && <h2 className="caps mt-5 mb-1">Files</h2>}
          <ul>
            {deliveries.map((d) => (
              <li key={d.id} className="flex items-center gap-3 border-t border-line py-2">
                <div className="min-w-0 flex-1">
                  <div className="truncate font-semibold">{d.name}</div>
                  <div className="figure text-[11px] text-faint">
                    {FORMATS.find((f) => f.value === d.format)?.name} · {stateOf(d)}
                  </div>
                  {d.clipping && <Clipped delivery={d} onGo={() => setOpen(false)} />}
                  {d.state === "running" && (
                    <div
                      role="progressbar"
                      aria-label={`Rendering ${d.name}`}
                      aria-valuenow={Math.round(100 * d.progress)}
                      className="mt-1 h-1 rounded bg-sunk"
                    >
                      <div className="h-full rounded bg-copper" style={{ width: `${100 * d.progress}%` }} />
                    </div>
                  )}
                </div>
                {d.state === "done" && (
                  <a className="button" href={`/api/deliveries/${d.id}/file`} download={d.name}>
                    <Download size={14} aria-hidden /> Fetch
                  </a>
                )}
                {canEdit && (
                  <button
                    type="button"
                    className="button"
                    aria-label={`${isOver(d) ? "Remove" : "Cancel"} ${d.name}`}
                    onClick={() => remove.mutate(d.id)}
                  >
                    {isOver(d) ? "Remove" : "Cancel"}
                  </button>
                )}
              </li>
            ))}
          </ul>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** Says before a render what would pass full scale in it, by how much and where; and offers the way out. */
function WillClip({ format, onGo }: { format: Delivery["format"]; onGo: () => void }) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const over = useMix((s) => s.figures?.over);
  const peak = useMix((s) => s.figures?.programme.peak ?? null);
  const programme = useMix((s) => s.faders.programme);
  if (!over || over.places.length === 0 || peak === null) return null;
  const by = Math.ceil(peak * 10) / 10;
  const lowered = decibelsOf(programme) - by;
  const flattened =
    format === "float32"
      ? "A float file keeps it; the next program may not."
      : "This file would be flattened there.";
  return (
    <div role="alert" className="mt-3 rounded-lg border border-trouble bg-trouble-sheet p-3 text-trouble">
      <p>
        <strong>
          {over.exact ? "It passes" : "It may pass"} full scale by {over.exact ? "" : "up to "}
          {formatDb(peak).replace("+", "")} dB
        </strong>
        , in {over.places.length === 1 ? "one place" : `${over.places.length} places`}. {flattened}
      </p>
      <Places places={over.places} onGo={onGo} />
      {canEdit && (
        <button
          type="button"
          className="button mt-2 text-ink"
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

/** Says of a finished file what passed full scale in it. */
function Clipped({ delivery, onGo }: { delivery: Delivery; onGo: () => void }) {
  const { clipping, format } = delivery;
  if (!clipping) return null;
  if (clipping.samples === 0)
    return (
      <div className="figure text-[11px] text-faint">
        highest sample {clipping.peak === null ? "none: it is silent" : `${formatDb(clipping.peak, 2)} dBFS`}
      </div>
    );
  return (
    <div role="alert" className="text-[12px] text-trouble">
      {clipping.samples.toLocaleString("en")} samples{" "}
      {format === "float32" ? "pass full scale" : "were flattened"}, by up to{" "}
      {formatDb(clipping.peak ?? 0, 1).replace("+", "")} dB:
      <Places places={clipping.places} onGo={onGo} />
    </div>
  );
}

const SHOWN = 8;

/** Moments over full scale; a press goes there. */
function Places({ places, onGo }: { places: number[][]; onGo: () => void }) {
  const player = usePlayer();
  const rate = useMix((s) => s.rate);
  const frameRate = useMix((s) => s.frameRate);
  return (
    <p className="figure mt-1 flex flex-wrap gap-x-3 text-[11px]">
      {places.slice(0, SHOWN).map(([from = 0, , db = 0]) => (
        <button
          key={from}
          type="button"
          className="min-h-6 cursor-pointer underline"
          title="Go there"
          onClick={() => {
            player.seek(from);
            onGo();
          }}
        >
          {formatTimecode(from, rate, frameRate)} {formatDb(db)}
        </button>
      ))}
      {places.length > SHOWN && <span>and {places.length - SHOWN} more</span>}
    </p>
  );
}

function isOver(d: Delivery): boolean {
  return d.state !== "waiting" && d.state !== "running";
}

function stateOf(d: Delivery): string {
  switch (d.state) {
    case "done":
      return formatBytes(d.size ?? 0);
    case "running":
      return `${Math.round(100 * d.progress)} %${d.secondsLeft === null ? "" : ` · ${d.secondsLeft} s left`}`;
    case "waiting":
      return "waiting for its turn";
    case "cancelled":
      return "cancelled";
    case "failed":
      return d.problem ?? "failed";
  }
}
