import { describe, expect, it } from "vitest";
import type { Stretch } from "@/api/schema";
import { Envelope, valueAt } from "./envelope";

/** Notes what is written, with times as samples. */
class Notebook {
  readonly events: [string, number, number][] = [];
  setValueAtTime = (value: number, time: number) => this.note("set", value, time);
  linearRampToValueAtTime = (value: number, time: number) => this.note("line", value, time);
  exponentialRampToValueAtTime = (value: number, time: number) => this.note("exp", value, time);

  private note(kind: string, value: number, time: number) {
    this.events.push([kind, Number(value.toFixed(6)), time]);
    return this as unknown as AudioParam;
  }
}

function written(schedule: Stretch[], from: number, ...until: number[]) {
  const notebook = new Notebook();
  const envelope = new Envelope(notebook, schedule, (p) => p, from);
  for (const position of until) envelope.writeTo(position);
  return notebook.events;
}

describe("an envelope", () => {
  it("sets a constant once, and not again when it goes on", () => {
    expect(written([{ from: 0, to: 1000, db: [0, 0] }], 0, 300, 600, 1000)).toEqual([
      ["set", 1, 0],
      ["set", 1, 0],
    ]);
  });

  it("goes on with an exponential ramp exactly where it stopped", () => {
    const events = written([{ from: 0, to: 1000, db: [0, -20] }], 500, 750, 1000);
    expect(events.slice(1)).toEqual([
      ["set", 0.316228, 500],
      ["exp", 0.177828, 750],
      ["exp", 0.1, 1000],
    ]);
  });

  it("follows a bend from grid point to grid point, whatever it is asked for", () => {
    const bent: Stretch = { from: 0, to: 300, db: [0, 0, -12], grid: 96 };
    const points = written([bent], 0, 50, 200, 300).filter(([kind]) => kind === "line");
    expect(points.map(([, , time]) => time)).toEqual([96, 192, 288, 300]);
    expect(points[1]?.[1]).toBeCloseTo(valueAt(bent, 192), 6);
  });

  it("writes a step a quarter of a sample early, so that no sample misses it", () => {
    const events = written(
      [
        { from: 0, to: 100, db: [0, 0] },
        { from: 100, to: 200, db: [-6, 0] },
      ],
      0,
      200,
    );
    expect(events.slice(2).map(([, , time]) => time)).toEqual([99.75, 100]);
  });

  it("never ramps exponentially from or to nothing", () => {
    const events = written([{ from: 0, to: 100, gain: [0, 1] }], 0, 100);
    expect(events[events.length - 1]).toEqual(["line", 1, 100]);
  });
});
