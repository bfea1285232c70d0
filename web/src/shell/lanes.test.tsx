// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api } from "@/api/client";
import type { Edit, Figures, Keyframe, LanePart } from "@/api/schema";
import type { Player } from "@/player/player";
import { type Recorder } from "@/ride/recorder";
import { RecorderContext } from "@/ride/context";
import { layOut } from "@/scene/geometry";
import { MixContext } from "@/store/context";
import type { MixState, MixStore } from "@/store/mixStore";
import { opened, SECOND, storeOf } from "@/test/mixes";
import { COMMANDS, type Desk } from "@/commands";
import { DuckPanel } from "@/features/ducking/DuckPanel";
import { PRESETS, ruleBy } from "@/features/ducking/duckRules";
import { Heads } from "@/features/heads/Heads";
import { Inspector } from "@/features/levels/Inspector";

const heard = vi.hoisted(() => ({ moment: 0 }));
vi.mock("@/player", async (original) => ({
  ...(await original<object>()),
  useLevels: () => null,
  useMoment: () => heard.moment,
  usePlayer: () => ({ seek: () => undefined, ride: () => undefined, position: heard.moment }),
}));
vi.stubGlobal(
  "ResizeObserver",
  class {
    observe() {}
    unobserve() {}
    disconnect() {}
  },
);

const key = (seconds: number, level: number): Keyframe => ({ at: seconds * SECOND, level, ramp: "line" });
let store: MixStore;
let edits: Edit[];
const recorder = { isRiding: vi.fn(() => false), isWriting: () => false, note: vi.fn() };

beforeEach(() => {
  edits = [];
  heard.moment = 0;
  const tracks = opened().mix.tracks.map((track) =>
    track.id === "music"
      ? {
          ...track,
          lanes: {
            level: [key(2, -6), key(6, -12)],
            pan: [
              { at: 0, pan: -0.5 },
              { at: 4 * SECOND, pan: 0.5 },
            ],
            mute: [
              { at: 8 * SECOND, muted: true },
              { at: 9 * SECOND, muted: false },
            ],
          },
          ducking: { curve: [key(9, 0), key(10, -8)] },
        }
      : track,
  );
  store = storeOf({
    tracks,
    edit: (edit) => {
      edits.push(edit);
      return Promise.resolve(true);
    },
  });
});
afterEach(cleanup);

function show(part: LanePart | null, more: Partial<MixState> = {}) {
  store.setState({ activeLane: part ? { music: part } : {}, ...more });
  render(
    <QueryClientProvider client={new QueryClient()}>
      <MixContext value={store}>
        <RecorderContext value={recorder as unknown as Recorder}>
          <Inspector />
        </RecorderContext>
      </MixContext>
    </QueryClientProvider>,
  );
}

const type = async (field: HTMLElement, text: string) => {
  await userEvent.clear(field);
  await userEvent.type(field, `${text}{Enter}`);
};
const range = { from: 10 * SECOND, to: 12 * SECOND, tracks: ["music"] };

