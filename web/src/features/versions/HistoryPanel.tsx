import { memo, useCallback, useEffect, useMemo, useRef } from "react";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { type Row, rowsOf } from "./tree";
import { useHistory } from "./useHistory";

const WORDS: Record<Row["place"], string> = {
  present: "now · ",
  before: "",
  undone: "undone · ",
  aside: "another way · ",
};

interface Props {
  /** Hears a state in the place of the present, as A. */
  onHear: (state: { revision: number; name: string }) => void;
}

/** Every edit ever made, newest first, also what was undone before something else was done. A press goes to that state, and nothing is lost by it. */
export function HistoryPanel({ onHear }: Props) {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const revision = useMix((s) => s.revision);
  const against = useMix((s) => s.against?.revision ?? null);
  const { revisions, more, older, problem } = useHistory();
  const rows = useMemo(() => rowsOf(revisions, revision), [revisions, revision]);
  const goTo = useCallback(
    (number: number) => {
      if (number !== store.getState().revision) void store.getState().goTo(number);
    },
    [store],
  );
  const takeAsA = useCallback(
    (row: Row | null) => store.getState().set({ against: row && { revision: row.number, name: row.label } }),
    [store],
  );
  return (
    <>
      {problem && (
        <p role="alert" className="text-trouble">
          {problem}
        </p>
      )}
      <ol aria-label="Edits, newest first">
        {rows.map((row) => (
          <HistoryRow
            key={row.number}
            number={row.number}
            label={row.label}
            at={row.at}
            author={row.author}
            parent={row.parent}
            place={row.place}
            from={row.from}
            canEdit={canEdit}
            isA={against === row.number}
            onGo={goTo}
            onHear={onHear}
            onA={takeAsA}
          />
        ))}
      </ol>
      {more && <Older onSeen={older} />}
    </>
  );
}

/** Asks for older ones as soon as the end of the list comes near. */
function Older({ onSeen }: { onSeen: () => Promise<void> }) {
  const end = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    const element = end.current;
    if (!element) return;
    const observer = new IntersectionObserver(([seen]) => seen?.isIntersecting && void onSeen(), {
      rootMargin: "600px",
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, [onSeen]);
  return (
    <button ref={end} type="button" className="button button-quiet w-full" onClick={() => void onSeen()}>
      Older edits
    </button>
  );
}

interface RowProps extends Row {
  canEdit: boolean;
  isA: boolean;
  onGo: (number: number) => void;
  onHear: Props["onHear"];
  onA: (row: Row | null) => void;
}

const HistoryRow = memo(function HistoryRow({ canEdit, isA, onGo, onHear, onA, ...row }: RowProps) {
  const { number, label, at, author, place, from } = row;
  const left = place === "aside" ? "ml-3 border-l-2 border-dashed border-line" : "";
  return (
    <li
      className={`flex items-stretch gap-1 [contain-intrinsic-size:auto_44px] [content-visibility:auto] ${left}`}
    >
      <button
        type="button"
        className={`min-w-0 flex-1 cursor-pointer rounded-md px-2 py-1 text-left leading-snug hover:bg-sunk ${place === "undone" || place === "aside" ? "text-faint" : ""} ${place === "present" ? "bg-glow" : ""}`}
        aria-current={place === "present" ? "true" : undefined}
        disabled={!canEdit}
        title="Goes to this state · C pressed here: hear it as A"
        onClick={() => onGo(number)}
        onKeyDown={(event) => {
          if (event.key.toLowerCase() !== "c" || event.ctrlKey || event.metaKey) return;
          event.stopPropagation();
          onHear({ revision: number, name: label });
        }}
      >
        <span className="block break-words">{label}</span>
        <span className="block truncate text-note text-faint">
          {WORDS[place]}
          {timeOf(at)} · {author}
          {from !== null && ` · after “${from}”`}
        </span>
      </button>
      <button
        type="button"
        className="figure w-7 shrink-0 cursor-pointer rounded-md text-aside font-semibold text-faint hover:bg-sunk aria-pressed:bg-ink aria-pressed:text-paper"
        aria-pressed={isA}
        aria-label={`Take “${label}” as A`}
        title="Take this state as A, to compare with"
        onClick={() => onA(isA ? null : row)}
      >
        A
      </button>
    </li>
  );
});

/** The time of today's edits, the day too of others. */
function timeOf(at: string): string {
  const date = new Date(at);
  const time = date.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });
  return date.toDateString() === new Date().toDateString()
    ? time
    : `${date.toLocaleDateString("en-GB", { day: "numeric", month: "short" })} ${time}`;
}
