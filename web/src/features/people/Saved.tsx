import { Popover } from "radix-ui";
import { useCanEdit, useMix, useMixStore } from "@/store/context";

/** Whether all is saved; and what is not, why, and what can be done. */
export function Saved() {
  const canEdit = useCanEdit();
  const saving = useMix((s) => s.pending > 0 || s.keeping);
  const unsent = useMix((s) => s.unsent);
  const away = useMix((s) => s.away);
  if (unsent.length > 0) return <Unsent unsent={unsent} />;
  if (away !== null)
    return (
      <div className="truncate text-note text-trouble" role="status" title={away}>
        no connection
      </div>
    );
  return (
    <div className="text-note text-faint" role="status">
      {canEdit ? (saving ? "saving…" : "saved") : "view only"}
    </div>
  );
}

function Unsent({ unsent }: { unsent: string[] }) {
  const store = useMixStore();
  const trouble = useMix((s) => s.trouble);
  const away = useMix((s) => s.away);
  const count = unsent.length === 1 ? "1 edit not sent" : `${unsent.length} edits not sent`;
  return (
    <Popover.Root>
      <Popover.Trigger className="cursor-pointer truncate text-left text-note font-semibold text-trouble underline">
        <span role="status">{count}</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="z-50 w-80 rounded-xl border border-line bg-sheet p-3 shadow-2xl"
          sideOffset={6}
          align="start"
          collisionPadding={8}
        >
          <p className="mb-2 text-trouble">{away ?? trouble}</p>
          <p className="mb-1 text-aside text-faint">
            They wait here in this order, also if the page is reloaded, and are sent again by themselves:
          </p>
          <ol className="mb-3 max-h-48 list-decimal overflow-y-auto pl-6">
            {unsent.map((words, i) => (
              <li key={i}>{words}</li>
            ))}
          </ol>
          <div className="flex justify-end gap-2">
            <button type="button" className="button" onClick={() => store.getState().giveUp()}>
              Give them up
            </button>
            <button type="button" className="button button-main" onClick={() => store.getState().tryNow()}>
              Try now
            </button>
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
