import { X } from "lucide-react";
import { Dialog } from "radix-ui";
import type { ReactNode } from "react";

interface Props {
  title: string;
  /** Its width, as a class, where it is not the usual one; and what else it is laid out by. */
  className?: string;
  children: ReactNode;
}

/** A dialog over the page, with a title and a way out. */
export function Sheet({ title, className = "w-[620px] overflow-y-auto", children }: Props) {
  return (
    <Dialog.Portal>
      <Dialog.Overlay className="fixed inset-0 z-40 bg-black/35" />
      <Dialog.Content
        className={`fixed top-[8vh] left-1/2 z-50 max-h-[84vh] max-w-[96vw] -translate-x-1/2 rounded-xl border border-line bg-paper p-5 shadow-2xl ${className}`}
        aria-describedby={undefined}
      >
        <div className="mb-3 flex items-center">
          <Dialog.Title className="flex-1 text-title font-semibold">{title}</Dialog.Title>
          <Dialog.Close className="button button-quiet p-1" aria-label="Close">
            <X size={17} />
          </Dialog.Close>
        </div>
        {children}
      </Dialog.Content>
    </Dialog.Portal>
  );
}
