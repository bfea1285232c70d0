import { snapTo } from "@/preview/snap";
import { describe, expect, it } from "vitest";
import type { Stem, Track } from "@/api/schema";
import { dbOfHeight, dragDb, heightOfDb, laneAt, layOut, yOfDb } from "./geometry";
import { clampView, fitSpan, zoomBy } from "./viewport";

const track = (id: string, stem: Stem): Track => ({ id, name: id, stem, fader: 0, pan: 0, muted: false });

describe("the horizon", () => {
  const layout = layOut([track("music", "music"), track("voice", "speech"), track("hum", "ambience")], 680);

  it("has speech above it and everything else beneath, whatever the order of tracks", () => {
    const [voice, music, hum] = ["voice", "music", "hum"].map((id) =>
      layout.lanes.find((l) => l.track.id === id),
    );
    expect(voice && voice.top + voice.height).toBeLessThanOrEqual(layout.horizon.top);
    expect(music?.top).toBeGreaterThan(layout.horizon.top);
    expect(hum?.top).toBeGreaterThan(music?.top ?? 0);
  });

  it("leaves room for the frames of a film, and less of it where the window is low", () => {
    const tracks = [track("voice", "speech"), track("music", "music")];
    const [high, low, none] = [
      layOut(tracks, 700, {}, true),
      layOut(tracks, 500, {}, true),
      layOut(tracks, 700),
    ];
    expect([high.film.height, low.film.height, none.film.height]).toEqual([44, 30, 0]);
    expect(high.lanes[0]?.top).toBe(high.caption.top + high.caption.height);
    expect(none.caption.top).toBe(0);
  });

  it("scrolls where many tracks need more room than there is", () => {
    const many = layOut(
      Array.from({ length: 20 }, (_, i) => track(`t${i}`, "music")),
      680,
    );
    expect(many.height).toBeGreaterThan(1000);
  });
});

describe("levels as heights", () => {
  it("go there and back", () => {
    for (const db of [24, 13.3, 0, -4.5, -11, -30, -75])
      expect(dbOfHeight(heightOfDb(db))).toBeCloseTo(db, 9);
    expect(dbOfHeight(0)).toBe(-Infinity);
  });

  it("are higher when louder, in every lane", () => {
    for (const lane of layOut([track("v", "speech"), track("m", "music")], 600).lanes) {
      expect(yOfDb(lane, 0)).toBeLessThan(yOfDb(lane, -12));
      expect(dragDb(lane, -6, -10)).toBeGreaterThan(-6);
      expect(dragDb(lane, -6, 10)).toBeLessThan(-6);
      expect(dragDb(lane, -6, 0)).toBeCloseTo(-6, 9);
    }
  });
});

describe("the view", () => {
  const mix = { length: 48000 * 600, rate: 48000 };

  it("never leaves the programme", () => {
    expect(clampView({ start: -500, perPx: 100 }, 800, mix).start).toBe(0);
    expect(clampView({ start: 1e12, perPx: 100 }, 800, mix).start).toBeLessThan(mix.length * 1.1);
    expect(clampView({ start: 0, perPx: 0.001 }, 800, mix).perPx).toBe(0.05);
  });

  it("keeps what is zoomed at in its place", () => {
    const view = { start: 48000 * 100, perPx: 4800 };
    const at = view.start + 200 * view.perPx;
    const closer = zoomBy(view, 0.5, 800, mix, at);
    expect((at - closer.start) / closer.perPx).toBeCloseTo(200, 1);
  });

  it("shows a span with a margin", () => {
    const view = fitSpan(48000 * 10, 48000 * 20, 800, mix);
    expect(view.start).toBeLessThan(48000 * 10);
    expect(view.start + 800 * view.perPx).toBeGreaterThan(48000 * 20);
  });
});

describe("lanes", () => {
  it("leave room beneath, however many there are, where something can be dropped for a new track", () => {
    const of = (count: number) =>
      Array.from({ length: count }, (_, i) => track(`t${i}`, i % 2 ? "music" : "speech"));
    for (const count of [1, 2, 6, 40])
      for (const available of [500, 700, 2000]) {
        const layout = layOut(of(count), available);
        const bottom = Math.max(...layout.lanes.map((lane) => lane.top + lane.height));
        expect(layout.height - bottom).toBeGreaterThanOrEqual(38);
        expect(laneAt(layout, layout.height - 10)).toBeNull();
      }
  });
});

describe("snapping", () => {
  it("goes to the nearest within reach, and nowhere else", () => {
    expect(snapTo(105, [0, 100, 108], 8)).toBe(108);
    expect(snapTo(150, [0, 100], 8)).toBe(150);
  });
});
