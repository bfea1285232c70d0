/** One or two letters for a name. */
export function initialsOf(name: string): string {
  const words = name.trim().split(/\s+/);
  const letters = [words[0], words.length > 1 ? words.at(-1) : undefined].map((word) =>
    word ? String.fromCodePoint(word.codePointAt(0) ?? 0) : "",
  );
  return letters.join("").toUpperCase();
}
