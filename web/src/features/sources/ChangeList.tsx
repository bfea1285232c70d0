import type { Cut } from "@/api/schema";
import { formatClock } from "@/lib/format";
import { useMix } from "@/store/context";

type Version = Cut["versions"][number];

const KINDS: { of: "new" | "changed" | "gone"; title: string }[] = [
  { of: "new", title: "New" },
  { of: "changed", title: "Begins or ends elsewhere in its source" },
  { of: "gone", title: "Gone, where it was" },
];

/** What a new version of a cut brings and takes, with times. */
export function ChangeList({ version }: { version: Version }) {
  const rate = useMix((s) => s.rate);
  const nothing = KINDS.every(({ of }) => version.counts[of] === 0);
  if (nothing) return <p>Every clip is known again; none is new, none is gone.</p>;
  return (
    <div className="grid max-h-[34vh] gap-2 overflow-y-auto">
      {KINDS.filter(({ of }) => version.counts[of] > 0).map(({ of, title }) => (
        <section key={of} aria-label={title}>
          <h2 className="caps mb-0.5">
            {title}: {version.counts[of]}
          </h2>
          <ul>
            {version[of].map((place, i) => (
              <li key={i} className="flex gap-3 border-t border-line py-0.5 text-aside">
                <span className="figure w-20 shrink-0 text-faint">{formatClock(place.at, rate)}</span>
                <span className="min-w-0 truncate">{place.name}</span>
              </li>
            ))}
          </ul>
          {version.counts[of] > version[of].length && (
            <p className="text-aside text-faint">and {version.counts[of] - version[of].length} more</p>
          )}
        </section>
      ))}
    </div>
  );
}
