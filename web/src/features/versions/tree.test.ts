import { expect, it } from "vitest";
import { type Past, rowsOf } from "./tree";

const past = (number: number, parent: number | null): Past => ({
  number,
  parent,
  label: `edit ${number}`,
  at: "2026-01-01T00:00:00Z",
  author: "Ada",
});
const places = (revisions: Past[], head: number) =>
  rowsOf(revisions, head).map((r) => `${r.number} ${r.place}`);

it("shows what was undone, and what was left for another way", () => {
  // 1 – 2 – 3 was undone to 2, then 4 was done, and 5.
  const revisions = [past(5, 4), past(4, 2), past(3, 2), past(2, 1), past(1, null)];
  expect(places(revisions, 5)).toEqual(["5 present", "4 before", "3 aside", "2 before", "1 before"]);
  expect(places(revisions, 2)).toEqual(["5 undone", "4 undone", "3 aside", "2 present", "1 before"]);
  expect(places(revisions, 3)).toEqual(["5 aside", "4 aside", "3 present", "2 before", "1 before"]);
  expect(rowsOf(revisions, 5).map((r) => r.from)).toEqual([null, "edit 2", null, null, null]);
});

it("is right and quick for thousands, with the present far back", () => {
  const revisions = Array.from({ length: 5000 }, (_, i) => past(5000 - i, 4999 - i || null));
  const rows = rowsOf(revisions, 4500);
  expect(rows.filter((r) => r.place === "undone")).toHaveLength(500);
  expect(rows.filter((r) => r.place === "before")).toHaveLength(4499);
  expect(rows[500]).toMatchObject({ number: 4500, place: "present" });
});
