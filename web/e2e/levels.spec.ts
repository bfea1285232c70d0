import { expect, layVoiceOverBed, makeMedia, mix, point, settled, sounded, test } from "./support";
import type { Page } from "@playwright/test";

/** Gestures as people count them: a click, a drag, or a press of keys that send something. */
class Hand {
  count = 0;

  constructor(private readonly page: Page) {}

  begin(): void {
    this.count = 0;
  }

  async drag(from: { x: number; y: number }, to: { x: number; y: number }, ...keys: string[]): Promise<void> {
    this.count++;
    for (const key of keys) await this.page.keyboard.down(key);
    await this.page.mouse.move(from.x, from.y);
    await this.page.mouse.down();
    await this.page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 3 });
    await this.page.mouse.move(to.x, to.y, { steps: 3 });
    await this.page.mouse.up();
    for (const key of keys) await this.page.keyboard.up(key);
    await settled(this.page);
  }

  async click(at: { x: number; y: number }, ...keys: string[]): Promise<void> {
    this.count++;
    for (const key of keys) await this.page.keyboard.down(key);
    await this.page.mouse.click(at.x, at.y);
    for (const key of keys) await this.page.keyboard.up(key);
    await settled(this.page);
  }

  async press(keys: string): Promise<void> {
    this.count++;
    await this.page.keyboard.press(keys);
    await settled(this.page);
  }

  async type(text: string): Promise<void> {
    this.count++;
    await this.page.keyboard.type(text);
    await this.page.keyboard.press("Enter");
    await settled(this.page);
  }
}

const clipAt = async (page: Page, seconds: number, track: string) => {
  const { clips, tracks } = await mix(page);
  const id = tracks.find((t) => t.name === track)?.id;
  const found = clips.find(
    (c) => c.track === id && c.at <= seconds * 48000 && c.at + c.length > seconds * 48000,
  );
  if (!found) throw new Error(`no clip at ${seconds} s on ${track}`);
  return found;
};

const levels = (curve: { level: number | string }[]) =>
  curve.map((k) => (typeof k.level === "number" ? Math.round(k.level * 100) / 100 : k.level));

/** A project of a voice and a bed of 30 s each, laid out by the store so that the gestures under test are the only ones. */
async function layOut(page: Page, dir: string): Promise<void> {
  const voice = makeMedia(dir, "voice.wav", "0.2*sin(2*PI*300*t)*gt(sin(2*PI*0.25*(t-1))\\,0)", 30);
  const bed = makeMedia(dir, "bed.wav", "0.3*sin(2*PI*110*t)|0.3*sin(2*PI*111*t)", 30);
  await layVoiceOverBed(page, `Levels ${Date.now()}`, voice, bed);
  await page.getByRole("tab", { name: "Levels" }).click();
  await page.keyboard.press("a");
}

test("what takes others many steps takes few: dips, slams, ten clips, fades, before and after", async ({
  page,
  dir,
}) => {
  const hand = new Hand(page);
  await layOut(page, dir);
  const bed = (s: number, part: "wire" | "name" | "middle" | "low" = "low") => point(page, s, "Music", part);

  await test.step("a dip over a sentence: two gestures, four keyframes", async () => {
    hand.begin();
    await hand.drag(await bed(8), await bed(12));
    const inside = await bed(10);
    await hand.drag(inside, { x: inside.x, y: inside.y + 20 });
    expect(hand.count).toBe(2);
    expect((await clipAt(page, 10, "Music")).curve).toHaveLength(4);
  });

  await test.step("1 dB deeper: one gesture, still four keyframes and one step to undo", async () => {
    const before = levels((await clipAt(page, 10, "Music")).curve);
    hand.begin();
    await hand.press("ArrowDown");
    expect(hand.count).toBe(1);
    const after = levels((await clipAt(page, 10, "Music")).curve);
    expect(after).toHaveLength(4);
    expect(Number(after[1])).toBeCloseTo(Number(before[1]) - 1, 5);
    await page.keyboard.press("Control+z");
    await settled(page);
    expect((await clipAt(page, 10, "Music")).curve).toHaveLength(0);
    await page.keyboard.press("Control+Shift+z");
    await settled(page);
  });

  await test.step("before and after: one key, at the same spot, without a gap", async () => {
    await page.getByRole("button", { name: "Play" }).click();
    await sounded(page, 0.6);
    hand.begin();
    await hand.press("c");
    expect(hand.count).toBe(1);
    await expect(page.getByText("The present is kept.")).toBeVisible();
    expect((await clipAt(page, 10, "Music")).curve).toHaveLength(0);
    const { playing } = await mix(page);
    expect(playing).toBe(true);
    await page.keyboard.press("c");
    expect((await clipAt(page, 10, "Music")).curve).toHaveLength(4);
    expect(await page.evaluate(() => window.wattage?.player.late)).toBe(0);
    await page.keyboard.press("Space");
    await page.keyboard.press("Escape");
  });

  await test.step("a fade in: one drag of the corner", async () => {
    const name = await bed(0, "name");
    hand.begin();
    await hand.drag({ x: name.x + 4, y: name.y + 13 }, { x: (await bed(2)).x, y: name.y + 13 });
    expect(hand.count).toBe(1);
    const { fadeIn } = await clipAt(page, 1, "Music");
    expect((fadeIn?.length ?? 0) / 48000).toBeCloseTo(1.9, 0);
  });

  await test.step("ten clips to one level: three gestures", async () => {
    await page.evaluate(async () => {
      const { edit } = window.wattage?.store.getState() ?? {};
      const cuts = Array.from({ length: 9 }, (_, i) => ({ clip: "voice", at: (i + 1) * 3 * 48000 }));
      await edit?.({ edit: "split", cuts });
    });
    hand.begin();
    await hand.drag(await point(page, 0.8, "Speech", "low"), await point(page, 29.2, "Speech", "low"));
    await hand.press("Shift+E");
    await page.keyboard.press("Escape");
    const wire = await point(page, 7.5, "Speech", "wire");
    await page.mouse.move(wire.x, wire.y);
    await hand.type("-7.5");
    expect(hand.count).toBe(3);
    const { clips, tracks } = await mix(page);
    const speech = tracks.find((t) => t.stem === "speech")?.id;
    expect(clips.filter((c) => c.track === speech).map((c) => c.gain)).toEqual(Array(10).fill(-7.5));
  });
});

