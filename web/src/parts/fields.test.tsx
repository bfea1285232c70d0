// @vitest-environment jsdom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import { MixContext } from "@/store/context";
import { storeOf } from "@/test/mixes";
import { LevelField } from "./LevelField";
import { TimeField } from "./TimeField";

afterEach(cleanup);

const accept = () => vi.fn<(text: string) => Promise<boolean>>(() => Promise.resolve(true));
const refuse = () => vi.fn<(text: string) => Promise<boolean>>(() => Promise.resolve(false));

describe("a level field", () => {
  it("sends what was typed as it was typed, for the server to read", async () => {
    const commit = accept();
    render(<LevelField label="Clip gain" level={-4.5} onCommit={commit} />);
    const field = screen.getByLabelText("Clip gain");
    expect(field).toHaveProperty("value", "−4.5");
    await userEvent.click(field);
    await userEvent.keyboard("80%{Enter}");
    expect(commit.mock.calls).toEqual([["80%"]]);
  });

  it("nudges with the arrows, finely with Shift", async () => {
    const commit = accept();
    render(<LevelField label="Clip gain" level={-4.5} onCommit={commit} />);
    await userEvent.click(screen.getByLabelText("Clip gain"));
    await userEvent.keyboard("{ArrowUp}{Shift>}{ArrowDown}{/Shift}");
    expect(commit.mock.calls).toEqual([["-3.5"], ["-4.6"]]);
  });

  it("keeps what was refused and marks it, until Escape", async () => {
    const commit = refuse();
    render(<LevelField label="Clip gain" level={0} onCommit={commit} />);
    const field = screen.getByLabelText("Clip gain");
    await userEvent.click(field);
    await userEvent.keyboard("loud{Enter}");
    expect(field).toHaveProperty("value", "loud");
    expect(field.getAttribute("aria-invalid")).toBe("true");
    await userEvent.keyboard("{Escape}");
    expect(field).toHaveProperty("value", "0.0");
  });

  it("sends nothing when it was only looked at", async () => {
    const commit = accept();
    render(<LevelField label="Clip gain" level="silence" onCommit={commit} />);
    await userEvent.click(screen.getByLabelText("Clip gain"));
    await userEvent.keyboard("{ArrowUp}{Tab}");
    expect(commit).not.toHaveBeenCalled();
  });
});

describe("a time field", () => {
  it("shows timecode and sends what was typed", async () => {
    const commit = accept();
    render(
      <MixContext value={storeOf()}>
        <TimeField label="Clip starts" sample={48000 * 62} onCommit={commit} />
      </MixContext>,
    );
    const field = screen.getByLabelText("Clip starts");
    expect(field).toHaveProperty("value", "00:01:02:00");
    await userEvent.click(field);
    await userEvent.keyboard("0:58.2{Tab}");
    expect(commit.mock.calls).toEqual([["0:58.2"]]);
  });
});
