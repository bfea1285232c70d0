import { useMutation } from "@tanstack/react-query";
import { Film, X } from "lucide-react";
import { Dialog } from "radix-ui";
import { useRef, useState } from "react";
import { api } from "@/api/client";
import { useCanEdit, useMix } from "@/store/context";
import { FoundCut } from "./FoundCut";

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
        title="A cut in OpenTimelineIO (.otio) or an edit decision list (.edl): its clips are laid with the sources that are here; a changed one keeps the balance"
        onClick={() => picker.current?.click()}
      >
        <Film size={15} aria-hidden /> A cut…
      </button>
      <input
        ref={picker}
        type="file"
        hidden
        aria-label="A cut, OTIO or EDL"
        accept=".otio,.json,.edl,.txt,application/json,text/plain"
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
            {look.data && (
              <FoundCut cut={look.data} onAgain={() => text && look.mutate(text)} onDone={close} />
            )}
          </Dialog.Content>
        </Dialog.Portal>
      </Dialog.Root>
    </>
  );
}
