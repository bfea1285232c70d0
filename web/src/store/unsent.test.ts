// @vitest-environment jsdom
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Asked } from "@/api/asked";
import { Unsent } from "./unsent";

const asked = (key: string): Asked => ({ key, kind: "redo" });

beforeEach(() => localStorage.clear());

describe("what a page leaves behind", () => {
  it("is handed over once, to a page of the same project", async () => {
    new Unsent("p").save([asked("one"), asked("two")]);
    const taken: Asked[][] = [];
    await new Unsent("other").takeLeftovers((left) => void taken.push(left));
    expect(taken).toEqual([]);
    await new Unsent("p").takeLeftovers((left) => void taken.push(left));
    await new Unsent("p").takeLeftovers((left) => void taken.push(left));
    expect(taken).toEqual([[asked("one"), asked("two")]]);
  });

  it("is nothing once all was answered, and nothing that is weeks old", async () => {
    const page = new Unsent("p");
    page.save([asked("one")]);
    page.save([]);
    vi.useFakeTimers({ now: Date.now() - 8 * 24 * 3600 * 1000, toFake: ["Date"] });
    new Unsent("p").save([asked("old")]);
    vi.useRealTimers();
    const taken: Asked[][] = [];
    await new Unsent("p").takeLeftovers((left) => void taken.push(left));
    expect(taken).toEqual([]);
    expect(Object.keys(localStorage)).toEqual([]);
  });
});
