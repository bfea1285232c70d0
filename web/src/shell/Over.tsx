import { UndoQuestion } from "@/features/people";
import { FloatingPicture } from "@/features/picture";
import { Notice } from "./Notice";

/** What stands over the work, in whatever view. */
export function Over() {
  return (
    <>
      <FloatingPicture />
      <Notice />
      <UndoQuestion />
    </>
  );
}
