import { X } from "lucide-react";
import { Dialog } from "radix-ui";
import type { Sheet } from "./commands";
import { EvenUpForm } from "./EvenUpForm";
import { SteadyForm } from "./SteadyForm";

/** What levelling would do to the selected clips, looked at before it is done. */
export function LevelSheet({ sheet, onClose }: { sheet: Sheet | null; onClose: () => void }) {
  const open = sheet === "even-up" || sheet === "steady";
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/35" />
        <Dialog.Content
          className="fixed top-[10vh] left-1/2 z-50 grid max-h-[80vh] w-[720px] max-w-[96vw] -translate-x-1/2 grid-rows-[auto_minmax(0,1fr)] gap-3 rounded-xl border border-line bg-paper p-5 shadow-2xl"
          aria-describedby={undefined}
        >
          <div className="flex items-center gap-3">
            <Dialog.Title className="flex-1 text-[17px] font-semibold">
              {sheet === "steady" ? "Steady the speech" : "Even up clips"}
            </Dialog.Title>
            <Dialog.Close className="button button-quiet p-1" aria-label="Close">
              <X size={17} />
            </Dialog.Close>
          </div>
          {sheet === "steady" ? <SteadyForm onDone={onClose} /> : <EvenUpForm onDone={onClose} />}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
