import { Plus } from "lucide-react";
import type { Rule } from "@/api/schema";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { DuckRuleForm } from "./DuckRuleForm";
import { described, mutedSpeakers, ownRule, PRESETS, ruleBy } from "./duckRules";
import { Late } from "@/commands/Late";
import { runRules } from "@/commands/runRules";

/** What gives way to speech by itself: the rules, and one of them while it is made or changed. */
export function DuckPanel() {
  const draft = useMix((s) => s.duckDraft);
  return <div className="grid gap-4 p-3">{draft ? <DuckRuleForm draft={draft} /> : <Rules />}</div>;
}

/** Rules in which tracks of speech listen to themselves. */
const OWN = {
  hush: {
    name: "Hush",
    what: "Tracks of speech go down in their own pauses",
    fewest: 1,
    missing: "Add a track of speech first",
  },
  turns: {
    name: "Turns",
    what: "Of several microphones in one room those give way that nobody speaks into",
    fewest: 2,
    missing: "It takes two tracks of speech",
  },
};

function Rules() {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const rules = useMix((s) => s.rules);
  const tracks = useMix((s) => s.tracks);
  const aim = useMix((s) => s.aim);
  const name = (id: string) => tracks.find((t) => t.id === id)?.name ?? "a track that is gone";
  const start = (rule: Rule) => store.getState().set({ duckDraft: rule });
  const speakers = tracks.filter((t) => t.stem === "speech").length;
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
            {described(rule, name)}
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
                onClick={() => hasTargets && start(ruleBy(preset, tracks, aim))}
              >
                <Plus size={13} aria-hidden /> {preset.name}
              </button>
            ))}
            {(["hush", "turns"] as const).map((kind) => (
              <button
                key={kind}
                type="button"
                className="button px-2 py-1"
                aria-disabled={speakers < OWN[kind].fewest}
                title={speakers < OWN[kind].fewest ? OWN[kind].missing : OWN[kind].what}
                onClick={() => speakers >= OWN[kind].fewest && start(ownRule(kind, tracks, aim))}
              >
                <Plus size={13} aria-hidden /> {OWN[kind].name}
              </button>
            ))}
          </div>
        </section>
      )}
    </>
  );
}
