/** What the browser keeps under a name; null where there is nothing, or nothing that can be read. */
export function readKept<T>(name: string): T | null {
  try {
    return JSON.parse(localStorage.getItem(name) ?? "null") as T | null;
  } catch {
    return null;
  }
}

/** Keeps something under a name; where there is no room it is not kept, and nothing else suffers for it. */
export function keep(name: string, value: unknown): void {
  try {
    localStorage.setItem(name, JSON.stringify(value));
  } catch {
    // No room, or not allowed to: then it is set up anew next time.
  }
}
