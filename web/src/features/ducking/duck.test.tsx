// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api } from "@/api/client";
import type { DuckingPlan, Edit, Rule } from "@/api/schema";
import { type Player, PlayerContext } from "@/player";
import { MixContext } from "@/store/context";
import type { MixStore } from "@/store/mixStore";
import { SECOND, storeOf } from "@/test/mixes";
import { DuckPanel } from "./DuckPanel";
import { described, fewest, mutedSpeakers, ownRule, PRESETS, ruleBy, withTrack, withWish } from "./duckRules";

const EDIT: Edit = { edit: "duck", lanes: [] };
const plan = (part: Partial<DuckingPlan> = {}): DuckingPlan => ({
  moments: [
    { from: SECOND, to: 2 * SECOND, heard: "found" },
    { from: 5 * SECOND, to: 6 * SECOND, heard: "quiet" },
  ],
  dips: [{ from: 0, to: SECOND, depth: -12, band: 0, limited: false, lift: 0 }],
  lanes: [{ tracks: ["music"], schedule: [{ from: 0, to: SECOND, db: [-12, 0] }], bandSchedule: [] }],
  taken: null,
  edit: EDIT,
  ...part,
});

let store: MixStore;
let edits: Edit[];
const ducking = vi.spyOn(api, "ducking");

beforeEach(() => {
  edits = [];
  ducking.mockReset().mockResolvedValue(plan());
  store = storeOf({
    edit: (edit) => {
      edits.push(edit);
      return Promise.resolve(true);
    },
  });
});
afterEach(cleanup);

function show() {
  render(
    <QueryClientProvider client={new QueryClient()}>
      <MixContext value={store}>
        <PlayerContext value={{ position: 0 } as Player}>
          <DuckPanel />
        </PlayerContext>
      </MixContext>
    </QueryClientProvider>,
  );
}

const rule = (): Rule => {
  const preset = PRESETS[0];
  if (!preset) throw new Error("no presets");
  return ruleBy(preset, store.getState().tracks, { clearance: 15, clarity: 75 });
};

