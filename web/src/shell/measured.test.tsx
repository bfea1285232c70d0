// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { ReactNode } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api } from "@/api/client";
import type { Buried, Clip, Edit } from "@/api/schema";
import { type Player } from "@/player/player";
import { PlayerContext } from "@/player/context";
import { MixContext } from "@/store/context";
import { type MixStore, USUAL_AIM } from "@/store/mixStore";
import { soundingClips } from "@/store/screen";
import { figuresOf, SECOND, SILENT, storeOf } from "@/test/mixes";
import { openStretches, stretchAt } from "@/commands/buried";
import { ClearanceHead } from "@/features/heads/ClearanceHead";
import { EvenUpForm } from "@/features/levels/EvenUpForm";
import { Programme } from "@/features/speech/Programme";
import { SpeechPanel } from "@/features/speech/SpeechPanel";
import { SteadyForm } from "@/features/levels/SteadyForm";

const DIP: Edit = { edit: "dip-range", clips: ["bed"], from: 0, to: SECOND, by: -3, ramp: 480 };
const LIFT: Edit = { ...DIP, clips: ["voice"], by: 11.1 };

const voice = () => store.getState().clips.voice as Clip;

const buried = (from: number, part: Partial<Buried> = {}): Buried => ({
  from: from * SECOND,
  to: (from + 2) * SECOND,
  worst: 4.2,
  covering: "music",
  dipped: ["music"],
  dip: -11.1,
  dipEdit: { edit: "dips", dips: [] },
  lift: 11.1,
  liftEdit: LIFT,
  accepted: null,
  ...part,
});

const player = {
  seek: vi.fn<(to: number) => void>(),
  play: vi.fn<(from: number) => Promise<void>>(() => Promise.resolve()),
  stop: vi.fn(),
  position: 0,
};
let store: MixStore;
let edits: Edit[];

beforeEach(() => {
  // jsdom lays nothing out.
  vi.stubGlobal(
    "ResizeObserver",
    class {
      observe = vi.fn();
      disconnect = vi.fn();
    },
  );
  store = storeOf();
  edits = [];
  store.setState({
    edit: (edit) => {
      edits.push(edit);
      return Promise.resolve(true);
    },
  });
});

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
  player.seek.mockClear();
  player.play.mockClear();
});

function show(what: ReactNode) {
  const client = new QueryClient();
  return render(
    <QueryClientProvider client={client}>
      <MixContext value={store}>
        <PlayerContext value={player as unknown as Player}>{what}</PlayerContext>
      </MixContext>
    </QueryClientProvider>,
  );
}

