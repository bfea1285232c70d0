/** An id of our own making; the prefix keeps it from being all digits. */
export function newId(prefix: string): string {
  return `${prefix}-${crypto.randomUUID()}`;
}