describe("the lane that is worked on", () => {
  it("is listed with times and levels, and says how it differs from the wire of a clip", async () => {
    show("level");
    const section = screen.getByRole("region", { name: "The level lane of Music" });
    expect(section.textContent).toContain("stays on the timeline");
    const levels = within(section).getAllByLabelText("Keyframe level");
    expect(levels.map((field) => (field as HTMLInputElement).value)).toEqual(["−6.0", "−12.0"]);
    await type(levels[1] as HTMLElement, "-9");
    expect(edits).toEqual([
      { edit: "set-keyframe", track: "music", lane: "level", keyframe: 6 * SECOND, level: "-9" },
    ]);
  });

  it("is chosen as a whole, cleared in the range, and copied to another track", async () => {
    show("level", { range });
    await userEvent.click(screen.getByRole("button", { name: "Choose all" }));
    expect(store.getState().chosen).toEqual([
      { track: "music", lane: "level", keyframes: [2 * SECOND, 6 * SECOND] },
    ]);
    await userEvent.click(screen.getByRole("button", { name: "Clear the range" }));
    await userEvent.selectOptions(screen.getByLabelText("Copy this lane to"), "speech");
    expect(edits).toEqual([
      { edit: "clear-lane", track: "music", lane: "level", from: range.from, to: range.to },
      { edit: "copy-lane", track: "music", lane: "level", to: ["speech"] },
    ]);
  });

  it("of ducking says when it is out of date", () => {
    show("ducking", { figures: { outOfDate: ["music"] } as unknown as Figures });
    expect(screen.getByRole("button", { name: "Bring up to date" })).toBeTruthy();
  });

  it("of pan takes pans as people type them, and lets points go", async () => {
    show("pan");
    const [, second] = screen.getAllByRole("textbox", { name: "Pan" });
    await type(second as HTMLElement, "30 left");
    await userEvent.click(screen.getAllByRole("button", { name: "Remove this pan point" })[0] as HTMLElement);
    expect(edits).toEqual([
      { edit: "set-pan-point", track: "music", point: 4 * SECOND, pan: -0.3 },
      { edit: "remove-pan-points", track: "music", points: [0] },
    ]);
  });

  it("of mute moves where a mute begins: earlier mutes, later lets be heard", async () => {
    show("mute");
    await type(screen.getByLabelText("Muted from"), "00:00:07:00");
    await type(screen.getByLabelText("Muted to"), "00:00:08:12");
    await userEvent.click(screen.getByRole("button", { name: "Remove this mute" }));
    const span = { edit: "set-mute-range", track: "music" };
    expect(edits).toEqual([
      { ...span, from: 7 * SECOND, to: 8 * SECOND, muted: true },
      { ...span, from: 8.48 * SECOND, to: 9 * SECOND, muted: false },
      { ...span, from: 8 * SECOND, to: 9 * SECOND, muted: false },
    ]);
  });

  it("gives way to a clip that is selected on another track", () => {
    show("level", { selected: ["voice"] });
    expect(screen.queryByRole("region", { name: /lane of Music/ })).toBeNull();
  });
});

describe("a range on a lane", () => {
  it("works on the level lane in place of clips", async () => {
    show("level", { range });
    expect(screen.getByText(/Works on the level lane of Music\./)).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "Dip" }));
    expect(edits).toEqual([
      expect.objectContaining({
        edit: "dip-range",
        track: "music",
        lane: "level",
        by: -11,
        from: range.from,
      }),
    ]);
  });

  it("is brought to one side, muted, or heard", async () => {
    show("pan", { range });
    await type(screen.getByLabelText("Pan over the range"), "R20");
    cleanup();
    show("mute", { range });
    await userEvent.click(screen.getByRole("button", { name: "Mute here" }));
    expect(edits).toEqual([
      { edit: "set-pan-range", track: "music", from: range.from, to: range.to, pan: 0.2, ramp: 19200 },
      { edit: "set-mute-range", track: "music", from: range.from, to: range.to, muted: true },
    ]);
  });
});

describe("keys on a lane", () => {
  const run = (id: string) => {
    const command = COMMANDS.flatMap((group) => group.commands).find((c) => c.id === id);
    const player = { position: heard.moment, seek: vi.fn() } as unknown as Player;
    command?.run({ store, player } as unknown as Desk, store.getState());
    return player;
  };

  it("begin a range on its track", () => {
    store.setState({ activeLane: { music: "pan" }, playhead: 3 * SECOND });
    run("range-in");
    expect(store.getState().range).toMatchObject({ from: 3 * SECOND, tracks: ["music"] });
    store.setState({ range: null, selected: ["voice"] });
    run("range-in");
    expect(store.getState().range?.tracks).toEqual(["speech"]);
  });

  it("go through its keyframes, add one, and lift what is chosen", () => {
    store.setState({ activeLane: { music: "level" } });
    const player = run("keyframe-after");
    expect(store.getState().chosen).toEqual([{ track: "music", lane: "level", keyframes: [2 * SECOND] }]);
    expect(player.seek).toHaveBeenCalledWith(2 * SECOND);
    run("up-1");
    store.setState({ chosen: [], playhead: 3 * SECOND });
    run("keyframe");
    expect(edits).toEqual([
      {
        edit: "move-keyframes",
        chosen: [{ track: "music", lane: "level", keyframes: [2 * SECOND] }],
        later: 0,
        by: 1,
      },
      { edit: "add-keyframe", track: "music", lane: "level", at: 3 * SECOND },
    ]);
  });
});

