import { RadioGroup } from "radix-ui";
import { useState } from "react";
import type { Cut, Edit } from "@/api/schema";
import { formatClock, formatSeconds } from "@/lib/format";
import { useMix, useMixStore } from "@/store/context";
import { ChangeList } from "./ChangeList";

/** What a cut is to become: the new version of one that lies here, one more on tracks of its own, or the whole mix that it carries. */
export function FoundCut({ cut, onAgain, onDone }: { cut: Cut; onAgain: () => void; onDone: () => void }) {
  const store = useMixStore();
  const empty = useMix((s) => s.length === 0);
  const ways = waysOf(cut, empty);
  const [chosen, setChosen] = useState(0);
  const way = ways[chosen] ?? ways[0];
  const lay = async () => {
    if (way?.edit && (await store.getState().edit(way.edit))) onDone();
  };
  return (
    <div className="grid gap-3">
      <p>
        {cut.clips} {cut.clips === 1 ? "clip" : "clips"} on {cut.tracks}{" "}
        {cut.tracks === 1 ? "track" : "tracks"} of sound; the sources of <strong>{cut.found}</strong> are
        here.
      </p>
      {ways.length > 1 && (
        <RadioGroup.Root
          value={String(chosen)}
          onValueChange={(v) => setChosen(Number(v))}
          aria-label="What it is"
          className="grid gap-1"
        >
          {ways.map(({ name, use }, i) => (
            <RadioGroup.Item
              key={name}
              value={String(i)}
              className="flex min-h-8 items-baseline gap-2 rounded-md border border-line bg-sheet px-2.5 py-1.5 text-left data-[state=checked]:border-copper"
            >
              <span aria-hidden className="figure text-copper-text">
                {chosen === i ? "●" : "○"}
              </span>
              <span>
                <strong>{name}</strong> <span className="text-aside text-faint">{use}</span>
              </span>
            </RadioGroup.Item>
          ))}
        </RadioGroup.Root>
      )}
      {way?.version && <ChangeList version={way.version} />}
      <Missing missing={cut.missing} />
      {[...cut.short, ...cut.left].length > 0 && (
        <ul className="text-aside text-trouble">
          {[...cut.short, ...cut.left].map((sentence, i) => (
            <li key={i}>{sentence}</li>
          ))}
        </ul>
      )}
      <p className="text-aside text-faint">{way?.means}</p>
      <div className="flex gap-2">
        <button
          type="button"
          className="button button-main px-4 py-1"
          disabled={!way?.edit}
          onClick={() => void lay()}
        >
          {way?.action ?? "Lay it"}
        </button>
        <button type="button" className="button" onClick={onAgain}>
          Look again
        </button>
      </div>
    </div>
  );
}

interface Way {
  name: string;
  use: string;
  means: string;
  action: string;
  edit: Edit | null;
  version?: Cut["versions"][number];
}

function waysOf(cut: Cut, empty: boolean): Way[] {
  const changed = cut.versions.map((version) => ({
    name: `A new version of what lies on ${version.tracks.slice(0, 3).join(", ")}${version.tracks.length > 3 ? " …" : ""}`,
    use: `${version.kept} of ${cut.found} known again`,
    means:
      "Clips that are known again keep their gains, curves and fades; lanes, ducking, captions and markers go with what they lay on. One step, which can be undone.",
    action: "Bring in the changed cut",
    edit: version.edit,
    version,
  }));
  const fresh: Way = {
    name: "A cut of its own",
    use: "on new tracks",
    means:
      "It is laid on tracks of its own, in one step that can be undone. What a track carries is read from its name; set it in the track’s menu where that is wrong.",
    action: cut.found === cut.clips ? "Lay it" : `Lay the ${cut.found} that are here`,
    edit: cut.edit,
  };
  const whole: Way[] = cut.whole
    ? [
        {
          name: "The whole mix that it carries",
          use: "levels, lanes and all, in place of what is here",
          means:
            "All that is on the timeline gives way to the mix as it was when this file was written. One step, which can be undone.",
          action: "Take the whole mix",
          edit: cut.whole,
        },
      ]
    : [];
  // One that shares little with what lies here is likelier another cut.
  const isLikely = (way: Way) => 2 * (way.version?.kept ?? 0) >= cut.found;
  return empty
    ? [...whole, fresh]
    : [...changed.filter(isLikely), fresh, ...changed.filter((way) => !isLikely(way)), ...whole];
}

function Missing({ missing }: { missing: Cut["missing"] }) {
  const rate = useMix((s) => s.rate);
  if (missing.length === 0) return null;
  return (
    <section aria-label="Missing sources">
      <h2 className="caps mb-1">Missing: bring these in, then look again</h2>
      <ul className="grid gap-0.5">
        {missing.map((one) => (
          <li key={one.media} className="flex gap-3 border-t border-line py-1">
            <span className="min-w-0 flex-1 truncate font-semibold" title={one.media}>
              {one.media}
            </span>
            <span className="figure text-faint">
              {one.clips} {one.clips === 1 ? "clip" : "clips"}, {formatSeconds(one.seconds)}, first at{" "}
              {formatClock(one.at, rate)}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
