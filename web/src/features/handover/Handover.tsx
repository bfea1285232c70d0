import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Download, X } from "lucide-react";
import { Dialog, RadioGroup } from "radix-ui";
import { useState } from "react";
import { api } from "@/api/client";
import type { Delivery } from "@/api/types";
import { formatBytes } from "@/lib/format";
import { useCanEdit, useMix } from "@/store/context";

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
  const render = useMutation({ mutationFn: () => api.render(project.id, format), ...refresh });
  const cancel = useMutation({ mutationFn: (id: string) => api.cancelDelivery(id), ...refresh });
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
              onClick={() => render.mutate()}
            >
              Render
            </button>
            <span className="text-faint">
              {render.error?.message ?? reason ?? "Runs behind; you can go on working."}
            </span>
          </div>
          {deliveries.length > 0 && <h2 className="caps mt-5 mb-1">Files</h2>}
          <ul>
            {deliveries.map((d) => (
              <li key={d.id} className="flex items-center gap-3 border-t border-line py-2">
                <div className="min-w-0 flex-1">
                  <div className="truncate font-semibold">{d.name}</div>
                  <div className="figure text-[11px] text-faint">
                    {FORMATS.find((f) => f.value === d.format)?.name} · {stateOf(d)}
                  </div>
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
                {(d.state === "waiting" || d.state === "running") && (
                  <button type="button" className="button" onClick={() => cancel.mutate(d.id)}>
                    Cancel
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
