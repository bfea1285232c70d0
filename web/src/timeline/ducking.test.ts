import { describe, expect, it } from "vitest";
import type { Rule } from "@/api/schema";
import { toggled } from "./ducking";

const rule = (part: Partial<Rule> = {}): Rule => ({
  id: "r",
  name: "R",
  triggers: [],
  clips: [],
  targets: ["m"],
  clearance: 15,
  deepest: -30,
  lead: 0.1,
  fall: 0.4,
  rise: 0.9,
  hold: 0.3,
  bridge: 0.8,
  ignore: 0.15,
  added: [],
  dropped: [],
  follows: false,
  ...part,
});

describe("a stretch that a rule has heard", () => {
  it("is left out when it was found, and taken in again", () => {
    const out = toggled(rule(), { from: 10, to: 20, heard: "found" });
    expect(out.dropped).toEqual([{ from: 10, to: 20 }]);
    expect(toggled(out, { from: 10, to: 20, heard: "dropped" }).dropped).toEqual([]);
  });

  it.each(["quiet", "short"] as const)("is taken in when it was too %s, and let go again", (heard) => {
    const taken = toggled(rule(), { from: 10, to: 20, heard });
    expect(taken.added).toEqual([{ from: 10, to: 20 }]);
    expect(toggled(taken, { from: 9, to: 21, heard: "added" }).added).toEqual([]);
  });

  it("leaves the others as they are", () => {
    const before = rule({ added: [{ from: 50, to: 60 }], dropped: [{ from: 70, to: 80 }] });
    expect(toggled(before, { from: 10, to: 20, heard: "found" })).toMatchObject({
      added: [{ from: 50, to: 60 }],
      dropped: [
        { from: 70, to: 80 },
        { from: 10, to: 20 },
      ],
    });
  });
});
