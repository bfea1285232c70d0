// @vitest-environment jsdom
import "fake-indexeddb/auto";
import { clear } from "idb-keyval";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Edit } from "@/api/types";
import type { Player } from "@/features/player";
import type { MixStore } from "@/store/mixStore";
import { SECOND, storeOf } from "@/test/mixes";
import { keptRides } from "./kept";
import { faderAt, Recorder } from "./recorder";

let store: MixStore;
let edits: Edit[];
let answers: boolean[];
let recorder: Recorder;
let detach: () => void;
const started = vi.fn((from?: number) => Promise.resolve(void from));
let jump: (from: number, to: number) => void;
const rides: [string, string, number | null][] = [];

beforeEach(async () => {
  await clear();
  edits = [];
  answers = [];
  rides.length = 0;
  started.mockClear();
  store = storeOf({
    edit: (edit) => {
      edits.push(edit);
      return Promise.resolve(answers.shift() ?? true);
    },
  });
  const player = {
    // The clock of the page in ms is the position here.
    positionAtTime: (when: number) => (when / 1000) * SECOND,
    ride: (track: string, part: string, value: number | null) => rides.push([track, part, value]),
    play: started,
    onJump: (listener: (from: number, to: number) => void) => {
      jump = listener;
      return () => undefined;
    },
  };
  recorder = new Recorder(store, player as unknown as Player);
  detach = recorder.attach();
});
afterEach(() => detach());

const play = (from = 0) => store.setState({ playing: true, playhead: from });
const stop = async (at: number) => {
  store.setState({ playing: false, playhead: at });
  await vi.waitFor(() => expect(recorder.traces).toEqual([]));
};

describe("a ride", () => {
  it("is one edit for all tracks, with each sample at the time of its event", async () => {
    store.setState({ modes: { music: "touch", speech: "latch" } });
    play();
    recorder.note("music", "level", -6, true, 1000);
    recorder.note("speech", "level", -3, true, 1500);
    expect(store.getState().writing).toEqual(["speech", "music"]);
    recorder.note("music", "level", -8, false, 2000);
    expect(store.getState().writing).toEqual(["speech"]);
    await stop(4 * SECOND);
    expect(edits).toEqual([
      {
        edit: "ride",
        passes: [
          { track: "speech", mode: "latch", start: 0, stop: 4 * SECOND, level: [[72000, -3, 1]] },
          {
            track: "music",
            mode: "touch",
            start: 0,
            stop: 4 * SECOND,
            level: [
              [48000, -6, 1],
              [96000, -8, 0],
            ],
          },
        ],
      },
    ]);
    expect(rides.filter(([, , value]) => value === null).map(([track]) => track)).toContain("music");
  });

  it("in write begins where the fader stands, and goes to touch afterwards", async () => {
    store.setState({ modes: { music: "write" } });
    play(2 * SECOND);
    await stop(3 * SECOND);
    expect(edits).toEqual([
      {
        edit: "ride",
        passes: [
          { track: "music", mode: "write", start: 2 * SECOND, stop: 3 * SECOND, level: [[96000, 0, 1]] },
        ],
      },
    ]);
    await vi.waitFor(() => expect(store.getState().modes).toEqual({ music: "touch" }));
  });

  it("writes nothing where nothing is touched, nor in read", async () => {
    store.setState({ modes: { music: "touch", speech: "read" } });
    play();
    recorder.note("speech", "level", -3, true, 500);
    await stop(SECOND);
    expect(edits).toEqual([]);
  });

  it("after a pre-roll counts from the playhead on", async () => {
    store.setState({ modes: { music: "write" }, playhead: 5 * SECOND });
    await recorder.ride(2);
    play(3 * SECOND);
    recorder.note("music", "level", -9, true, 4000);
    recorder.note("music", "level", -7, true, 6000);
    await stop(7 * SECOND);
    const [edit] = edits as Extract<Edit, { edit: "ride" }>[];
    expect(edit?.passes[0]).toMatchObject({ start: 5 * SECOND, stop: 7 * SECOND });
    expect(edit?.passes[0]?.level?.[0]).toEqual([5 * SECOND, -9, 1]);
  });

  it("punched in writes within the range only", async () => {
    store.setState({
      modes: { music: "write" },
      punch: true,
      range: { from: SECOND, to: 2 * SECOND, tracks: null },
    });
    play();
    recorder.note("music", "level", -9, true, 500);
    await stop(3 * SECOND);
    const [edit] = edits as Extract<Edit, { edit: "ride" }>[];
    expect(edit?.passes[0]).toMatchObject({ start: SECOND, stop: 2 * SECOND, level: [[SECOND, -9, 1]] });
  });

  it("ends where playing jumps, and a hand that stays goes on in the next pass", async () => {
    store.setState({ modes: { music: "touch", speech: "write" } });
    play();
    recorder.note("music", "level", -6, true, 1000);
    jump(2 * SECOND, 10 * SECOND);
    expect(store.getState().modes).toEqual({ music: "touch", speech: "touch" });
    recorder.note("music", "level", -6, false, 11_000);
    await stop(12 * SECOND);
    await vi.waitFor(() => expect(edits).toHaveLength(2));
    const [first, second] = edits as Extract<Edit, { edit: "ride" }>[];
    expect(first?.passes.map((p) => [p.track, p.mode, p.start, p.stop])).toEqual([
      ["speech", "write", 0, 2 * SECOND],
      ["music", "touch", 0, 2 * SECOND],
    ]);
    expect(second?.passes).toEqual([
      {
        track: "music",
        mode: "touch",
        start: 10 * SECOND,
        stop: 12 * SECOND,
        level: [
          [10 * SECOND, -6, 1],
          [11 * SECOND, -6, 0],
        ],
      },
    ]);
  });

  it("lets a control go when its pass is kept, unless the next pass has it already", async () => {
    store.setState({ modes: { music: "latch", speech: "latch" } });
    play();
    for (const track of ["music", "speech"]) recorder.note(track, "level", -6, true, 1000);
    jump(2 * SECOND, 4 * SECOND);
    recorder.note("music", "level", -3, true, 4100);
    recorder.note("music", "level", -3, false, 4200);
    rides.length = 0;
    await vi.waitFor(() => expect(edits).toHaveLength(1));
    await vi.waitFor(() => expect(rides).toContainEqual(["music", "pan", null]));
    expect(rides).not.toContainEqual(["music", "level", null]);
    await stop(5 * SECOND);
    await vi.waitFor(() => expect(rides).toContainEqual(["music", "level", null]));
  });

  it("shows what is written while it is written, and until it is kept", async () => {
    store.setState({ modes: { music: "latch" } });
    play();
    expect(recorder.traces).toEqual([{ track: "music", samples: [], whole: true, live: false }]);
    recorder.note("music", "level", -6, true, 1000);
    recorder.note("music", "level", -7, false, 1500);
    expect(recorder.traces[0]?.live).toBe(true);
    store.setState({ playing: false, playhead: 2 * SECOND });
    expect(recorder.traces).toMatchObject([{ track: "music", live: false, samples: [{}, {}] }]);
    await vi.waitFor(() => expect(recorder.traces).toEqual([]));
  });

  it("counts in where there is nothing to play before it, and can be called off meanwhile", async () => {
    vi.useFakeTimers({ toFake: ["setTimeout", "performance"] });
    const count = () => (store.getState().countIn ?? NaN) - performance.now();
    store.setState({ playhead: SECOND });
    void recorder.ride(3);
    expect(count()).toBeCloseTo(3000);
    await vi.advanceTimersByTimeAsync(1900);
    expect(started).not.toHaveBeenCalled();
    await vi.advanceTimersByTimeAsync(200);
    expect(started).toHaveBeenCalledExactlyOnceWith(0);
    await vi.advanceTimersByTimeAsync(1000);
    expect(store.getState().countIn).toBeNull();
    void recorder.ride(3);
    store.setState({ countIn: null });
    await vi.advanceTimersByTimeAsync(5000);
    expect(started).toHaveBeenCalledTimes(1);
    vi.useRealTimers();
  });

  it("that cannot be sent is kept, and sent when the connection is back", async () => {
    answers = [false];
    store.setState({ modes: { music: "write" }, offline: true });
    play();
    await stop(SECOND);
    await vi.waitFor(() => expect(edits).toHaveLength(1));
    expect(await keptRides("p")).toEqual(edits);
    store.setState({ offline: false });
    window.dispatchEvent(new Event("online"));
    await vi.waitFor(() => expect(edits).toHaveLength(2));
    expect(edits[1]).toEqual(edits[0]);
    await vi.waitFor(async () => expect(await keptRides("p")).toEqual([]));
  });
});