describe("buried stretches", () => {
  it("are those that nobody has accepted, and one is at hand by choice or by where the playhead is", () => {
    store.setState({
      figures: figuresOf({ buried: [buried(1), buried(5, { accepted: "so be it" }), buried(9)] }),
    });
    expect(openStretches(store.getState()).map((b) => b.from / SECOND)).toEqual([1, 9]);
    expect(stretchAt(store.getState(), 6 * SECOND)?.accepted).toBe("so be it");
    store.setState({ stretch: 9 * SECOND });
    expect(stretchAt(store.getState(), 6 * SECOND)?.from).toBe(9 * SECOND);
    store.setState({ stretch: null });
    expect(stretchAt(store.getState(), 4 * SECOND)).toBeUndefined();
  });

  it("are gone through, and each offers what helps, as the edit that the server made", async () => {
    const all: Edit = { edit: "dips", dips: [DIP] };
    store.setState({ figures: figuresOf({ buried: [buried(1), buried(5, { worst: -3 })], clearAll: all }) });
    show(<SpeechPanel />);
    expect(screen.getByText("2 buried stretches")).toBeTruthy();
    expect(screen.getByText(/of the speech stands at least 15 LU above/).textContent).toContain("61 %");
    await userEvent.click(screen.getByRole("button", { name: "Dip Music −11.1 dB" }));
    await userEvent.click(screen.getByRole("button", { name: /^Lift speech/ }));
    await userEvent.click(screen.getByRole("button", { name: "Dip for all 2" }));
    expect(edits).toEqual([{ edit: "dips", dips: [] }, LIFT, all]);
    await userEvent.click(screen.getByRole("button", { name: "The next stretch" }));
    expect(player.seek).toHaveBeenCalledWith(1 * SECOND);
    await userEvent.click(screen.getByRole("button", { name: "The next stretch" }));
    expect(store.getState().stretch).toBe(5 * SECOND);
    expect(screen.getByText(/speech lies/)).toBeTruthy();
  });

  it("are accepted with a note, and looked at again", async () => {
    store.setState({ figures: figuresOf({ buried: [buried(1)] }) });
    show(<SpeechPanel />);
    await userEvent.click(screen.getByRole("button", { name: "Accept…" }));
    await userEvent.type(screen.getByLabelText("Why it is accepted"), "The sea wins.{Enter}");
    expect(edits).toEqual([{ edit: "accept-buried", from: SECOND, to: 3 * SECOND, note: "The sea wins." }]);
    cleanup();
    store.setState({ figures: figuresOf({ buried: [buried(1, { accepted: "The sea wins." })] }) });
    show(<SpeechPanel />);
    expect(screen.getByText("Nothing left buried")).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "Look at it again" }));
    expect(edits.at(-1)).toEqual({ edit: "accept-buried", from: SECOND, to: 3 * SECOND });
  });

  it("that no dip clears say why", () => {
    const none = { dip: null, dipEdit: null, lift: null, liftEdit: null };
    store.setState({ figures: figuresOf({ buried: [buried(1, { ...none, dipped: [] })] }) });
    show(<SpeechPanel />);
    expect(screen.getByText(/on a locked track/)).toBeTruthy();
    cleanup();
    store.setState({ figures: figuresOf({ buried: [buried(1, none)] }) });
    show(<SpeechPanel />);
    expect(screen.getByText(/No dip within 40 dB/)).toBeTruthy();
    expect(screen.queryByRole("button", { name: /^Dip/ })).toBeNull();
  });

  it("are heard in a loop, with a second before", async () => {
    store.setState({ figures: figuresOf({ buried: [buried(5)] }) });
    show(<SpeechPanel />);
    await userEvent.click(screen.getByRole("button", { name: "Listen" }));
    expect(player.play).toHaveBeenCalledWith(4 * SECOND);
    expect(store.getState().looping).toBe(true);
    expect(store.getState().range).toEqual({ from: 5 * SECOND, to: 7 * SECOND, tracks: null });
  });
});

describe("the aim", () => {
  it("is typed beside the strip, or chosen", async () => {
    store.setState({ figures: figuresOf() });
    show(
      <>
        <ClearanceHead top={0} height={60} />
        <SpeechPanel />
      </>,
    );
    expect(screen.getByRole("group", { name: "Clearance" }).textContent).toContain("61 % clear at");
    const field = screen.getByLabelText("Wanted clearance, LU");
    await userEvent.clear(field);
    await userEvent.type(field, "12,5{Enter}");
    await userEvent.selectOptions(screen.getByRole("combobox", { name: "Wanted clearance" }), "20");
    await userEvent.selectOptions(screen.getByLabelText("Loudness target"), "2");
    expect(edits).toEqual([
      { edit: "set-aim", clearance: 12.5 },
      { edit: "set-aim", clearance: 20 },
      { edit: "set-aim", loudness: -16, truePeak: -1 },
    ]);
  });

  it("says when nobody speaks", () => {
    store.setState({ figures: figuresOf({ clearPart: null }) });
    show(<SpeechPanel />);
    expect(screen.getByText(/Nobody speaks in this mix yet/)).toBeTruthy();
    expect(screen.queryByText(/is buried/)).toBeNull();
  });
});

