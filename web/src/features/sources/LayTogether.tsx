import { useMutation } from "@tanstack/react-query";
import { Layers } from "lucide-react";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { api } from "@/api/client";
import type { Source } from "@/api/schema";
import { Sheet } from "@/parts/Sheet";
import { formatClock, formatSeconds } from "@/lib/format";
import { useMix, useMixStore } from "@/store/context";

/** Lays recordings of one occasion, each whole and on a track of its own: all from one moment on, or each when it began. */
export function LayTogether({ sources }: { sources: Source[] }) {
  const [open, setOpen] = useState(false);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger
        className="button"
        disabled={sources.length === 0}
        title="Several microphones of one occasion: each whole, on a track of its own"
      >
        <Layers size={15} aria-hidden /> Together…
      </Dialog.Trigger>
      <Sheet title="Lay sources together">
        <Choice sources={sources} onDone={() => setOpen(false)} />
      </Sheet>
    </Dialog.Root>
  );
}

function Choice({ sources, onDone }: { sources: Source[]; onDone: () => void }) {
  const store = useMixStore();
  const project = useMix((s) => s.project.id);
  const rate = useMix((s) => s.rate);
  const used = new Set(Object.values(useMix((s) => s.clips)).map((clip) => clip.source));
  const [chosen, setChosen] = useState<ReadonlySet<string>>(
    () => new Set(sources.filter((s) => !used.has(s.id)).map((s) => s.id)),
  );
  const all = sources.filter((s) => chosen.has(s.id));
  const timed = all.length > 0 && all.every((s) => s.beganAt !== null);
  const [byTime, setByTime] = useState(timed);
  const lay = useMutation({
    mutationFn: async () => {
      const at = Math.round(store.getState().playhead);
      const edit = await api.layTogether(project, {
        sources: [...chosen],
        at,
        byTime: byTime && timed,
      });
      return store.getState().edit(edit);
    },
    onSuccess: (done) => {
      if (done) onDone();
    },
  });
  const toggle = (id: string) =>
    setChosen((now) => new Set(now.has(id) ? [...now].filter((one) => one !== id) : [...now, id]));
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        lay.mutate();
      }}
    >
      <fieldset>
        <legend className="caps mb-1">Sources</legend>
        <ul className="max-h-[40vh] overflow-y-auto">
          {sources.map((source) => (
            <li key={source.id} className="border-t border-line">
              <label className="flex min-h-8 items-center gap-2">
                <input type="checkbox" checked={chosen.has(source.id)} onChange={() => toggle(source.id)} />
                <span className="min-w-0 flex-1 truncate font-semibold">{source.name}</span>
                <span className="figure text-aside text-faint">
                  {formatSeconds((source.frames ?? 0) / rate)}
                  {source.beganAt === null ? "" : `, began ${formatClock(source.beganAt, rate)}`}
                  {source.marks > 0 ? `, ${source.marks} marks` : ""}
                </span>
              </label>
            </li>
          ))}
        </ul>
      </fieldset>
      <fieldset className="grid gap-1">
        <legend className="caps mb-1">Where</legend>
        <label className="flex min-h-6 items-center gap-2">
          <input type="radio" name="where" checked={!(byTime && timed)} onChange={() => setByTime(false)} />
          All from the playhead on
        </label>
        <label className={`flex min-h-6 items-center gap-2 ${timed ? "" : "text-faint"}`}>
          <input
            type="radio"
            name="where"
            checked={byTime && timed}
            disabled={!timed}
            onChange={() => setByTime(true)}
          />
          The first from the playhead on, the others when they began
          {timed ? "" : ": not all of these say when that was"}
        </label>
      </fieldset>
      <p className="text-aside text-faint">
        Each on a track of its own, with its cue points and chapters as markers, in one step that can be
        undone.
      </p>
      {lay.error && (
        <p role="alert" className="text-trouble">
          {lay.error.message}
        </p>
      )}
      <div>
        <button className="button button-main px-4 py-1" disabled={all.length === 0 || lay.isPending}>
          Lay {all.length} {all.length === 1 ? "source" : "sources"}
        </button>
      </div>
    </form>
  );
}
