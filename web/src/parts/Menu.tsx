import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";

const ITEM =
  "flex cursor-pointer items-center justify-between gap-6 rounded px-2 py-1 outline-none data-[highlighted]:bg-sunk data-[disabled]:cursor-default data-[disabled]:text-faint";

/** A menu in the house's dress. */
export function Menu({
  trigger,
  leads = false,
  children,
}: {
  trigger: ReactNode;
  /** Whether what is chosen leads elsewhere, so that the focus does not come back to the trigger. */
  leads?: boolean;
  children: ReactNode;
}) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>{trigger}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          className="menu z-50 min-w-56 overflow-y-auto rounded-lg border border-line bg-sheet p-1 shadow-xl"
          sideOffset={4}
          align="end"
          collisionPadding={8}
          onCloseAutoFocus={(event) => leads && event.preventDefault()}
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** The same at a point of the page: for what lies under the pointer, or is at hand. */
export function PointMenu({
  at,
  label,
  onClose,
  children,
}: {
  at: { x: number; y: number } | null;
  label: string;
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <DropdownMenu.Root open={at !== null} onOpenChange={(open) => !open && onClose()} modal={false}>
      <DropdownMenu.Trigger
        aria-hidden
        tabIndex={-1}
        className="pointer-events-none fixed size-0"
        style={{ left: at?.x ?? 0, top: at?.y ?? 0 }}
      />
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          aria-label={label}
          className="menu z-50 min-w-56 overflow-y-auto rounded-lg border border-line bg-sheet p-1 shadow-xl"
          align="start"
          collisionPadding={8}
          onCloseAutoFocus={(event) => event.preventDefault()}
          onContextMenu={(event) => event.preventDefault()}
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

interface ItemProps {
  children: ReactNode;
  keys?: string;
  /** Why it cannot be done now, said in place. */
  reason?: string | undefined;
  trouble?: boolean;
  onSelect: () => void;
}

export function MenuItem({ children, keys, reason, trouble = false, onSelect }: ItemProps) {
  return (
    <DropdownMenu.Item
      className={`${ITEM} ${trouble ? "text-trouble" : ""}`}
      disabled={reason !== undefined}
      onSelect={onSelect}
    >
      <span>
        {children}
        {reason && <span className="block text-note">{reason}</span>}
      </span>
      {keys && <span className="figure text-note text-faint">{keys}</span>}
    </DropdownMenu.Item>
  );
}

export function MenuLine() {
  return <DropdownMenu.Separator className="my-1 h-px bg-line" />;
}

export function MenuTitle({ children }: { children: ReactNode }) {
  return <DropdownMenu.Label className="caps px-2 py-1">{children}</DropdownMenu.Label>;
}
