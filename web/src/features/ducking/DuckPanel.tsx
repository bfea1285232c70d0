import { Plus } from "lucide-react";
import type { Rule } from "@/api/schema";
import { formatDb } from "@/lib/format";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { DuckRuleForm } from "./DuckRuleForm";
import { mutedSpeakers, PRESETS, ruleBy } from "./duckRules";
import { Late } from "@/commands/Late";
import { runRules } from "@/commands/runRules";

/** What gives way to speech by itself: the rules, and one of them while it is made or changed. */
export function DuckPanel() {
  const draft = useMix((s) => s.duckDraft);
  return <div className="grid gap-4 p-3">{draft ? <DuckRuleForm draft={draft} /> : <Rules />}</div>;
}

function Rules() {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const rules = useMix((s) => s.rules);
  const tracks = useMix((s) => s.tracks);
  const clearance = useMix((s) => s.aim.clearance);
  const name = (id: string) => tracks.find((t) => t.id === id)?.name ?? "a track that is gone";
  const start = (rule: Rule) => store.getState().set({ duckDraft: rule });
  const hasTargets = tracks.some((t) => t.stem !== "speech");
  return (
    <>
      <Late />
      {rules.length === 0 && (
        <p className="text-faint">
          A rule lowers some tracks while others speak: all speech, or any track or clip you name. What it
          does stands in a lane of its own, where you can correct it by hand; corrections stay when it runs
          again.
        </p>
      )}
      {rules.map((rule) => (
        <section
          key={rule.id}
          aria-label={`Rule ${rule.name}`}
          className="grid gap-1 rounded-lg border border-line p-2"
        >
          <h3 className="font-semibold">{rule.name}</h3>
          <p className="text-aside text-faint">
            {rule.targets.map(name).join(", ")} under{" "}
            {rule.triggers.length + rule.clips.length === 0
              ? "all speech"
              : [
                  ...rule.triggers.map(name),
                  ...(rule.clips.length ? [`${rule.clips.length} clips`] : []),
                ].join(", ")}
            ,{" "}
            {rule.depth === undefined
              ? `to ${rule.clearance} LU of clearance`
              : `by ${formatDb(rule.depth)} dB`}
            {rule.follows ? "; follows by itself" : ""}
            {mutedSpeakers(rule, tracks).map((muted) => `; ${muted} is muted and not heard by it`)}
          </p>
          {canEdit && (
            <div className="flex gap-1.5">
              <button type="button" className="button px-2 py-0.5" onClick={() => start(rule)}>
                Change…
              </button>
              <button
                type="button"
                className="button px-2 py-0.5"
                title="Its dips go with it; corrections by hand stay"
                onClick={() => void runRules(store, rule.id)}
              >
                Remove
              </button>
            </div>
          )}
        </section>
      ))}
      {canEdit && (
        <section aria-label="New rule" className="grid gap-1.5">
          <h3 className="caps">New rule</h3>
          <div className="grid grid-cols-2 gap-1.5">
            {PRESETS.map((preset) => (
              <button
                key={preset.name}
                type="button"
                className="button px-2 py-1"
                aria-disabled={!hasTargets}
                title={
                  hasTargets ? "Tried first; nothing is kept yet" : "Add a track beneath the horizon first"
                }
                onClick={() => hasTargets && start(ruleBy(preset, tracks, clearance))}
              >
                <Plus size={13} aria-hidden /> {preset.name}
              </button>
            ))}
          </div>
        </section>
      )}
    </>
  );
}