describe("a rule of ducking", () => {
  it("by a preset puts music under all speech, or what else there is beneath", () => {
    expect(rule()).toMatchObject({ targets: ["music"], triggers: [], depth: -12, follows: false });
    const preset = PRESETS.find((p) => p.depth === null);
    const tracks = store
      .getState()
      .tracks.map((t) => ({ ...t, stem: t.id === "music" ? ("effects" as const) : t.stem }));
    const made = preset && ruleBy(preset, tracks, { clearance: 20, clarity: 75 });
    expect(made).toMatchObject({ targets: ["music"], clearance: 20 });
    expect(made).not.toHaveProperty("depth");
  });

  it("by band asks for a clarity, from moment to moment; a hush and turns are of the speech itself", () => {
    const tracks = store.getState().tracks;
    const preset = PRESETS.find((p) => p.toClarity);
    const made = preset && ruleBy(preset, tracks, { clearance: 20, clarity: 70 });
    expect(made).toMatchObject({ part: "band-first", moving: true, clarity: 70 });
    expect(made).not.toHaveProperty("depth");
    const hush = ownRule("hush", tracks, { clearance: 15 });
    expect(hush).toMatchObject({ kind: "hush", targets: ["speech"], depth: -10 });
    expect(fewest(ownRule("turns", tracks, { clearance: 15 }))).toBe(2);
    const names = (id: string) => id;
    expect(described(hush, names)).toBe("speech: down in their own pauses by −10.0 dB");
    expect(made && described(made, names)).toBe(
      "the band of speech first, then all of music under all speech, to a clarity of 70, from moment to moment",
    );
    // Going over to another wish keeps nothing of the one before.
    expect(withWish(rule(), "clarity", 75)).toMatchObject({ clarity: 75 });
    expect(withWish(rule(), "clearance", 75)).not.toHaveProperty("depth");
  });

  it("never has a track among triggers and targets at once", () => {
    const both = withTrack(rule(), "triggers", "music", true);
    expect(both).toMatchObject({ triggers: ["music"], targets: [] });
    expect(withTrack(both, "triggers", "music", false)).toMatchObject({ triggers: [], targets: [] });
  });

  it("is tried before it is kept: shown, heard, and told in words", async () => {
    show();
    await userEvent.click(screen.getByRole("button", { name: "Interview" }));
    expect(await screen.findByText(/1 stretch of speech, −12.0 dB\. 1 too quiet/)).toBeTruthy();
    expect(store.getState().duckTry).toEqual({
      music: { all: [{ from: 0, to: SECOND, db: [-12, 0] }], band: [] },
    });
    expect(edits).toEqual([]);
    await userEvent.click(screen.getByRole("radio", { name: "as it is" }));
    expect(store.getState().duckTry).toBeNull();
    await userEvent.click(screen.getByRole("button", { name: "Keep" }));
    expect(edits).toEqual([EDIT]);
    expect(store.getState()).toMatchObject({ duckDraft: null, duckPlan: null, duckTry: null });
  });

  it("asks anew with every change", async () => {
    show();
    await userEvent.click(screen.getByRole("button", { name: "Interview" }));
    await screen.findByText(/1 stretch/);
    fireEvent.change(screen.getByLabelText("Lead"), { target: { value: "0.5" } });
    await userEvent.click(screen.getByLabelText("Narrator speaks"));
    await userEvent.click(screen.getByLabelText("as deep as needed for a clearance"));
    const last = () => ducking.mock.lastCall?.[1].rule;
    await vi.waitFor(() => expect(last()).toMatchObject({ lead: 0.5, triggers: ["speech"] }));
    expect(last()).not.toHaveProperty("depth");
    const deepest = screen.getByLabelText("Deepest, dB");
    await userEvent.clear(deepest);
    await userEvent.type(deepest, "-18{Enter}");
    await vi.waitFor(() => expect(last()).toMatchObject({ deepest: -18 }));
  });

  it("shows on the strip what it goes by", async () => {
    show();
    await userEvent.click(screen.getByRole("button", { name: "Interview" }));
    expect(store.getState().judged).toBe("clearance");
    await userEvent.click(screen.getByRole("radio", { name: "as deep as needed for a clarity" }));
    expect(store.getState().judged).toBe("clarity");
    await userEvent.click(screen.getByRole("radio", { name: "by a number of decibels" }));
    expect(store.getState().judged).toBe("clarity");
    await userEvent.click(screen.getByRole("radio", { name: "as deep as needed for a clearance" }));
    expect(store.getState().judged).toBe("clearance");
  });

  it("says what is wrong, and what to do", async () => {
    ducking.mockResolvedValue(plan({ moments: [], dips: [] }));
    show();
    await userEvent.click(screen.getByRole("button", { name: "Interview" }));
    expect(await screen.findByText(/No speech was found\. Lower “Heard as speech from”/)).toBeTruthy();
    await userEvent.click(screen.getByLabelText("Music gives way"));
    expect(await screen.findByText("Tick a track that gives way.")).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "Cancel" }));
    expect(store.getState().duckDraft).toBeNull();
    expect(edits).toEqual([]);
  });

  it("is kept only as it is shown: with nothing ticked that gives way, nothing is tried and nothing is kept", async () => {
    show();
    await userEvent.click(screen.getByRole("button", { name: "Interview" }));
    await screen.findByText(/1 stretch/);
    await userEvent.click(screen.getByLabelText("Music gives way"));
    const keep = screen.getByRole("button", { name: "Keep" });
    expect(keep.getAttribute("aria-disabled")).toBe("true");
    expect(keep.title).toBe("Tick a track that gives way.");
    await userEvent.click(keep);
    expect(edits).toEqual([]);
    expect(store.getState()).toMatchObject({ duckPlan: null, duckTry: null });
  });

  it("that cannot be worked out is neither shown nor heard", async () => {
    show();
    await userEvent.click(screen.getByRole("button", { name: "Interview" }));
    await screen.findByText(/1 stretch/);
    ducking.mockRejectedValue(new Error("The server cannot be reached."));
    await userEvent.click(screen.getByLabelText("Narrator speaks"));
    expect(await screen.findByText(/cannot be reached/)).toBeTruthy();
    expect(store.getState()).toMatchObject({ duckPlan: null, duckTry: null });
    await userEvent.click(screen.getByRole("button", { name: "Keep" }));
    expect(edits).toEqual([]);
  });

  it("says when who speaks is muted", async () => {
    store.setState((s) => ({ tracks: s.tracks.map((t) => (t.id === "speech" ? { ...t, muted: true } : t)) }));
    show();
    await userEvent.click(screen.getByRole("button", { name: "Interview" }));
    expect(await screen.findByText(/“Narrator” is muted, and not heard by this rule/)).toBeTruthy();
    expect(mutedSpeakers({ ...rule(), triggers: ["music"] }, store.getState().tracks)).toEqual([]);
  });

  it("tells how many stretches would need more than the limit", async () => {
    ducking.mockResolvedValue(
      plan({
        dips: [
          { from: 0, to: 1, depth: -20, band: -10, limited: true, lift: 3.25 },
          { from: 2, to: 3, depth: -8, band: 0, limited: false, lift: 0 },
        ],
      }),
    );
    show();
    await userEvent.click(screen.getByRole("button", { name: "Podcast" }));
    expect(await screen.findByText(/−8.0 to −30.0 dB\. 1 would need more than the limit/)).toBeTruthy();
  });

  it("that is out of date says so, and is brought up to date by one press", async () => {
    store.setState({ rules: [rule()], figures: { outOfDate: ["music"] } as never });
    show();
    expect(screen.getByRole("status").textContent).toContain("The ducking of Music is out of date");
    await userEvent.click(screen.getByRole("button", { name: "Bring up to date" }));
    expect(ducking).toHaveBeenLastCalledWith("p", {});
    await vi.waitFor(() => expect(edits).toEqual([EDIT]));
  });

  it("is removed with its dips", async () => {
    const kept = rule();
    store.setState({ rules: [kept] });
    show();
    await userEvent.click(screen.getByRole("button", { name: "Remove" }));
    expect(ducking).toHaveBeenLastCalledWith("p", { without: kept.id });
    await vi.waitFor(() => expect(edits).toEqual([EDIT]));
  });

  it("needs something beneath the horizon", async () => {
    store.setState((s) => ({ tracks: s.tracks.filter((t) => t.stem === "speech") }));
    show();
    await userEvent.click(screen.getByRole("button", { name: "Gentle" }));
    expect(store.getState().duckDraft).toBeNull();
    expect(screen.getByRole("button", { name: "Gentle" }).title).toContain("Add a track beneath the horizon");
  });
});
