import { Dialog } from "radix-ui";
import { Sheet } from "@/parts/Sheet";
import type { Sheet as Asked } from "@/commands";
import { EvenColourForm } from "./EvenColourForm";
import { EvenUpForm } from "./EvenUpForm";
import { SteadyForm } from "./SteadyForm";

const SHEETS = {
  "even-up": { title: "Even up clips", Form: EvenUpForm },
  "even-colour": { title: "Even up the colour", Form: EvenColourForm },
  steady: { title: "Steady the speech", Form: SteadyForm },
};

/** What levelling would do to the selected clips, looked at before it is done. */
export function LevelSheet({ sheet, onClose }: { sheet: Asked | null; onClose: () => void }) {
  const shown = sheet !== null && sheet in SHEETS ? SHEETS[sheet as keyof typeof SHEETS] : null;
  return (
    <Dialog.Root open={shown !== null} onOpenChange={(next) => !next && onClose()}>
      <Sheet title={shown?.title ?? ""} className="grid w-[720px] grid-rows-[auto_minmax(0,1fr)]">
        {shown && <shown.Form onDone={onClose} />}
      </Sheet>
    </Dialog.Root>
  );
}