test("keyframes of several clips are lassoed, moved, shaped and levelled together", async ({ page, dir }) => {
  const hand = new Hand(page);
  await layOut(page, dir);
  await page.evaluate(async () => {
    const { edit } = window.wattage?.store.getState() ?? {};
    const s = 48000;
    for (const clip of ["voice", "bed"])
      for (const [at, level] of [
        [5, 0],
        [6, -10],
        [10, -10],
        [11, 0],
      ] as const)
        await edit?.({ edit: "add-keyframe", clip, at: at * s, level });
  });
  const chosen = () =>
    page.evaluate(() =>
      window.wattage?.store
        .getState()
        .chosen.map((c) => ["clip" in c ? c.clip : c.track, c.keyframes.length]),
    );

  // From above the speech to beneath the music: both wires' bottoms.
  const from = await point(page, 5.4, "Speech", "low");
  const to = await point(page, 10.6, "Music", "low");
  await hand.drag({ x: from.x, y: from.y - 190 }, { x: to.x, y: to.y + 40 }, "Control");
  expect(await chosen()).toEqual([
    ["voice", 2],
    ["bed", 2],
  ]);
  await hand.press("Shift+ArrowUp");
  await hand.press("Control+ArrowDown");
  for (const track of ["Speech", "Music"])
    expect(levels((await clipAt(page, 8, track)).curve)).toEqual([0, -12.9, -12.9, 0]);

  await hand.press("p");
  expect(levels((await clipAt(page, 8, "Music")).curve)).toEqual([0, 0, 0, 0]);
  await page.keyboard.press("Control+z");
  await settled(page);
  await page.keyboard.press("Escape");

  await test.step("the list: sorted, several at once, typed, with eases by number", async () => {
    await hand.click(await point(page, 8, "Music", "name"));
    await page.getByRole("button", { name: "Level dB" }).click();
    const boxes = page.getByLabel("Choose this keyframe");
    await boxes.nth(0).check();
    await boxes.nth(1).check();
    await page.getByLabel("Level of all chosen keyframes").fill("50%");
    await page.keyboard.press("Enter");
    await settled(page);
    expect(levels((await clipAt(page, 8, "Music")).curve)).toEqual([0, -6.02, -6.02, 0]);
    await page.getByLabel("Ramps of all chosen keyframes").selectOption("smooth");
    await settled(page);
    await page.getByLabel("Ease-out, per cent of the ramp").fill("20");
    await page.keyboard.press("Enter");
    await settled(page);
    expect((await clipAt(page, 8, "Music")).curve[1]?.ramp).toMatchObject({ kind: "smooth", easeOut: 0.2 });
  });

  await test.step("going through them, with the reason where there is no more", async () => {
    await page.keyboard.press("Escape");
    await page.keyboard.press("Home");
    for (let i = 0; i < 4; i++) await page.keyboard.press("n");
    await page.keyboard.press("n");
    await expect(page.getByRole("alert")).toContainText("has no keyframe after this one");
  });
});

