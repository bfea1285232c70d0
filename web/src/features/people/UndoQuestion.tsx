import { AlertDialog } from "radix-ui";
import { useMix, useMixStore } from "@/store/context";

/** Asked before somebody else's newest edit is taken back. */
export function UndoQuestion() {
  const store = useMixStore();
  const question = useMix((s) => s.question);
  const close = () => store.getState().set({ question: null });
  return (
    <AlertDialog.Root open={question !== null} onOpenChange={(open) => !open && close()}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/35" />
        <AlertDialog.Content className="fixed top-[22vh] left-1/2 z-50 w-[440px] max-w-[92vw] -translate-x-1/2 rounded-xl border border-line bg-paper p-5 shadow-2xl">
          <AlertDialog.Title className="text-head font-semibold">
            Take back what {question?.name} did?
          </AlertDialog.Title>
          <AlertDialog.Description className="mt-1 mb-4 text-faint">
            The newest edit is by {question?.name}: “{question?.label}”. It stays in the list of edits, and
            can be done again.
          </AlertDialog.Description>
          <div className="flex justify-end gap-2">
            <AlertDialog.Cancel className="button">Leave it</AlertDialog.Cancel>
            <AlertDialog.Action
              className="button button-main"
              onClick={() => void store.getState().undo(true)}
            >
              Take it back
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
