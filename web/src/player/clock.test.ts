import { describe, expect, it } from "vitest";
import { Clock } from "./clock";

describe("the clock of events", () => {
  it("goes evenly where the sound's own goes in steps", () => {
    const clock = new Clock();
    const heard: number[] = [];
    for (let now = 1000; now < 1300; now += 7) {
      clock.observe(Math.floor((now - 1000) / 21) * 0.021, now); // a step every 21 ms
      heard.push(clock.at(now));
    }
    const gaps = heard.slice(4).map((time, i) => time - (heard[i + 3] ?? 0));
    expect(Math.min(...gaps)).toBeGreaterThan(0.006);
    expect(Math.max(...gaps)).toBeLessThan(0.012);
  });

  it("follows when the sound stood still for a while", () => {
    const clock = new Clock();
    for (let now = 0; now < 500; now += 10) clock.observe(now / 1000, now);
    for (let now = 500; now < 1500; now += 10) clock.observe(0.5 + Math.max(0, now - 800) / 1000, now);
    expect(clock.at(1500)).toBeCloseTo(1.2, 2);
  });
});
