import { describe, expect, it } from "vitest";
import { Decoder, encode } from "./midi";

describe("fader moves as MIDI 1.0 control changes", () => {
  // Status 0xBn is a control change on channel n + 1; 7 is channel volume, 39 its lower bits; 10 and 42 are pan.
  it("are written as the specification says", () => {
    expect(encode({ strip: 0, control: "level", place: 1 }).map((m) => [...m])).toEqual([
      [0xb0, 7, 127],
      [0xb0, 39, 127],
    ]);
    expect(encode({ strip: 3, control: "pan", place: 0.5 }).map((m) => [...m])).toEqual([
      [0xb3, 10, 64],
      [0xb3, 42, 0],
    ]);
    expect(encode({ strip: 1, control: "level", place: -2 }).map((m) => [...m])).toEqual([
      [0xb1, 7, 0],
      [0xb1, 39, 0],
    ]);
  });

  it("come back as they were sent, to within one of 16,384 places", () => {
    const decoder = new Decoder();
    for (let i = 0; i <= 200; i++) {
      const move = { strip: i % 16, control: i % 2 ? "level" : "pan", place: i / 200 } as const;
      const read = encode(move).map((message) => decoder.read(message));
      expect(read.at(-1)).toMatchObject({ strip: move.strip, control: move.control });
      expect(read.at(-1)?.place).toBeCloseTo(move.place, 4);
    }
  });

  it("are understood from a bank without lower bits", () => {
    const decoder = new Decoder();
    expect(decoder.read(Uint8Array.of(0xb2, 7, 127))).toEqual({ strip: 2, control: "level", place: 1 });
    expect(decoder.read(Uint8Array.of(0xb2, 7, 0))).toEqual({ strip: 2, control: "level", place: 0 });
  });

  it.each([
    ["a note", [0x90, 60, 100]],
    ["another controller", [0xb0, 64, 127]],
    ["a broken message", [0xb0, 7]],
    ["nothing", []],
    ["a value that MIDI has not", [0xb0, 7, 200]],
    ["lower bits without upper ones", [0xb5, 39, 3]],
  ])("are not taken from %s", (_what, bytes) => {
    expect(new Decoder().read(Uint8Array.from(bytes))).toBeNull();
  });

  it("are none where a fader says again where it stands, until it was put elsewhere", () => {
    const decoder = new Decoder();
    const read = (place: number) =>
      encode({ strip: 2, control: "level", place }).map((message) => decoder.read(message)?.place ?? null);
    expect(read(0.5).at(-1)).toBeCloseTo(0.5, 4);
    expect(read(0.5)).toEqual([null, null]);
    expect(read(0.5 + 2 / 16_383).at(-1)).toBeCloseTo(0.5 + 2 / 16_383, 4);
    // The same lower bits beneath other upper ones are another place.
    expect(read(0.25 + 2 / 16_383).at(-1)).toBeCloseTo(0.25 + 2 / 16_383, 4);
    decoder.forget(2);
    expect(read(0.25 + 2 / 16_383).at(-1)).toBeCloseTo(0.25 + 2 / 16_383, 4);
  });
});
