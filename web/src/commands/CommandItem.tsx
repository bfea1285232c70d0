import { MenuItem } from "@/parts/Menu";
import { useMixStore } from "@/store/context";
import { COMMANDS } from ".";
import { useDesk } from "./deskContext";
import { keysOf, spoken, useKeymap } from "./keymap";

interface Props {
  id: string;
  /** Why it cannot be done now, said in place. */
  reason?: string | undefined;
}

/** A command as a line of a menu, in the words of the sheet of keys and with its key. */
export function CommandItem({ id, reason }: Props) {
  const store = useMixStore();
  const desk = useDesk();
  useKeymap();
  const found = COMMANDS.flatMap((group) => group.commands).find((command) => command.id === id);
  if (!found || !desk) return null;
  return (
    <MenuItem
      keys={keysOf(found).map(spoken)[0] ?? ""}
      reason={reason}
      onSelect={() => found.run(desk, store.getState())}
    >
      {found.title}
    </MenuItem>
  );
}