test("ranges are set, silenced, reset, tamed and adjusted afterwards", async ({ page, dir }) => {
  const hand = new Hand(page);
  await layOut(page, dir);
  const bed = (s: number) => point(page, s, "Music", "low");
  await hand.drag(await bed(6), await bed(9));

  await page.getByLabel("Dip by dB").fill("-20");
  await page.getByRole("button", { name: "Set to" }).click();
  await settled(page);
  expect(levels((await clipAt(page, 8, "Music")).curve)).toEqual([0, -20, -20, 0]);

  await test.step("its ramps are dragged by their flags, one step to undo", async () => {
    const { range } = await mix(page);
    const box = await page.getByTestId("timeline").boundingBox();
    const [start = 0, perPx = 1] = ((await page.getByTestId("timeline").getAttribute("data-view")) ?? "")
      .split(" ")
      .map(Number);
    const horizon = await page.getByText("Horizon", { exact: true }).boundingBox();
    const y = (horizon?.y ?? 0) + 28;
    const x = (sample: number) => (box?.x ?? 0) + (sample - start) / perPx;
    const from = range?.from ?? 0;
    await hand.drag({ x: x(from - 0.4 * 48000), y }, { x: x(from - 1.4 * 48000), y });
    const { curve } = await clipAt(page, 8, "Music");
    expect(curve).toHaveLength(4);
    expect((from - (curve[0]?.at ?? 0)) / 48000).toBeCloseTo(1.4, 0);
  });

  await hand.press("Shift+d");
  expect(levels((await clipAt(page, 8, "Music")).curve)).toContain("silence");
  await hand.press("z");
  await expect.poll(async () => new Set(levels((await clipAt(page, 8, "Music")).curve)).size).toBe(1);

  await test.step("over several tracks at once", async () => {
    const from = await point(page, 15, "Speech", "low");
    const to = await point(page, 20, "Music", "low");
    await hand.drag(from, to);
    await hand.press("d");
    for (const track of ["Speech", "Music"])
      expect(Math.min(...levels((await clipAt(page, 17, track)).curve).map(Number))).toBe(-11);
  });

  await test.step("peaks are listed and tamed", async () => {
    await page.keyboard.press("Escape");
    await hand.drag(await bed(23), await bed(24));
    await page.getByLabel("Ceiling for peaks, dBFS").fill("-14");
    await page.keyboard.press("Enter");
    await page.getByRole("button", { name: "List" }).click();
    await expect(page.getByRole("button", { name: "Tame all" })).toBeVisible();
    await page.getByRole("button", { name: "Tame all" }).click();
    await settled(page);
    expect((await mix(page)).label).toMatch(/^Tame (a peak|\d+ peaks)/);
    // The list is kept up with the edit.
    await expect(page.getByText("None: nothing to tame.")).toBeVisible();
  });
});

