import { RotateCcw } from "lucide-react";
import type { Stem } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { notANumber } from "@/preview/check";
import { numberIn } from "@/preview/parse";
import { STEMS } from "@/parts/stems";
import { TypedField } from "@/parts/TypedField";

const ANY = /^(any|-|)$/;

/** Why a typed end is none, with the other end of the zone, where it has one. */
function notAnEnd(text: string, low: number | undefined, high: number | undefined): string | null {
  const wrong = notANumber(text, -80, 0, "dBFS");
  const end = numberIn(text) ?? 0;
  if (wrong !== null) return wrong;
  if (high !== undefined && end >= high) return `Its upper end is ${formatDb(high)}. Type less.`;
  return low !== undefined && end <= low ? `Its lower end is ${formatDb(low)}. Type more.` : null;
}

/** Between which average levels each stem belongs. What leaves its zone is marked on the timeline and named here. */
export function Zones() {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const zones = useMix((s) => s.aim.zones);
  const edit = store.getState().edit;
  const set = (stem: Stem, low: number | undefined, high: number) =>
    edit({ edit: "set-zone", stem, high, ...(low === undefined ? {} : { low }) });
  return (
    <details>
      <summary className="cursor-pointer text-faint">Zones of the stems, dBFS on average</summary>
      <div className="mt-1 grid grid-cols-[1fr_56px_auto_56px_24px] items-center gap-x-2 gap-y-1 text-aside">
        {STEMS.map(({ stem, name }) => {
          const { low, high } = zones[stem];
          return [
            <span key={stem}>{name}</span>,
            <TypedField
              key={`${stem} low`}
              label={`Lowest average of ${name}, dBFS`}
              shown={low === undefined ? "any" : formatDb(low)}
              disabled={!canEdit}
              check={(text) => (ANY.test(text.trim()) ? null : notAnEnd(text, undefined, high))}
              onCommit={async (text) => {
                if (ANY.test(text.trim())) return set(stem, undefined, high);
                const next = numberIn(text);
                return next !== null && set(stem, next, high);
              }}
            />,
            <span key={`${stem} to`} className="text-faint">
              to
            </span>,
            <TypedField
              key={`${stem} high`}
              label={`Highest average of ${name}, dBFS`}
              shown={formatDb(high)}
              disabled={!canEdit}
              check={(text) => notAnEnd(text, low, undefined)}
              onCommit={async (text) => {
                const next = numberIn(text);
                return next !== null && set(stem, low, next);
              }}
            />,
            <button
              key={`${stem} usual`}
              type="button"
              className="button button-quiet p-1"
              aria-label={`The usual zone for ${name}`}
              title="The usual zone"
              disabled={!canEdit}
              onClick={() => void edit({ edit: "set-zone", stem })}
            >
              <RotateCcw size={12} />
            </button>,
          ];
        })}
      </div>
    </details>
  );
}
