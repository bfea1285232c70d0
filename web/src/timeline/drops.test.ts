import { describe, expect, it } from "vitest";
import { SECOND, storeOf } from "@/test/mixes";
import { dropAt, dropped, spokenDrop } from "./drops";
import { layOut, type View, xOf } from "@/scene/geometry";

const view: View = { start: 0, perPx: (40 * SECOND) / 800 };
const x = (seconds: number) => xOf(view, seconds * SECOND);
const carried = { source: "take", name: "Take two.wav" };

function stage(part: Parameters<typeof storeOf>[0] = {}) {
  const state = storeOf(part).getState();
  const layout = layOut(state.tracks, 600);
  const lane = (track: string) => layout.lanes.find((l) => l.track.id === track)?.top ?? 0;
  return { state, layout, view, lane };
}

describe("a dropped recording", () => {
  it("is placed on a free part of a lane, where the ghost showed it", () => {
    const on = stage();
    const drop = dropAt(on, x(30), on.lane("music") + 20, true);
    expect(drop).toMatchObject({ kind: "place", at: 30 * SECOND });
    expect(spokenDrop(on.state, drop)).toBe("00:00:30:00 · on Music");
    if (drop.kind === "refused") throw new Error(drop.why);
    expect(dropped(drop, carried).edit).toMatchObject({
      edit: "add-clip",
      track: "music",
      source: "take",
      at: 30 * SECOND,
    });
  });

  it("takes the place of a clip it is dropped onto, or is placed there with Alt", () => {
    const on = stage();
    const drop = dropAt(on, x(4), on.lane("speech") + 20, false);
    if (drop.kind !== "replace") throw new Error(drop.kind);
    expect(spokenDrop(on.state, drop)).toContain("Replace the sound of “Narrator”");
    expect(dropped(drop, carried)).toEqual({
      edit: { edit: "replace-sound", clip: "voice", source: "take" },
      clip: "voice",
    });
    expect(dropAt(on, x(4), on.lane("speech") + 20, true).kind).toBe("place");
  });

  it("makes a track of the fitting kind on empty space", () => {
    const on = stage({ tracks: [], clips: {} });
    for (const [y, stem] of [
      [5, "speech"],
      [590, "music"],
    ] as const) {
      const drop = dropAt(on, x(3), y, true);
      if (drop.kind !== "fresh") throw new Error(drop.kind);
      expect(dropped(drop, carried).edit).toMatchObject({ stem, name: "Take two", at: 3 * SECOND });
    }
  });

  it("says why not, on the horizon and on a locked track", () => {
    const on = stage();
    expect(spokenDrop(on.state, dropAt(on, x(3), on.layout.horizon.top + 4, false))).toContain(
      "above the horizon",
    );
    const tracks = on.state.tracks.map((t) => ({ ...t, locked: true }));
    const locked = stage({ tracks });
    expect(spokenDrop(locked.state, dropAt(locked, x(30), locked.lane("music") + 9, false))).toContain(
      "“Music” is locked",
    );
  });
});
