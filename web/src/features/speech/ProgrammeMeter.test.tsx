// @vitest-environment jsdom
import { act, cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Figures } from "@/api/schema";
import { MixContext } from "@/store/context";
import { type MixStore, USUAL_AIM } from "@/store/mixStore";
import { storeOf } from "@/test/mixes";
import { ProgrammeMeter } from "./ProgrammeMeter";

const heard = vi.hoisted(() => ({ levels: null as null | { programme: { peak: [number, number] } } }));
vi.mock("@/player", () => ({ useLevels: () => heard.levels }));

let store: MixStore;
const predicted = (integrated: number | null, target = -23) =>
  ({
    verdict: {
      off: integrated === null ? null : integrated - target,
      met: Math.abs((integrated ?? 0) - target) <= 0.5,
      mayPass: false,
    },
    programme: { integrated, range: 0, maxMomentary: null, maxShortTerm: null, peak: null },
  }) as Figures;

beforeEach(() => {
  store = storeOf();
  heard.levels = null;
});
afterEach(cleanup);

function show() {
  const meter = (
    <MixContext value={store}>
      <ProgrammeMeter />
    </MixContext>
  );
  const { rerender } = render(meter);
  return (left: number, right: number) => {
    heard.levels = { programme: { peak: [left, right] } };
    // A new element, so that it is drawn again with what is heard now.
    rerender(
      <MixContext value={store}>
        <ProgrammeMeter />
      </MixContext>,
    );
  };
}

const said = () => screen.getByRole("group", { name: "Programme" }).textContent;

describe("the programme at the top", () => {
  it.each([
    [-23.2, -23, "on target"],
    [-17.7, -23, "5.3 over"],
    [-20, -16, "4.0 under"],
  ])("reads %d LUFS against %d as %s", (integrated, target, word) => {
    store.setState({ figures: predicted(integrated, target), aim: { ...USUAL_AIM, loudness: target } });
    show();
    expect(said()).toContain(word);
  });

  it("has words for silence", () => {
    store.setState({ figures: predicted(null) });
    show();
    expect(said()).toContain("silent");
  });

  it("holds the highest peak until playing begins anew", () => {
    store.setState({ playing: true });
    const hear = show();
    hear(-12, -9.5);
    hear(-30, -40);
    expect(said()).toContain("−9.5");
    act(() => store.setState({ playing: false }));
    expect(said()).toContain("−9.5");
    hear(-Infinity, -Infinity);
    act(() => store.setState({ playing: true }));
    expect(said()).toContain("—");
  });

  it("says over in a word, and keeps saying so until that is cleared", async () => {
    store.setState({ playing: true });
    const hear = show();
    hear(0.4, -3);
    hear(-20, -20);
    act(() => store.setState({ playing: false }));
    act(() => store.setState({ playing: true }));
    const mark = screen.getByRole("button", { name: "over: the programme" });
    expect(mark.title).toContain("0.4 dB");
    await userEvent.click(mark);
    expect(screen.queryByRole("button", { name: "over: the programme" })).toBeNull();
  });
});