describe("the loudness of the programme", () => {
  it("is told against its target in words, with what is outside its zone", () => {
    store.setState({
      aim: { ...USUAL_AIM, truePeak: -4 },
      figures: figuresOf({
        outside: [
          { track: "speech", from: 0, to: 3 * SECOND, by: -4 },
          { track: "speech", from: 9 * SECOND, to: 18 * SECOND, by: -6.5 },
          { track: "music", from: 0, to: SECOND, by: 2 },
        ],
        astray: [
          { track: "music", above: true, seconds: 1.2, worst: 2 },
          { track: "speech", above: false, seconds: 12, worst: 6.5 },
        ],
      }),
    });
    show(<Programme />);
    expect(screen.getByText(/5.3 LU louder than the target. .*passes −4.0 dBTP/)).toBeTruthy();
    expect(screen.getByText("Narrator is up to 6.5 dB under its zone for 12 s.")).toBeTruthy();
    expect(screen.getByText("Music is up to 2.0 dB above its zone for 1 s.")).toBeTruthy();
    fireEvent.click(screen.getByText("Narrator is up to 6.5 dB under its zone for 12 s."));
    expect(player.seek).toHaveBeenLastCalledWith(0);
    expect(within(screen.getByRole("table")).getAllByText("silent")).toHaveLength(3);
  });

  it("is on target within half a LU, and silent without sound", () => {
    store.setState({ figures: figuresOf({ verdict: { off: -0.4, met: true, mayPass: false } }) });
    show(<Programme />);
    expect(screen.getByText("On target.")).toBeTruthy();
    cleanup();
    store.setState({
      figures: figuresOf({ programme: SILENT, verdict: { off: null, met: false, mayPass: false } }),
    });
    show(<Programme />);
    expect(screen.getByText("The programme is silent.")).toBeTruthy();
  });

  it("has zones that can be typed, left open below, and set back", async () => {
    store.setState({ figures: figuresOf() });
    show(<Programme />);
    const type = async (label: string, text: string) => {
      const field = screen.getByLabelText(label);
      await userEvent.clear(field);
      await userEvent.type(field, `${text}{Enter}`);
    };
    await type("Highest average of Music, dBFS", "−24,5");
    await type("Lowest average of Speech, dBFS", "any");
    await type("Lowest average of Music, dBFS", "soft");
    await userEvent.click(screen.getByRole("button", { name: "The usual zone for Speech" }));
    expect(edits).toEqual([
      { edit: "set-zone", stem: "music", high: -24.5 },
      { edit: "set-zone", stem: "speech", high: -14 },
      { edit: "set-zone", stem: "speech" },
    ]);
  });

  it("over time leads to its loudest moment by keyboard", async () => {
    store.setState({ figures: figuresOf({ history: [-30, -20, -12, null, -25] }) });
    show(<Programme />);
    const history = screen.getByRole("button", { name: /at most −12.0 LUFS/ });
    history.focus();
    await userEvent.keyboard("{Enter}");
    expect(player.seek).toHaveBeenCalledWith(3.5 * SECOND);
  });
});

