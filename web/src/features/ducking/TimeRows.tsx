import type { Rule } from "@/api/schema";
import { NumberRow } from "./NumberRow";

type Time = "lead" | "fall" | "rise" | "hold" | "bridge" | "ignore";
interface Row {
  key: Time;
  name: string;
  hint: string;
  most: number;
}

const UNDER: Row[] = [
  { key: "lead", name: "Lead", hint: "Fully down this long before the speech", most: 1 },
  { key: "fall", name: "Fall", hint: "Ramp down", most: 3 },
  { key: "hold", name: "Hold", hint: "Stays down this long after the speech", most: 3 },
  { key: "rise", name: "Rise", hint: "Ramp back up", most: 5 },
  { key: "bridge", name: "Bridge", hint: "A shorter pause does not come back up", most: 5 },
  { key: "ignore", name: "Ignore", hint: "Shorter speech does not count", most: 2 },
];

const HUSH: Row[] = [
  { key: "hold", name: "Hold", hint: "Stays up this long after a word", most: 3 },
  { key: "fall", name: "Fall", hint: "Ramp down into the pause", most: 3 },
  { key: "rise", name: "Rise", hint: "Ramp back up", most: 3 },
  { key: "lead", name: "Lead", hint: "Fully up this long before a word", most: 1 },
  { key: "bridge", name: "Bridge", hint: "A shorter pause does not go down", most: 5 },
  { key: "ignore", name: "Ignore", hint: "Shorter speech does not count", most: 2 },
];

const TURNS: Row[] = [
  { key: "hold", name: "Hold", hint: "A microphone stays open this long after a word", most: 2 },
];

const ROWS = { under: UNDER, hush: HUSH, turns: TURNS };

/** When a rule begins and ends around speech. */
export function TimeRows({ draft, set }: { draft: Rule; set: (part: Partial<Rule>) => void }) {
  // What follows from moment to moment has its own speed.
  const moving = draft.moving === true && draft.depth === undefined;
  return ROWS[draft.kind ?? "under"]
    .filter(({ key }) => !moving || (key !== "fall" && key !== "rise"))
    .map(({ key, name, hint, most }) => (
      <NumberRow
        key={key}
        name={name}
        unit="s"
        hint={hint}
        value={draft[key]}
        least={key === "fall" || key === "rise" ? 0.05 : 0}
        most={most}
        step={0.05}
        onChange={(value) => set({ [key]: value })}
      />
    ));
}