describe("a ride that is sent", () => {
  it("is under a lock that all windows of the project share, and said to be on its way", async () => {
    const request = vi.fn((_name: string, work: () => Promise<unknown>) => work());
    Object.defineProperty(navigator, "locks", { configurable: true, value: { request } });
    store.setState({ modes: { music: "write" } });
    play();
    store.setState({ playing: false, playhead: SECOND });
    expect(store.getState().keeping).toBe(true);
    await vi.waitFor(() => expect(store.getState().keeping).toBe(false));
    expect(edits).toHaveLength(1);
    expect(request.mock.calls.map(([name]) => name)).toEqual(["wattage rides p"]);
    Reflect.deleteProperty(navigator, "locks");
  });

  it("is not sent again where it was refused for what it is", async () => {
    answers = [false];
    store.setState({ modes: { music: "write" } });
    play();
    await stop(SECOND);
    expect(await keptRides("p")).toEqual([]);
  });
});

describe("while another state is heard", () => {
  const hearing = { revision: 1, name: "A", present: storeOf().getState() };

  it("nothing is ridden", async () => {
    store.setState({ modes: { music: "write" }, hearing });
    play();
    await stop(SECOND);
    expect(edits).toEqual([]);
  });

  it("what was ridden before is kept, and sent when the present is back", async () => {
    answers = [false];
    store.setState({ modes: { music: "write" } });
    play();
    store.setState({ hearing });
    await stop(SECOND);
    await vi.waitFor(() => expect(edits).toHaveLength(1));
    store.setState({ hearing: null });
    await vi.waitFor(() => expect(edits).toHaveLength(2));
    await vi.waitFor(async () => expect(await keptRides("p")).toEqual([]));
  });
});

describe("where a fader stands", () => {
  it("is as its lane has it at the moment, or as it is set", () => {
    const track = { id: "t", name: "T", stem: "music" as const, fader: -5, pan: 0, muted: false };
    expect(faderAt(track, 100)).toBe(-5);
    const level = [
      { at: 1000, level: -10, ramp: "line" as const },
      { at: 2000, level: -20, ramp: "hold" as const },
      { at: 3000, level: "silence" as const, ramp: "line" as const },
    ];
    const ridden = { ...track, lanes: { level } };
    expect([0, 1500, 2500, 4000].map((at) => faderAt(ridden, at))).toEqual([-10, -15, -20, -60]);
    expect(faderAt({ ...ridden, lanes: { level, off: true } }, 1500)).toBe(-5);
  });
});
