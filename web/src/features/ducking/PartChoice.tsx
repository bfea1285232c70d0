import type { Rule } from "@/api/schema";

const PARTS: { part: NonNullable<Rule["part"]>; name: string; hint: string }[] = [
  { part: "all", name: "all of it", hint: "The whole sound goes down" },
  {
    part: "band",
    name: "the band of speech",
    hint: "About 400 Hz to 5 kHz goes down; bass and treble stay",
  },
  {
    part: "band-first",
    name: "that first, then the rest",
    hint: "The band of speech by 15 dB at most, and only what is still missing from all of it",
  },
];

/** What of the tracks that give way goes down. */
export function PartChoice({ draft, set }: { draft: Rule; set: (part: Partial<Rule>) => void }) {
  return (
    <fieldset>
      <legend className="caps mb-1">What goes down</legend>
      {PARTS.map(({ part, name, hint }) => (
        <label key={part} className="flex min-h-6 items-center gap-2" title={hint}>
          <input
            type="radio"
            name="part"
            className="size-6"
            checked={(draft.part ?? "all") === part}
            onChange={() => set({ part })}
          />
          {name}
        </label>
      ))}
    </fieldset>
  );
}
