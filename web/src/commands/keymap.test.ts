// @vitest-environment jsdom
import { afterEach, describe, expect, it } from "vitest";
import { COMMANDS } from ".";
import { combinationOf, commandFor, keysOf, resetKeys, setKey } from "./keymap";

const all = COMMANDS.flatMap((group) => group.commands);
const named = (id: string) => {
  const found = all.find((c) => c.id === id);
  if (!found) throw new Error(id);
  return found;
};

afterEach(() => resetKeys(null));

describe("the key map", () => {
  it("gives no key to two commands, and no command two names", () => {
    const keys = all.flatMap((c) => c.keys);
    expect(keys.filter((k, i) => keys.indexOf(k) !== i)).toEqual([]);
    expect(new Set(all.map((c) => c.id)).size).toBe(all.length);
  });

  it("takes another key, keeps it, and gives up the old one", () => {
    expect(setKey(named("dip"), "Ctrl+9")).toBeNull();
    expect(commandFor("Ctrl+9")?.id).toBe("dip");
    expect(commandFor("D")).toBeUndefined();
    expect(JSON.parse(localStorage.getItem("wattage-keys") ?? "")).toEqual({ dip: ["Ctrl+9"] });
  });

  it("refuses a key that another command has, and names that command", () => {
    expect(setKey(named("dip"), "T")?.id).toBe("tame");
    expect(keysOf(named("dip"))).toEqual(["D"]);
  });

  it("goes back to the key it came with, unless that is taken by now", () => {
    setKey(named("dip"), "Ctrl+9");
    setKey(named("tame"), "D");
    expect(resetKeys(named("dip"))?.id).toBe("tame");
    expect(resetKeys(named("tame"))).toBeNull();
    expect(resetKeys(named("dip"))).toBeNull();
    expect(commandFor("D")?.id).toBe("dip");
  });

  it("writes what was pressed in one way only", () => {
    const press = (key: string, mods: KeyboardEventInit = {}) =>
      combinationOf(new KeyboardEvent("keydown", { key, ...mods }));
    expect(press(" ")).toBe("Space");
    expect(press("d")).toBe("D");
    expect(press("D", { shiftKey: true })).toBe("Shift+D");
    expect(press("?", { shiftKey: true })).toBe("?");
    expect(press("z", { ctrlKey: true })).toBe("Ctrl+Z");
    expect(press("z", { metaKey: true, shiftKey: true })).toBe("Ctrl+Shift+Z");
    expect(press("ArrowUp", { ctrlKey: true })).toBe("Ctrl+ArrowUp");
    expect(press("Shift", { shiftKey: true })).toBeNull();
  });
});
