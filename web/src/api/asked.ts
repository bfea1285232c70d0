import type { Edit } from "./schema";

/** A step that somebody asked for. Its key tells it from all others, so that the server does it once however often it is sent. */
export type Asked = { key: string } & (
  | { kind: "edit"; edit: Edit; instead: boolean }
  | { kind: "undo"; evenOthers: boolean }
  | { kind: "redo" }
  | { kind: "goTo"; revision: number }
  | { kind: "takeUp"; snapshot: string }
);

/** What it is, in words, before the server has said it better. */
export function wordsOf(asked: Asked): string {
  switch (asked.kind) {
    case "edit":
      return asked.edit.edit.replaceAll("-", " ");
    case "undo":
      return "undo";
    case "redo":
      return "redo";
    case "goTo":
      return "go to another state";
    case "takeUp":
      return "go back to a snapshot";
  }
}
