// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api } from "@/api/client";
import type { Edit } from "@/api/schema";
import { MixContext } from "@/store/context";
import type { MixStore } from "@/store/mixStore";
import { figuresOf, storeOf } from "@/test/mixes";
import { Standing } from "./Standing";

let store: MixStore;
let edits: Edit[];

beforeEach(() => {
  vi.spyOn(api, "ownTargets").mockResolvedValue([]);
  store = storeOf();
  edits = [];
  store.setState({
    revision: 4,
    edit: (edit) => {
      edits.push(edit);
      return Promise.resolve(true);
    },
  });
});

afterEach(cleanup);

const show = () =>
  render(
    <QueryClientProvider client={new QueryClient()}>
      <MixContext.Provider value={store}>
        <Standing />
      </MixContext.Provider>
    </QueryClientProvider>,
  );

const reach = () => screen.getByRole<HTMLButtonElement>("button", { name: /^Reach the target/ });

describe("reaching the target", () => {
  it("gives the programme what the figures of the mix as it is ask for", () => {
    store.setState({ figures: figuresOf({ revision: 4 }) });
    show();
    fireEvent.click(reach());
    expect(edits).toEqual([{ edit: "set-programme-fader", fader: "-5.30" }]);
  });

  it("waits while the figures are those of an earlier state, and while an edit is on its way", () => {
    store.setState({ figures: figuresOf({ revision: 3 }) });
    show();
    expect(reach().disabled).toBe(true);
    cleanup();
    store.setState({ figures: figuresOf({ revision: 4 }), pending: 1 });
    show();
    expect(reach().disabled).toBe(true);
  });
});
