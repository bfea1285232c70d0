import { useState } from "react";
import type { Handover } from "@/api/schema";
import { keep, readKept } from "@/lib/kept";
import { useMix } from "@/store/context";
import { Cover } from "./Cover";

type Words = NonNullable<Handover["tags"]>;

const FIELDS = [
  ["title", "Title"],
  ["programme", "Programme"],
  ["episode", "Episode"],
  ["author", "Author"],
] as const;

const placeOf = (project: string) => `wattage-tags-${project}`;

/** What the files of a project say about themselves, as it was last typed on this machine. */
export function keptTags(project: string): Words {
  return readKept<Words>(placeOf(project)) ?? {};
}

/** What players show of a file: title, programme, episode, author. Without a title it is the name of the project. */
export function Tags() {
  const project = useMix((s) => s.project.id);
  const name = useMix((s) => s.project.name);
  const [words, setWords] = useState<Words>(() => keptTags(project));
  return (
    <details className="mt-2">
      <summary className="min-h-6 cursor-pointer">What the files say: {words.title || name}</summary>
      <div className="mt-1 grid grid-cols-[auto_minmax(0,1fr)] items-center gap-x-2 gap-y-1">
        {FIELDS.map(([field, label]) => (
          <label key={field} className="contents">
            <span className="text-faint">{label}</span>
            <input
              className="field py-0.5 text-aside"
              value={words[field] ?? ""}
              placeholder={field === "title" ? name : ""}
              maxLength={400}
              onChange={(event) => {
                const next = { ...words, [field]: event.target.value };
                setWords(next);
                keep(placeOf(project), next);
              }}
            />
          </label>
        ))}
        <Cover />
      </div>
      <p className="mt-1 text-aside text-faint">
        Markers become chapters, and cue points in WAV files. MP3, AAC and FLAC carry the cover.
      </p>
    </details>
  );
}
