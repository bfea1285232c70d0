import { describe, expect, it } from "vitest";
import { formatClock, formatSeconds } from "@/lib/format";
import { formatTimecode, frameAt, sampleOfTimecode, shortTimecode } from "@/preview/timecode";
import { notALength, notALevel, notANumber, notATime } from "./check";
import { parseShownTime } from "./parse";

describe("what a field knows by itself", () => {
  it("takes levels as people type them, and says what is wrong with others", () => {
    for (const level of ["-6", "−6 dB", "+3,5", "80%", "400 %", "-inf", "silence", ".5"])
      expect(notALevel(level, 24)).toBeNull();
    expect(notALevel("loud", 24)).toContain("“loud” is not a level");
    expect(notALevel("24.1", 24)).toContain("up to +24 dB");
    expect(notALevel("12.5", 12)).toContain("up to +12 dB");
    expect(notALevel("2000%", 24)).toContain("up to +24 dB");
    expect(notALevel("-5%", 24)).toContain("less than nothing");
  });

  it("takes numbers in their range", () => {
    for (const number of ["0", "500", "250 ms", "0,5"]) expect(notANumber(number, 0, 500, "ms")).toBeNull();
    expect(notANumber("−12.5", -60, 0, "dB")).toBeNull();
    expect(notANumber("near", 0, 500, "ms")).toContain("“near” is not a number");
    expect(notANumber("501", 0, 500, "ms")).toContain("from 0 to 500 ms");
    expect(notANumber("3", -60, -0.5, "dB")).toContain("from −60 to −0.5 dB");
  });

  it("takes times and lengths likewise", () => {
    for (const time of ["00:00:58:05", "00:01:00;02", "0:58.2", "1:02:03.5", "58", "58 s"])
      expect(notATime(time)).toBeNull();
    expect(notATime("soon")).toContain("is not a time");
    for (const length of ["0.4", "0,4 s", "250 ms", "12f"]) expect(notALength(length)).toBeNull();
    expect(notALength("a while")).toContain("is not a length");
  });
});

describe("times", () => {
  it("that are typed as timecode are the first sample of their frame, at every rate", () => {
    for (const frameRate of ["23.976", "24", "25", "29.97df", "29.97", "30", "59.94"]) {
      const rates = { rate: 48000, frameRate };
      for (const text of ["00:00:58:05", "00:10:00:00", "01:23:45:11"]) {
        const typed = frameRate === "29.97df" ? text.replace(/:(\d\d)$/, ";$1") : text;
        const sample = parseShownTime(typed, rates) ?? -1;
        expect(formatTimecode(sample, 48000, frameRate)).toBe(typed);
        expect(frameAt(sample - 1, 48000, frameRate)).toBe(frameAt(sample, 48000, frameRate) - 1);
      }
    }
    // SMPTE ST 12-1, from memory: frames 0 and 1 of a minute are left out, so that frame 1,800 is 00:01:00;02.
    expect(frameAt(sampleOfTimecode(60, 2, 48000, "29.97df") ?? -1, 48000, "29.97df")).toBe(1800);
  });

  it("have hours where there are some", () => {
    expect(formatClock(48000 * 58.2, 48000)).toBe("0:58.200");
    expect(formatClock(48000 * 3723.004, 48000)).toBe("1:02:03.004");
    expect(formatSeconds(75.25)).toBe("1:15.3");
    expect(formatSeconds(3675)).toBe("1:01:15.0");
    expect(shortTimecode(48000 * 75, 48000, "25")).toBe("01:15:00");
    expect(shortTimecode(48000 * 3675, 48000, "25")).toBe("01:01:15:00");
  });
});
