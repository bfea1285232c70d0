import { useSyncExternalStore } from "react";
import { type Command, COMMANDS } from ".";

const STORED = "wattage-keys";
const ALL: Command[] = COMMANDS.flatMap((group) => group.commands);
const listeners = new Set<() => void>();
let changed: Record<string, string[]> = read();

function read(): Record<string, string[]> {
  try {
    return JSON.parse(localStorage.getItem(STORED) ?? "{}") as Record<string, string[]>;
  } catch {
    return {};
  }
}

function store(next: Record<string, string[]>): void {
  changed = next;
  localStorage.setItem(STORED, JSON.stringify(next));
  listeners.forEach((tell) => tell());
}

/** The keys of a command: those it came with, or those that were set. */
export function keysOf(command: Command): string[] {
  return changed[command.id] ?? command.keys;
}

export function commandFor(combination: string): Command | undefined {
  return ALL.find((command) => keysOf(command).includes(combination));
}

/** Gives a command another key; says which command has it already, if one does, and then changes nothing. */
export function setKey(command: Command, combination: string): Command | null {
  const taken = commandFor(combination);
  if (taken && taken.id !== command.id) return taken;
  store({ ...changed, [command.id]: [combination] });
  return null;
}

/** Back to the key it came with; null for all of them. */
export function resetKeys(command: Command | null): Command | null {
  if (!command) {
    store({});
    return null;
  }
  const others = Object.fromEntries(Object.entries(changed).filter(([id]) => id !== command.id));
  const before = changed;
  changed = others;
  const taken = ALL.find((c) => c.id !== command.id && keysOf(c).some((k) => command.keys.includes(k)));
  changed = before;
  if (taken) return taken;
  store(others);
  return null;
}

export function isChanged(command: Command): boolean {
  return changed[command.id] !== undefined;
}

/** What was pressed, as the map writes it: "D", "Shift+ArrowUp", "Ctrl+Z"; null for a modifier alone. */
export function combinationOf(event: KeyboardEvent): string | null {
  if (["Shift", "Control", "Alt", "Meta", "Dead"].includes(event.key)) return null;
  const key = event.key === " " ? "Space" : event.key.length === 1 ? event.key.toUpperCase() : event.key;
  // The Shift that a sign such as ? takes on some keyboards is part of the sign.
  const isSign = key.length === 1 && !/[A-Z0-9]/.test(key);
  return [
    event.ctrlKey || event.metaKey ? "Ctrl" : null,
    event.altKey ? "Alt" : null,
    event.shiftKey && !isSign ? "Shift" : null,
    key,
  ]
    .filter((part) => part !== null)
    .join("+");
}

const SPOKEN: Record<string, string> = {
  ArrowUp: "↑",
  ArrowDown: "↓",
  ArrowLeft: "←",
  ArrowRight: "→",
  "-": "−",
};

export function spoken(combination: string): string {
  return combination
    .split(/\+(?=.)/)
    .map((part) => SPOKEN[part] ?? part)
    .join(" ");
}

/** Tells when the map changes. */
export function useKeymap(): Record<string, string[]> {
  return useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    () => changed,
  );
}
