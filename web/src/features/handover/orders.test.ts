import { describe as suite, expect, it } from "vitest";
import type { Order } from "@/api/schema";
import { describe, inFormat, wouldFlatten } from "./orders";

const wav: Order = { format: "wav", bits: 24, rate: 96000, channels: 2 };

suite("orders", () => {
  it("keep in another format what that can have, and get the nearest of the rest", () => {
    expect(inFormat(wav, "mp3")).toEqual({ format: "mp3", rate: 48000, channels: 2, kbps: 128 });
    expect(inFormat(wav, "matroska")).toEqual({ format: "matroska", rate: 48000, channels: 2, bits: 24 });
    expect(inFormat({ ...wav, bits: 32 }, "flac")).toMatchObject({ bits: 24, rate: 96000 });
  });

  it("say what they are in a line", () => {
    expect(describe({ ...wav, part: "stem", stem: "speech", asProgramme: true })).toBe(
      "WAV 24 bit · 96 kHz · Speech only · target of the project, as in the whole",
    );
    expect(describe({ format: "archive" })).toMatch(/^the whole project/);
  });

  it("flatten what passes full scale only without a ceiling, and not as floats", () => {
    const open = { loudness: null, truePeak: null };
    expect(wouldFlatten({ ...wav, target: open })).toBe(true);
    expect(wouldFlatten({ ...wav, bits: 32, target: open })).toBe(false);
    expect(wouldFlatten({ ...wav, target: { loudness: null, truePeak: -1 } })).toBe(false);
    expect(wouldFlatten(wav)).toBe(false);
  });
});
