import type { DuckingPlan, Rule } from "@/api/schema";

type Moment = DuckingPlan["moments"][number];
type Stretch = { from: number; to: number };

const meets = (a: Stretch, b: Stretch) => a.from < b.to && b.from < a.to;

/** The rule with a stretch taken in or left out, whichever it was not. */
export function toggled(rule: Rule, moment: Moment): Rule {
  const { from, to, heard } = moment;
  const without = (row: Stretch[]) => row.filter((stretch) => !meets(stretch, moment));
  switch (heard) {
    case "added":
      return { ...rule, added: without(rule.added) };
    case "dropped":
      return { ...rule, dropped: without(rule.dropped) };
    case "found":
      return { ...rule, dropped: [...without(rule.dropped), { from, to }] };
    case "short":
    case "quiet":
      return { ...rule, added: [...without(rule.added), { from, to }] };
  }
}
