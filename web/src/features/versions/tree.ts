import type { History } from "@/api/schema";

export type Past = History["revisions"][number];

/** Where a state stands: it is the present, on the way to it, undone before it, or was left for another way. */
type Place = "present" | "before" | "undone" | "aside";

export interface Row extends Past {
  place: Place;
  /** What it went on from, where that is not the row beneath it. */
  from: string | null;
}

/**
 * The list as it is shown: of each state where it stands from here.
 *
 * @param revisions newest first, without gaps down to the oldest
 */
export function rowsOf(revisions: Past[], head: number): Row[] {
  const byNumber = new Map(revisions.map((r) => [r.number, r]));
  const newestChild = new Map<number, number>();
  // Newest first: the first child that is met is the newest.
  for (const { number, parent } of revisions)
    if (parent !== null && !newestChild.has(parent)) newestChild.set(parent, number);
  const places = new Map<number, Place>([[head, "present"]]);
  for (let at = byNumber.get(head)?.parent ?? null; at !== null; at = byNumber.get(at)?.parent ?? null)
    places.set(at, "before");
  for (let at = newestChild.get(head); at !== undefined; at = newestChild.get(at)) places.set(at, "undone");
  return revisions.map((revision, i) => {
    const { number, parent } = revision;
    const below = revisions[i + 1];
    const from = parent === null || below?.number === parent ? null : (byNumber.get(parent)?.label ?? null);
    return { ...revision, place: places.get(number) ?? "aside", from };
  });
}
