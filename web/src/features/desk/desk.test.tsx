// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api } from "@/api/client";
import type { Edit } from "@/api/schema";
import type { Levels } from "@/player/mixer";
import { type Recorder } from "@/ride/recorder";
import { RecorderContext } from "@/ride/context";
import { MixContext } from "@/store/context";
import type { MixStore } from "@/store/mixStore";
import { SECOND, storeOf } from "@/test/mixes";
import { averageAt, heightOf, SCALES } from "./scale";
import { DeskView } from "./DeskView";

const heard = vi.hoisted(() => ({ levels: null as Levels | null }));
vi.mock("@/player", async (original) => ({
  ...(await original<object>()),
  useLevels: () => heard.levels,
  useMoment: () => 2 * 48000 + 100,
  usePlayer: () => ({ seek: () => undefined, ride: () => undefined, position: 0 }),
}));
vi.stubGlobal(
  "ResizeObserver",
  class {
    observe() {}
    unobserve() {}
    disconnect() {}
  },
);

let store: MixStore;
let edits: Edit[];
const recorder = { isRiding: vi.fn(() => false), isWriting: () => false, note: vi.fn() };
const reading = (peak: number, average: number) => ({
  peak: [peak, peak - 1] as [number, number],
  average: [average, average] as [number, number],
});

beforeEach(() => {
  localStorage.clear();
  edits = [];
  store = storeOf({
    edit: (edit) => {
      edits.push(edit);
      return Promise.resolve(true);
    },
  });
  heard.levels = {
    programme: reading(1.2, -12),
    stems: { speech: reading(-6, -20) },
    tracks: { speech: reading(-6, -20), music: reading(-14, -31) },
  };
  const row = (of: string, m: number | null) => ({
    of,
    momentary: [...Array<null>(20).fill(null), m],
    shortTerm: Array<number>(21).fill(-27.5),
  });
  vi.spyOn(api, "moments").mockResolvedValue({
    meters: [
      row("programme", -17.3),
      row("speech", -18.1),
      row("track speech", -18.1),
      row("track music", null),
    ],
  });
});
afterEach(cleanup);

function show() {
  render(
    <QueryClientProvider client={new QueryClient()}>
      <MixContext value={store}>
        <RecorderContext value={recorder as unknown as Recorder}>
          <DeskView timeline={null} />
        </RecorderContext>
      </MixContext>
    </QueryClientProvider>,
  );
}

describe("the scales of a meter", () => {
  // A sine of −20 dBFS peak has an RMS of −23.01: SMPTE RP 155 calls that 0 VU, EBU R 68 does so at −18.
  it.each([
    ["vu20", 0, -23],
    ["vu18", 0, -21],
    ["dbfs", -18, -18],
    ["lufs", -23, -26],
  ] as const)("%s reads %d at an average of %d dBFS", (id, value, average) => {
    expect(averageAt(SCALES[id], value)).toBe(average);
  });

  it("keep to the meter", () => {
    expect([heightOf(-Infinity), heightOf(-60), heightOf(30)]).toEqual([0, 0, 1]);
    expect(heightOf(-20)).toBeGreaterThan(heightOf(-21));
  });
});

