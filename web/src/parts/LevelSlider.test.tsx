// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { LevelSlider } from "./LevelSlider";

const moves: [number, boolean][] = [];
const show = (value: number, disabled = false, upright = false) => {
  Element.prototype.setPointerCapture = () => undefined;
  render(
    <LevelSlider
      label="Fader of Music"
      ink="music"
      value={value}
      min={-60}
      max={12}
      disabled={disabled}
      upright={upright}
      onMove={(db, held) => moves.push([db, held])}
    />,
  );
  return screen.getByRole("slider", { name: "Fader of Music" });
};

afterEach(() => {
  cleanup();
  moves.length = 0;
  vi.useRealTimers();
});

describe("a small level slider", () => {
  it("goes by how far the hand goes, a quarter of a dB a pixel, and never jumps to where it is pressed", () => {
    const slider = show(-6);
    fireEvent.pointerDown(slider, { clientX: 80, button: 0, pointerId: 1 });
    fireEvent.pointerMove(slider, { clientX: 84, pointerId: 1 });
    fireEvent.pointerMove(slider, { clientX: 94, pointerId: 1, ctrlKey: true });
    fireEvent.pointerUp(slider, { clientX: 94, pointerId: 1 });
    expect(moves).toEqual([
      [-6, true],
      [-5, true],
      [-4.75, true],
      [-4.75, false],
    ]);
  });

  it("goes up for louder where it stands upright", () => {
    const slider = show(-6, false, true);
    expect(slider.getAttribute("aria-orientation")).toBe("vertical");
    fireEvent.pointerDown(slider, { clientX: 80, clientY: 40, button: 0, pointerId: 1 });
    fireEvent.pointerMove(slider, { clientX: 60, clientY: 36, pointerId: 1 });
    fireEvent.pointerUp(slider, { clientX: 60, clientY: 36, pointerId: 1 });
    expect(moves.at(-1)).toEqual([-5, false]);
  });

  it("steps by keys and, once it has the focus, by the wheel; the hand lets go by itself", () => {
    vi.useFakeTimers();
    const slider = show(0);
    fireEvent.wheel(slider, { deltaY: -1 });
    expect(moves).toEqual([]);
    slider.focus();
    fireEvent.wheel(slider, { deltaY: -1 });
    fireEvent.keyDown(slider, { key: "ArrowDown" });
    fireEvent.keyDown(slider, { key: "ArrowUp", shiftKey: true });
    vi.advanceTimersByTime(400);
    expect(moves).toEqual([
      [0.5, true],
      [-1, true],
      [0.1, true],
      [0.1, false],
    ]);
  });

  it("goes to 0 dB by a double click, and stays where it may not be moved", () => {
    fireEvent.doubleClick(show(-9));
    expect(moves).toEqual([
      [0, true],
      [0, false],
    ]);
    cleanup();
    moves.length = 0;
    fireEvent.doubleClick(show(-9, true));
    expect(moves).toEqual([]);
  });
});
