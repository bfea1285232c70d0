import { UserPlus } from "lucide-react";
import { useState } from "react";
import { useMix } from "@/store/context";
import { initialsOf } from "./initials";
import { Share } from "./Share";

/** Who else has the project open; opens the list of all who may. */
export function PeopleHere() {
  const people = useMix((s) => s.people);
  const [open, setOpen] = useState(false);
  const names = [...new Map(people.map((p) => [p.account, p.name])).values()];
  const said = names.length ? `${names.join(", ")} ${names.length > 1 ? "are" : "is"} here. ` : "";
  return (
    <>
      <button
        type="button"
        className="button button-quiet shrink-0 gap-0 p-1"
        title={`${said}Share…`}
        onClick={() => setOpen(true)}
      >
        <span className="sr-only">{said}Share</span>
        {names.slice(0, 3).map((name) => (
          <span
            key={name}
            aria-hidden
            className="-ml-1.5 grid size-6 place-content-center rounded-full border-2 border-paper bg-ink text-mark font-semibold text-paper first-of-type:ml-0"
          >
            {initialsOf(name)}
          </span>
        ))}
        {names.length > 3 && (
          <span aria-hidden className="figure ml-0.5 text-note">
            +{names.length - 3}
          </span>
        )}
        {names.length === 0 && <UserPlus size={16} aria-hidden />}
      </button>
      <Share open={open} onOpenChange={setOpen} />
    </>
  );
}
