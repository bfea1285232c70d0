import { X } from "lucide-react";
import { Dialog } from "radix-ui";
import { KEY_SHEET } from "./keys";

export function KeySheet({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/35" />
        <Dialog.Content
          className="fixed top-[9vh] left-1/2 z-50 w-[760px] max-w-[94vw] -translate-x-1/2 rounded-xl border border-line bg-paper p-5 shadow-2xl"
          aria-describedby={undefined}
        >
          <div className="mb-3 flex items-center">
            <Dialog.Title className="flex-1 text-[17px] font-semibold">Keys</Dialog.Title>
            <Dialog.Close className="button button-quiet p-1" aria-label="Close">
              <X size={17} />
            </Dialog.Close>
          </div>
          <div className="columns-2 gap-8">
            {KEY_SHEET.map((group) => (
              <section key={group.title} className="mb-4 break-inside-avoid">
                <h2 className="caps mb-1">{group.title}</h2>
                <dl className="grid grid-cols-[130px_1fr] gap-y-1">
                  {group.keys.map(([key, what]) => (
                    <div key={key} className="contents">
                      <dt className="figure font-semibold">{key}</dt>
                      <dd>{what}</dd>
                    </div>
                  ))}
                </dl>
              </section>
            ))}
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