describe("a head", () => {
  const heads = () =>
    render(
      <MixContext value={store}>
        <RecorderContext value={recorder as unknown as Recorder}>
          <Heads layout={layOut(store.getState().tracks, 600)} width={208} />
        </RecorderContext>
      </MixContext>,
    );

  it("shows fader and pan where the lanes have them at the moment heard", async () => {
    heard.moment = 4 * SECOND;
    heads();
    expect(screen.getByTestId("lane-level-music").textContent).toBe("−9.0");
    await userEvent.click(screen.getByRole("button", { name: /^Lane of Music/ }));
    expect(screen.getByRole("slider", { name: "Pan of Music" }).getAttribute("aria-valuetext")).toBe(
      "50 right",
    );
    await userEvent.keyboard("{Escape}");
    expect(screen.getByRole("slider", { name: "Fader of Narrator" }).getAttribute("aria-valuetext")).toBe(
      "0.0 dB",
    );
  });

  it("chooses which lane is edited and how the track is ridden", async () => {
    heads();
    await userEvent.click(screen.getByRole("button", { name: "Lane of Music: shows levels of its clips" }));
    await userEvent.click(screen.getByRole("radio", { name: "pan" }));
    expect(store.getState().activeLane).toEqual({ music: "pan" });
    await userEvent.click(screen.getByRole("radio", { name: "touch" }));
    expect(store.getState().modes).toEqual({ music: "touch" });
    expect(screen.getByLabelText("Lane of Music: shows pan · touch")).toBeDefined();
  });

  it("hands its small fader to the ride that is under way", async () => {
    store.setState({ playing: true });
    recorder.isRiding.mockReturnValue(true);
    heads();
    screen.getByRole("slider", { name: "Fader of Narrator" }).focus();
    await userEvent.keyboard("{ArrowDown}");
    await vi.waitFor(() => expect(recorder.note).toHaveBeenCalledTimes(2));
    const rows = recorder.note.mock.calls.map(([track, part, , held]: unknown[]) => [track, part, held]);
    expect(rows).toEqual([
      ["speech", "level", true],
      ["speech", "level", false],
    ]);
    expect(edits).toEqual([]);
    recorder.isRiding.mockReturnValue(false);
  });
});

describe("clips that speak", () => {
  it("are picked by selecting them while the rule is open, and let go again", async () => {
    vi.spyOn(api, "ducking").mockResolvedValue({
      moments: [],
      dips: [],
      lanes: [],
      taken: null,
      edit: { edit: "duck", lanes: [] },
    });
    const [preset] = PRESETS;
    if (!preset) throw new Error("no presets");
    store.setState({ duckDraft: ruleBy(preset, store.getState().tracks, { clearance: 15, clarity: 75 }) });
    render(
      <QueryClientProvider client={new QueryClient()}>
        <MixContext value={store}>
          <DuckPanel />
        </MixContext>
      </QueryClientProvider>,
    );
    const group = screen.getByRole("group", { name: "Clips that speak" });
    expect(within(group).getByRole("button").getAttribute("aria-disabled")).toBe("true");
    store.setState({ selected: ["voice"] });
    await userEvent.click(await within(group).findByRole("button", { name: "“Narrator” speaks" }));
    expect(store.getState().duckDraft?.clips).toEqual(["voice"]);
    await userEvent.click(within(group).getByRole("button", { name: "Leave Narrator out" }));
    expect(store.getState().duckDraft?.clips).toEqual([]);
  });
});
