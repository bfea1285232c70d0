import { useMutation } from "@tanstack/react-query";
import { Film, X } from "lucide-react";
import { Dialog } from "radix-ui";
import { useRef, useState } from "react";
import { api } from "@/api/client";
import type { Cut, Edit } from "@/api/types";
import { formatSeconds } from "@/lib/format";
import { useCanEdit, useMix, useMixStore } from "@/store/context";

/** Brings in a cut that was made elsewhere: says what was found and what is missing, and lays it in one step. */
export function CutImport() {
  const project = useMix((s) => s.project.id);
  const canEdit = useCanEdit();
  const picker = useRef<HTMLInputElement>(null);
  const [text, setText] = useState<string | null>(null);
  const look = useMutation({ mutationFn: (cut: string) => api.lookAtCut(project, cut) });
  if (!canEdit) return null;
  const close = () => {
    look.reset();
    setText(null);
  };
  return (
    <>
      <button
        type="button"
        className="button"
        title="A cut in OpenTimelineIO (.otio): its clips are laid with the sources that are here"
        onClick={() => picker.current?.click()}
      >
        <Film size={15} aria-hidden /> A cut…
      </button>
      <input
        ref={picker}
        type="file"
        hidden
        aria-label="A cut in OpenTimelineIO"
        accept=".otio,.json,application/json"
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = "";
          void file?.text().then((read) => {
            setText(read);
            look.mutate(read);
          });
        }}
      />
      <Dialog.Root open={text !== null} onOpenChange={(open) => !open && close()}>
        <Dialog.Portal>
          <Dialog.Overlay className="fixed inset-0 z-40 bg-black/35" />
          <Dialog.Content
            className="fixed top-[8vh] left-1/2 z-50 max-h-[84vh] w-[620px] max-w-[94vw] -translate-x-1/2 overflow-y-auto rounded-xl border border-line bg-paper p-5 shadow-2xl"
            aria-describedby={undefined}
          >
            <div className="mb-3 flex items-center">
              <Dialog.Title className="flex-1 text-[17px] font-semibold">
                {look.data?.name ? `The cut “${look.data.name}”` : "A cut"}
              </Dialog.Title>
              <Dialog.Close className="button button-quiet p-1" aria-label="Close">
                <X size={17} />
              </Dialog.Close>
            </div>
            {look.isPending && <p className="text-faint">Reading…</p>}
            {look.error && (
              <p role="alert" className="text-trouble">
                {look.error.message}
              </p>
            )}
            {look.data && <Found cut={look.data} onAgain={() => text && look.mutate(text)} onDone={close} />}
          </Dialog.Content>
        </Dialog.Portal>
      </Dialog.Root>
    </>
  );
}

function Found({ cut, onAgain, onDone }: { cut: Cut; onAgain: () => void; onDone: () => void }) {
  const store = useMixStore();
  const lay = async () => {
    if ((await store.getState().edit(cut.edit as unknown as Edit)) !== null) onDone();
  };
  return (
    <div className="grid gap-3">
      <p>
        {cut.clips} {cut.clips === 1 ? "clip" : "clips"} on {cut.tracks}{" "}
        {cut.tracks === 1 ? "track" : "tracks"} of sound; the sources of <strong>{cut.found}</strong> are
        here.
      </p>
      {cut.missing.length > 0 && (
        <section aria-label="Missing sources">
          <h2 className="caps mb-1">Missing: bring these in, then look again</h2>
          <ul className="grid gap-0.5">
            {cut.missing.map((one) => (
              <li key={one.media} className="flex gap-3 border-t border-line py-1">
                <span className="min-w-0 flex-1 truncate font-semibold" title={one.media}>
                  {one.media}
                </span>
                <span className="figure text-faint">
                  {one.clips} {one.clips === 1 ? "clip" : "clips"}, {formatSeconds(one.seconds)}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {[...cut.short, ...cut.left].length > 0 && (
        <ul className="text-[12px] text-trouble">
          {[...cut.short, ...cut.left].map((sentence, i) => (
            <li key={i}>{sentence}</li>
          ))}
        </ul>
      )}
      <p className="text-[12px] text-faint">
        It is laid on tracks of its own, in one step that can be undone. What a track carries is read from its
        name; set it in the track’s menu where that is wrong.
      </p>
      <div className="flex gap-2">
        <button
          type="button"
          className="button button-main px-4 py-1"
          disabled={cut.edit === null}
          onClick={() => void lay()}
        >
          Lay {cut.found === cut.clips ? "it" : `the ${cut.found} that are here`}
        </button>
        <button type="button" className="button" onClick={onAgain}>
          Look again
        </button>
      </div>
    </div>
  );
}