test("clips are split, joined, copied, looped, crossed over, closed up, locked and marked", async ({
  page,
  dir,
}) => {
  const hand = new Hand(page);
  await layOut(page, dir);
  const clips = async () => {
    const { clips: all, tracks } = await mix(page);
    const music = tracks.find((t) => t.stem === "music")?.id;
    return all
      .filter((c) => c.track === music)
      .sort((a, b) => a.at - b.at)
      .map((c) => [Math.round(c.at / 4800) / 10, Math.round(c.length / 4800) / 10]);
  };
  await hand.drag(await point(page, 10, "Music", "low"), await point(page, 20, "Music", "low"));
  await hand.press("/");
  expect(await clips()).toHaveLength(3);
  await page.keyboard.press("Escape");

  const [first, second] = await Promise.all([
    point(page, 3, "Music", "name"),
    point(page, 15, "Music", "name"),
  ]);
  await hand.click(first);
  await hand.click(second, "Shift");
  await hand.press("j");
  expect(await clips()).toHaveLength(2);
  await page.keyboard.press("Control+z");
  await settled(page);

  await test.step("a crossfade at the cut, by length", async () => {
    await page.evaluate(async () => {
      const { edit, clips: all } = window.wattage?.store.getState() ?? {};
      const [a, b] = Object.values(all ?? {})
        .filter((c) => c.id.startsWith("bed"))
        .sort((x, y) => x.at - y.at);
      await edit?.({ edit: "cross-over", earlier: a?.id ?? "", later: b?.id ?? "", length: "1 s" });
    });
    await hand.click(first);
    await expect(page.getByLabel(/^Cross to/)).toHaveValue("1.00 s");
    await page.getByLabel(/^Cross to/).fill("25f");
    await page.keyboard.press("Enter");
    await settled(page);
    await page.getByLabel(/^Shape of Cross to/).selectOption("linear");
    await settled(page);
    const later = await clipAt(page, 15, "Music");
    expect(later.fades[0]).toMatchObject({ length: 48000, shape: "linear" });
  });

  await test.step("removed with the gap closed, duplicated, and looped to the end of a range", async () => {
    await hand.click(await point(page, 25, "Music", "name"));
    await hand.press("Shift+Delete");
    const before = await clips();
    expect(before).toHaveLength(2);
    await hand.click(await point(page, 15, "Music", "name"));
    await hand.press("Control+d");
    expect(await clips()).toHaveLength(3);
    await page.keyboard.press("Control+z");
    await settled(page);
  });

  await test.step("what is recorded before somebody speaks is trimmed in the close-up", async () => {
    await hand.click(await point(page, 1, "Speech", "name"));
    await hand.press("w");
    await page.getByRole("button", { name: "Take the suggestion" }).click();
    await page.getByRole("button", { name: /^Trim to/ }).click();
    await settled(page);
    expect((await mix(page)).label).toMatch(/^Trim voice.wav/);
  });

  await test.step("a lock keeps clips as they are, and says so", async () => {
    await page.getByRole("button", { name: "More for Music" }).click();
    await page.getByRole("menuitem", { name: /^Lock/ }).click();
    await settled(page);
    await hand.click(await point(page, 3, "Music", "name"));
    await hand.press("Delete");
    await expect(page.getByRole("alert")).toContainText("“Music” is locked. Unlock the track");
    await page.getByRole("button", { name: "Unlock Music" }).click();
    await settled(page);
  });

  await test.step("markers are set, named and gone to", async () => {
    await page.keyboard.press("Home");
    await hand.press("m");
    await page.getByRole("tab", { name: "Notes" }).click();
    await page.getByLabel("Marker name").fill("Gang <b>way</b>");
    await page.keyboard.press("Enter");
    await settled(page);
    await expect(page.getByLabel("Marker name")).toHaveValue("Gang <b>way</b>");
    await page.getByLabel("Marker name").fill("x".repeat(300));
    await page.keyboard.press("Enter");
    await expect(page.getByRole("alert")).toContainText("A name needs 1 to 200 characters");
  });
});

test("a stereo clip opens into two channels with wires of their own", async ({ page, dir }) => {
  const hand = new Hand(page);
  await layOut(page, dir);
  await hand.click(await point(page, 15, "Music", "name"));
  await page.getByRole("button", { name: "Open", exact: true }).click();
  await settled(page);
  await page.getByLabel("Gain of the right channel").fill("-12");
  await page.keyboard.press("Enter");
  await settled(page);
  // The wire of the left channel lies in the upper half: a keyframe there belongs to it alone.
  const high = await point(page, 15, "Music", "wire");
  const box = await page.getByRole("group", { name: "Track Music", exact: true }).boundingBox();
  const area = { top: (box?.y ?? 0) + 3 + 17, height: (box?.height ?? 0) - 6 - 17 };
  const y = area.top + (area.height / 2 - 1) * 0.3;
  await page.mouse.dblclick(high.x, y);
  await settled(page);
  const opened = await clipAt(page, 15, "Music");
  expect(opened.channels?.left?.curve).toHaveLength(1);
  expect(opened.channels?.right?.curve).toHaveLength(0);
  expect(opened.parts).toHaveLength(2);
  await page.getByRole("button", { name: "Mute the left channel" }).click();
  await settled(page);
  expect((await clipAt(page, 15, "Music")).parts).toHaveLength(1);
  await page.getByLabel("Channels", { exact: true }).selectOption("mono");
  await settled(page);
  expect((await clipAt(page, 15, "Music")).channels?.mode).toBe("mono");
});

test("keys can be given anew, not twice, and are kept", async ({ page, dir }) => {
  await layOut(page, dir);
  await page.keyboard.press("?");
  await page.getByRole("button", { name: /Change the key of “Split/ }).click();
  await page.keyboard.press("t");
  await expect(page.getByText("That key belongs to “Tame")).toBeVisible();
  await page.getByRole("button", { name: /Change the key of “Split/ }).click();
  await page.keyboard.press("Shift+J");
  await expect(
    page.getByRole("button", {
      name: "Change the key of “Split at the playhead, or at both ends of the range”, now Shift J",
    }),
  ).toBeVisible();
  await page.keyboard.press("Escape");
  await page.getByTestId("timeline").click({ position: { x: 300, y: 12 } });
  await page.evaluate(() => window.wattage?.store.getState().set({ playhead: 480000 }));
  await page.keyboard.press("Control+a");
  await page.keyboard.press("Shift+J");
  await settled(page);
  expect((await mix(page)).clips.length).toBeGreaterThan(2);
});
