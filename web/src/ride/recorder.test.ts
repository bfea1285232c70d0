// @vitest-environment jsdom
import "fake-indexeddb/auto";
import { clear } from "idb-keyval";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Edit } from "@/api/schema";
import type { Player } from "@/player/player";
import type { MixStore } from "@/store/mixStore";
import { SECOND, storeOf } from "@/test/mixes";
import { keptRides, takeUpDrafts } from "./kept";
import { moveFader } from "./moveFader";
import { faderAt, Recorder } from "./recorder";

let store: MixStore;
let edits: Edit[];
let answers: boolean[];
let recorder: Recorder;
let detach: () => void;
const started = vi.fn((from?: number) => Promise.resolve(void from));
let jump: (from: number, to: number) => void;
const rides: [string, string, number | null][] = [];

const fakePlayer = () => ({
  // The clock of the page in ms is the position here.
  positionAtTime: (when: number) => (when / 1000) * SECOND,
  position: 0,
  ride: (track: string, part: string, value: number | null) => rides.push([track, part, value]),
  play: started,
  onJump: (listener: (from: number, to: number) => void) => {
    jump = listener;
    return () => undefined;
  },
});

beforeEach(async () => {
  localStorage.clear();
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
  recorder = new Recorder(store, fakePlayer() as unknown as Player);
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
        glide: 0.2,
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
        glide: 0.2,
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
});

describe("what is ridden", () => {
  const hands = () => ({ store, player: playerOf(), recorder });
  const playerOf = () => ({ position: 0, ride: vi.fn() }) as unknown as Player;

  it("only goes forward, whatever its clocks say", async () => {
    store.setState({ modes: { music: "touch" } });
    play();
    for (const [db, when] of [
      [-6, 1000],
      [-8, 980],
      [-10, 1010],
    ] as const)
      recorder.note("music", "level", db, true, when);
    await stop(2 * SECOND);
    const [edit] = edits as Extract<Edit, { edit: "ride" }>[];
    expect(edit?.passes[0]?.level).toEqual([
      [48000, -6, 1],
      [48000, -8, 1],
      [48480, -10, 1],
    ]);
  });

  it("stays where it was left while it goes on being written, until it is kept", async () => {
    store.setState({ modes: { music: "latch", speech: "touch" } });
    play();
    for (const [track, held] of [
      ["music", true],
      ["music", false],
      ["speech", true],
      ["speech", false],
    ] as const)
      moveFader(hands(), track, -20, held, 1000, false);
    expect(store.getState().grips).toEqual({ music: -20 });
    await stop(2 * SECOND);
    await vi.waitFor(() => expect(store.getState().grips).toEqual({}));
  });

  it("stands in write where it began to be written, and not where its lane goes", async () => {
    store.setState({ modes: { music: "write" } });
    play();
    expect(store.getState().grips).toEqual({ music: 0 });
    await stop(SECOND);
  });

  it("moves linked faders from where they stand, too", () => {
    store.setState({ modes: { music: "latch", speech: "latch" }, linked: ["music", "speech"] });
    play();
    moveFader(hands(), "music", -6, true, 1000, false);
    moveFader(hands(), "music", -6, false, 1100, false);
    moveFader(hands(), "music", -7, true, 1200, false);
    expect(store.getState().grips).toEqual({ music: -7, speech: -7 });
  });

  it("is not let go by an earlier edit that is answered late", async () => {
    let answer: (done: boolean) => void = () => undefined;
    store.setState({ edit: () => new Promise<boolean>((resolve) => (answer = resolve)) });
    moveFader(hands(), "music", -6, true, 1000, false);
    moveFader(hands(), "music", -6, false, 1100, false);
    moveFader(hands(), "music", -9, true, 1200, false);
    answer(true);
    await Promise.resolve();
    expect(store.getState().grips).toEqual({ music: -9 });
    moveFader(hands(), "music", -9, false, 1300, false);
    answer(true);
    await vi.waitFor(() => expect(store.getState().grips).toEqual({}));
  });

  it("leaves modes as they are, or turns all to read, when that is wanted", async () => {
    for (const [afterPass, mode] of [
      ["same", "write"],
      ["read", "read"],
    ] as const) {
      store.setState({ modes: { music: "write" }, afterPass });
      play();
      await stop(SECOND);
      expect(store.getState().modes).toEqual({ music: mode });
    }
  });

  it("says when it is not heard", () => {
    const tracks = store.getState().tracks.map((t) => (t.id === "music" ? { ...t, muted: true } : t));
    store.setState({ modes: { music: "touch" }, tracks });
    play();
    expect(store.getState().notice?.text).toMatch(/unheard: “.+” is muted/);
  });
});

describe("a ride whose page goes away", () => {
  it("is kept while it happens, as far as it went, and taken up by the next page", async () => {
    detach();
    vi.useFakeTimers({ toFake: ["setInterval", "clearInterval"] });
    let position = 0;
    const player = {
      ...fakePlayer(),
      get position() {
        return position;
      },
    };
    recorder = new Recorder(store, player as unknown as Player);
    detach = recorder.attach();
    await new Promise((settled) => setTimeout(settled, 20));
    store.setState({ modes: { music: "latch" } });
    play();
    recorder.note("music", "level", -6, true, 1000);
    position = 3 * SECOND;
    vi.advanceTimersByTime(1100);
    recorder.note("music", "level", -9, true, 3000);
    position = 4 * SECOND;
    window.dispatchEvent(new Event("pagehide"));
    vi.useRealTimers();
    detach();

    const next = new Recorder(store, player as unknown as Player);
    detach = next.attach();
    await vi.waitFor(() => expect(edits).toHaveLength(1));
    const [edit] = edits as Extract<Edit, { edit: "ride" }>[];
    expect(edit?.passes[0]).toMatchObject({
      mode: "latch",
      stop: 4 * SECOND,
      level: [
        [SECOND, -6, 1],
        [3 * SECOND, -9, 1],
      ],
    });
    expect(store.getState().notice?.text).toContain("interrupted");
    expect(store.getState().playhead).toBe(4 * SECOND);
    await vi.waitFor(async () => expect(await keptRides("p")).toEqual([]));
    expect(Object.keys(localStorage)).toEqual([]);
  });

  it("is let alone while the page that rides is still there", async () => {
    localStorage.setItem("wattage-ride p other", JSON.stringify({ edit: "ride", passes: [] }));
    const request = vi.fn((_name: string, options: unknown, work?: (lock: unknown) => unknown) =>
      Promise.resolve(typeof options === "object" ? work?.(null) : (options as () => unknown)()),
    );
    Object.defineProperty(navigator, "locks", { configurable: true, value: { request } });
    await takeUpDrafts(store);
    expect(edits).toEqual([]);
    expect(localStorage.getItem("wattage-ride p other")).not.toBeNull();
    Reflect.deleteProperty(navigator, "locks");
    localStorage.clear();
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
    expect(request.mock.calls.map(([name]) => name)).toContain("wattage rides p");
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