describe("plans that are looked at first", () => {
  it("even up: a table, limits in words, and the edit only on demand", async () => {
    store.setState({ selected: ["voice", "bed"] });
    const gains: Edit = { edit: "set-clip-gains", gains: [{ clip: "voice", gain: 3 }] };
    const ask = vi.spyOn(api, "evenUp").mockResolvedValue({
      rows: [
        { clip: "voice", now: -26, target: -20, by: 6, after: -20, limit: null },
        { clip: "bed", now: -9, target: -30, by: 0, after: -9, limit: "peak" },
      ],
      edit: gains,
      clips: [{ ...voice(), level: 3 }],
    });
    const done = vi.fn();
    show(<EvenUpForm onDone={done} />);
    expect(await screen.findByText("+6.0 dB")).toBeTruthy();
    expect(screen.getByText("peak at its limit: tame it first")).toBeTruthy();
    await userEvent.selectOptions(screen.getAllByRole("combobox")[1] as HTMLElement, "number");
    const level = screen.getByLabelText("Level in dBFS");
    await userEvent.clear(level);
    await userEvent.type(level, "loud");
    expect(level.getAttribute("aria-invalid")).toBe("true");
    expect(screen.getByRole("button", { name: "Even up" }).getAttribute("aria-disabled")).toBe("true");
    await userEvent.clear(level);
    await userEvent.type(level, "-24");
    await vi.waitFor(() =>
      expect(ask).toHaveBeenLastCalledWith("p", { clips: ["voice", "bed"], by: "average", to: -24 }),
    );
    expect(edits).toEqual([]);
    await userEvent.click(screen.getByRole("button", { name: "Even up" }));
    expect(edits).toEqual([gains]);
    expect(done).toHaveBeenCalledOnce();
  });

  it("are heard as they would be and as it is, from wherever one presses, until they are left", async () => {
    store.setState({ selected: ["voice"] });
    vi.spyOn(api, "evenUp").mockResolvedValue({
      rows: [{ clip: "voice", now: -26, target: -20, by: 6, after: -20, limit: null }],
      edit: { edit: "set-clip-gains", gains: [{ clip: "voice", gain: 6 }] },
      clips: [{ ...voice(), level: 6 }],
    });
    const heard = () => soundingClips(store.getState()).voice?.level;
    const was = voice().level;
    const { unmount: leave } = show(<EvenUpForm onDone={vi.fn()} />);
    await vi.waitFor(() => expect(heard()).toBe(6));
    await userEvent.click(screen.getByRole("radio", { name: "as it is" }));
    expect(heard()).toBe(was);
    await userEvent.click(screen.getByRole("radio", { name: "as it would be" }));
    expect(heard()).toBe(6);
    await userEvent.click(screen.getByRole("button", { name: "Hear it" }));
    expect(player.play).toHaveBeenLastCalledWith(voice().at);
    const picture = screen.getByRole("slider", { name: /before and after/ });
    picture.focus();
    await userEvent.keyboard("{PageUp}");
    expect(player.seek).toHaveBeenCalledWith(Math.min(voice().at + voice().length - 1, 10 * SECOND));
    leave();
    expect(heard()).toBe(was);
    expect(store.getState().clips.voice?.level).toBe(was);
  });

  it("steady: how far each wanders before and after, another clip on demand, an error in place", async () => {
    store.setState({ selected: ["voice", "bed"] });
    const row = { keyframes: 3, levelsBefore: [-30, -20, null], levelsAfter: [-22, -20, null] };
    const ask = vi.spyOn(api, "steady").mockResolvedValue({
      rows: [
        { clip: "voice", before: 3.2, after: 0.8, ...row },
        { clip: "bed", before: null, after: null, ...row, keyframes: 0 },
      ],
      edit: null,
      clips: [],
    });
    show(<SteadyForm onDone={vi.fn()} />);
    expect(await screen.findByText("±3.2 dB")).toBeTruthy();
    expect(screen.getByText("no speech")).toBeTruthy();
    expect(screen.getByRole("slider", { name: /before and after/ })).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: /^Slow accordion/ }));
    expect(screen.getByRole("button", { name: /^Slow accordion/ }).getAttribute("aria-pressed")).toBe("true");
    await userEvent.selectOptions(screen.getByLabelText("Level to steady to"), "stem");
    await vi.waitFor(() =>
      expect(ask).toHaveBeenLastCalledWith("p", expect.objectContaining({ to: "stem", window: 3 })),
    );
    ask.mockRejectedValue(new Error("The server is away."));
    await userEvent.selectOptions(screen.getByLabelText("Level to steady to"), "own");
    store.setState({ revision: 2 });
    expect(await screen.findByText("The server is away.")).toBeTruthy();
  });
});
