import { useMutation } from "@tanstack/react-query";
import { Film } from "lucide-react";
import { Dialog } from "radix-ui";
import { useRef, useState } from "react";
import { api } from "@/api/client";
import { Sheet } from "@/parts/Sheet";
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
        <Sheet title={look.data?.name ? `The cut “${look.data.name}”` : "A cut"}>
          {look.isPending && <p className="text-faint">Reading…</p>}
          {look.error && (
            <p role="alert" className="text-trouble">
              {look.error.message}
            </p>
          )}
          {look.data && <FoundCut cut={look.data} onAgain={() => text && look.mutate(text)} onDone={close} />}
        </Sheet>
      </Dialog.Root>
    </>
  );
}
