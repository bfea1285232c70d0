import { Dialog } from "radix-ui";
import { Sheet } from "@/parts/Sheet";
import type { Sheet as Asked } from "@/commands";
import { EvenUpForm } from "./EvenUpForm";
import { SteadyForm } from "./SteadyForm";

/** What levelling would do to the selected clips, looked at before it is done. */
export function LevelSheet({ sheet, onClose }: { sheet: Asked | null; onClose: () => void }) {
  const open = sheet === "even-up" || sheet === "steady";
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Sheet
        title={sheet === "steady" ? "Steady the speech" : "Even up clips"}
        className="grid w-[720px] grid-rows-[auto_minmax(0,1fr)]"
      >
        {sheet === "steady" ? <SteadyForm onDone={onClose} /> : <EvenUpForm onDone={onClose} />}
      </Sheet>
    </Dialog.Root>
  );
}
