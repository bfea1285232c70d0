import { Check, ChevronLeft, ChevronRight } from "lucide-react";
import { useRef } from "react";
import { usePlayer } from "@/player";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { openStretches } from "@/commands/buried";
import { ClaritySection } from "./ClaritySection";
import { MarkSpeech } from "./MarkSpeech";
import { Programme } from "./Programme";
import { Stretch } from "./Stretch";
import { TypedField } from "@/parts/TypedField";

/** Common practice, but for the last: W3C WCAG 2.x, success criterion 1.4.7. */
const WANTED = [
  [10, "the bed stays present"],
  [15, "clear"],
  [20, "accessible (WCAG 1.4.7)"],
] as const;

/** Whether the speech can be understood all along, where it cannot, and what would help. */
export function SpeechPanel() {
  return (
    <div className="grid gap-4 p-3">
      <Wanted />
      <Captions />
      <MarkSpeech />
      <Stretches />
      <ClaritySection />
      <Programme />
    </div>
  );
}

function Wanted() {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const aim = useMix((s) => s.aim);
  const part = useMix((s) => s.figures?.clearPart ?? null);
  const edit = store.getState().edit;
  return (
    <section aria-label="Wanted clearance" className="grid gap-1.5">
      <p>
        {part === null ? (
          "Nobody speaks in this mix yet. Put speech on a track above the horizon."
        ) : (
          <>
            <strong>{Math.floor(100 * part)} %</strong> of the speech stands at least {aim.clearance} LU above
            everything else.
          </>
        )}
      </p>
      <label className="flex items-center justify-between gap-2">
        <span className="text-faint">Wanted</span>
        <select
          className="field min-w-0 py-0.5 text-aside"
          aria-label="Wanted clearance"
          disabled={!canEdit}
          value={WANTED.some(([lu]) => lu === aim.clearance) ? aim.clearance : ""}
          onChange={(event) => void edit({ edit: "set-aim", clearance: Number(event.target.value) })}
        >
          {WANTED.every(([lu]) => lu !== aim.clearance) && <option value="">{aim.clearance} LU</option>}
          {WANTED.map(([lu, name]) => (
            <option key={lu} value={lu}>
              {lu} LU: {name}
            </option>
          ))}
        </select>
      </label>
      <div
        className="flex items-center justify-between gap-2"
        title="How much must speak for a sound being speech, in dB; 10 is usual. Less hears softer and less certain speech, more takes less for it."
      >
        <span className="text-faint">Taken for speech from, dB</span>
        <TypedField
          className="!w-14"
          label="Sensitivity: dB that must speak for speech"
          shown={String(aim.sensitivity)}
          disabled={!canEdit}
          onCommit={(text) => edit({ edit: "set-aim", sensitivity: Number(text.replace(",", ".")) })}
        />
      </div>
    </section>
  );
}

/** Captions, where somebody has them, know better when somebody speaks. */
function Captions() {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const count = useMix((s) => s.captions.length);
  const picker = useRef<HTMLInputElement>(null);
  if (!canEdit && count === 0) return null;
  const bringIn = async (file: File | undefined) => {
    if (file) await store.getState().edit({ edit: "set-captions", text: await file.text() });
  };
  return (
    <section aria-label="Captions" className="flex items-center justify-between gap-2">
      <span className="text-faint">
        {count ? `${count} captions say when somebody speaks` : "Or let captions say who speaks when"}
      </span>
      {canEdit && (
        <>
          <input
            ref={picker}
            type="file"
            accept=".vtt,.srt,text/vtt"
            className="hidden"
            data-testid="caption-picker"
            onChange={(event) => {
              void bringIn(event.target.files?.[0]);
              event.target.value = "";
            }}
          />
          {count > 0 && (
            <button
              type="button"
              className="button px-2 py-0.5"
              onClick={() => void store.getState().edit({ edit: "set-captions", text: "" })}
            >
              Remove
            </button>
          )}
          <button
            type="button"
            className="button shrink-0 px-2 py-0.5"
            onClick={() => picker.current?.click()}
          >
            {count ? "Others…" : "WebVTT, SRT…"}
          </button>
        </>
      )}
    </section>
  );
}

function Stretches() {
  const store = useMixStore();
  const player = usePlayer();
  const canEdit = useCanEdit();
  const buried = useMix((s) => s.figures?.buried);
  const more = useMix((s) => s.figures?.moreBuried.length ?? 0);
  const all = useMix((s) => s.figures?.clearAll);
  const stretch = useMix((s) => s.stretch);
  const part = useMix((s) => s.figures?.clearPart ?? null);
  if (!buried?.length) return part === null ? null : <p>No stretch of half a second or more is buried.</p>;
  const open = buried.filter((b) => b.accepted === null);
  const at = buried.findIndex((b) => b.from === stretch);
  const go = (by: number) => {
    const next = buried[at < 0 ? 0 : (at + by + buried.length) % buried.length];
    if (!next) return;
    store.getState().set({ stretch: next.from });
    player.seek(next.from);
  };
  const fixAll = all ?? null;
  const chosen = buried[at] ?? buried[0];
  return (
    <section aria-label="Buried speech" className="grid gap-2">
      <div className="flex items-center justify-between">
        <h2 className={`font-semibold ${open.length ? "text-trouble" : ""}`}>
          {open.length === 0
            ? "Nothing left buried"
            : `${open.length}${more ? ` of ${(buried.length + more).toLocaleString("en")}` : ""} buried ${open.length === 1 ? "stretch" : "stretches"}`}
        </h2>
        <div className="flex items-center gap-1">
          <span className="figure text-note text-faint">
            {Math.max(0, at) + 1} of {buried.length}
          </span>
          <button
            type="button"
            className="button button-quiet p-1"
            aria-label="The stretch before"
            title="The stretch before (Shift+G)"
            onClick={() => go(-1)}
          >
            <ChevronLeft size={14} />
          </button>
          <button
            type="button"
            className="button button-quiet p-1"
            aria-label="The next stretch"
            title="The next stretch (G)"
            onClick={() => go(1)}
          >
            <ChevronRight size={14} />
          </button>
        </div>
      </div>
      {canEdit && open.length > 1 && (
        <button
          type="button"
          className="button justify-self-start px-2 py-0.5"
          aria-disabled={fixAll === null}
          title={
            fixAll === null ? "No dip within 40 dB clears any of them" : "One step, which undo takes back"
          }
          onClick={() => fixAll && void store.getState().edit(fixAll)}
        >
          <Check size={14} aria-hidden /> Dip for all {openStretches(store.getState()).length}
        </button>
      )}
      {chosen && <Stretch key={chosen.from} buried={chosen} />}
    </section>
  );
}
