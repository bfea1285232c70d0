// @vitest-environment jsdom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, it, vi } from "vitest";
import type { Cut } from "@/api/schema";
import { MixContext } from "@/store/context";
import { storeOf } from "@/test/mixes";
import { FoundCut } from "./FoundCut";

const CUT: Cut = {
  name: "Reel 2",
  tracks: 1,
  clips: 1,
  found: 1,
  missing: [],
  short: [],
  left: [],
  versions: [],
  edit: { edit: "lay-cut", name: "Reel 2", tracks: [], markers: [] },
  whole: null,
};

afterEach(cleanup);

it("stays open where the server refuses to lay it", async () => {
  const store = storeOf({ edit: () => Promise.resolve(false) });
  const done = vi.fn();
  render(
    <MixContext value={store}>
      <FoundCut cut={CUT} onAgain={vi.fn()} onDone={done} />
    </MixContext>,
  );
  await userEvent.click(screen.getByRole("button", { name: "Lay it" }));
  expect(done).not.toHaveBeenCalled();
  store.setState({ edit: () => Promise.resolve(true) });
  await userEvent.click(screen.getByRole("button", { name: "Lay it" }));
  expect(done).toHaveBeenCalledOnce();
});