describe("the desk", () => {
  it("shows tracks above the horizon first, then stems, then the programme, with what each reads", async () => {
    store.setState((s) => ({ tracks: [...s.tracks].reverse() }));
    show();
    const names = screen.getAllByRole("group").map((group) => group.getAttribute("aria-label"));
    expect(names).toEqual(["Narrator", "Music", "Speech stem", "Music stem", "Programme"]);
    const narrator = within(screen.getByRole("group", { name: "Narrator" }));
    expect(await narrator.findByText("−18.1")).toBeTruthy();
    expect(narrator.getByText("−27.5")).toBeTruthy();
    expect(narrator.getByText("−6.0")).toBeTruthy();
    expect(vi.mocked(api.moments)).toHaveBeenCalledWith("p", 1, 0);
  });

  it("keeps the mark of what was over until it is cleared", async () => {
    show();
    await userEvent.click(screen.getByRole("button", { name: "over: Programme" }));
    expect(screen.queryByRole("button", { name: "over: Programme" })).toBeTruthy();
    heard.levels = { programme: reading(-20, -30), stems: {}, tracks: {} };
    fireEvent.change(screen.getByLabelText("Scale"), { target: { value: "vu18" } });
    expect(screen.getByRole("button", { name: "over: Programme" })).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "over: Programme" }));
    expect(screen.queryByRole("button", { name: "over: Programme" })).toBeNull();
  });

  it("remembers its scale", () => {
    show();
    fireEvent.change(screen.getByLabelText("Scale"), { target: { value: "lufs" } });
    cleanup();
    show();
    expect(screen.getByLabelText<HTMLSelectElement>("Scale").value).toBe("lufs");
  });

  it("moves a fader by keys, and to 0 dB by a double click", async () => {
    show();
    const fader = screen.getByRole("slider", { name: "Tall fader of Narrator" });
    fader.focus();
    await userEvent.keyboard("{Shift>}{ArrowDown}{/Shift}");
    await vi.waitFor(() =>
      expect(edits).toEqual([{ edit: "set-faders", faders: [{ track: "speech", fader: -0.1 }] }]),
    );
    store.setState((s) => ({ tracks: s.tracks.map((t) => ({ ...t, fader: -7 })) }));
    fireEvent.doubleClick(fader);
    expect(edits.at(-1)).toEqual({ edit: "set-faders", faders: [{ track: "speech", fader: 0 }] });
  });

  it("moves linked faders by the same dB, and one alone when asked to", async () => {
    store.setState((s) => ({ tracks: s.tracks.map((t) => (t.id === "music" ? { ...t, fader: -10 } : t)) }));
    show();
    for (const name of ["Narrator", "Music"])
      await userEvent.click(screen.getByRole("button", { name: `Link the fader of ${name}` }));
    const fader = screen.getByRole("slider", { name: "Tall fader of Narrator" });
    fireEvent.keyDown(fader, { key: "ArrowDown" });
    await vi.waitFor(() => expect(edits).toHaveLength(1));
    expect(edits[0]).toEqual({
      edit: "set-faders",
      faders: [
        { track: "speech", fader: -1 },
        { track: "music", fader: -11 },
      ],
    });
    fireEvent.keyDown(fader, { key: "ArrowUp", altKey: true });
    await vi.waitFor(() => expect(edits).toHaveLength(2));
    expect(edits[1]).toEqual({ edit: "set-faders", faders: [{ track: "speech", fader: 1 }] });
  });

  it("sets faders of stems and programme, by typing and by keys", async () => {
    show();
    const field = screen.getByLabelText("Level of stem music in dB");
    await userEvent.clear(field);
    await userEvent.type(field, "-4.5{Enter}");
    fireEvent.keyDown(screen.getByRole("slider", { name: "Tall fader of the programme" }), {
      key: "ArrowUp",
    });
    await vi.waitFor(() => expect(edits).toHaveLength(2));
    expect(edits).toEqual([
      { edit: "set-stem-fader", stem: "music", fader: "-4.5" },
      { edit: "set-programme-fader", fader: 1 },
    ]);
  });

  it("hands what is ridden to the recorder, with when it was, and when the hand lets go", async () => {
    recorder.isRiding.mockReturnValue(true);
    store.setState({ playing: true, modes: { speech: "touch" } });
    show();
    fireEvent.keyDown(screen.getByRole("slider", { name: "Tall fader of Narrator" }), { key: "ArrowDown" });
    expect(recorder.note).toHaveBeenCalledWith("speech", "level", -1, true, expect.any(Number));
    await vi.waitFor(() =>
      expect(recorder.note).toHaveBeenCalledWith("speech", "level", -1, false, expect.any(Number)),
    );
    expect(edits).toEqual([]);
    recorder.isRiding.mockReturnValue(false);
  });

  it("says why a fader that follows its lane does not move", () => {
    store.setState((s) => ({
      tracks: s.tracks.map((t) =>
        t.id === "speech" ? { ...t, lanes: { level: [{ at: 0, level: -8, ramp: "line" as const }] } } : t,
      ),
    }));
    show();
    const fader = screen.getByRole("slider", { name: "Tall fader of Narrator" });
    expect(fader.getAttribute("aria-valuenow")).toBe("-8");
    fireEvent.keyDown(fader, { key: "ArrowDown" });
    expect(store.getState().notice?.text).toContain("follows its level lane");
    expect(edits).toEqual([]);
  });

  it("keeps lanes but does not follow them in mode off", async () => {
    show();
    await userEvent.selectOptions(screen.getByLabelText("How Music is ridden"), "off");
    expect(edits).toEqual([{ edit: "set-lanes-off", track: "music", off: true }]);
    await userEvent.selectOptions(screen.getByLabelText("How Narrator is ridden"), "latch");
    expect(store.getState().modes).toEqual({ speech: "latch" });
  });

  it("tells in words what is astray", () => {
    store.setState({
      figures: {
        outside: [],
        astray: [{ track: "speech", above: false, seconds: 12.4, worst: 4.1 }],
      } as never,
    });
    show();
    expect(screen.getByText("Narrator is up to 4.1 dB under its zone for 12 s.")).toBeTruthy();
    expect(store.getState().rate).toBe(SECOND);
  });
});
