import { join } from "node:path";
import {
  addTrack,
  beginProject,
  bringIn,
  drag,
  expect,
  makeMedia,
  mix,
  openCopyOfDemo,
  openProject,
  point,
  rmsDb,
  settled,
  signIn,
  test,
} from "./support";

const BURSTS = "0.3*sin(2*PI*220*t)*lt(mod(t\\,4)\\,2)";
const BED = "0.25*sin(2*PI*330*t)|0.25*sin(2*PI*440*t)";

test("from two files of one's own to a dipped bed, heard and handed over", async ({ page, dir }) => {
  const voice = makeMedia(dir, "my voice.flac", BURSTS, 12);
  const bed = makeMedia(dir, "my bed.m4a", BED, 20, "-c:a", "aac", "-b:a", "192k");
  await signIn(page);
  await beginProject(page, `Path ${Date.now()}`);

  await test.step("bring in, by picker", async () => {
    await bringIn(page, voice, bed);
    for (const name of ["my voice.flac", "my bed.m4a"]) {
      await expect(page.getByRole("button", { name: `Place ${name} at the playhead` })).toBeVisible();
    }
  });

  await test.step("place sources on tracks by dragging", async () => {
    await addTrack(page, "Speech");
    await addTrack(page, "Music");
    for (const [source, track] of [
      ["my voice.flac", "Speech"],
      ["my bed.m4a", "Music"],
    ] as const) {
      await page.getByRole("tab", { name: "Sources" }).click();
      const to = await point(page, 0, track, "middle");
      const timeline = page.getByTestId("timeline");
      const box = await timeline.boundingBox();
      await page
        .getByRole("listitem")
        .filter({ hasText: source })
        .dragTo(timeline, { targetPosition: { x: to.x - (box?.x ?? 0) + 1, y: to.y - (box?.y ?? 0) } });
      await settled(page);
    }
    const { clips } = await mix(page);
    expect(clips.map((c) => c.name).sort()).toEqual(["my bed.m4a", "my voice.flac"]);
  });

  await test.step("move a clip by its name, and trim its end", async () => {
    await page.keyboard.press("a");
    const name = await point(page, 1, "Speech", "name");
    await drag(page, name, { x: (await point(page, 5, "Speech", "name")).x, y: name.y });
    await settled(page);
    const moved = (await mix(page)).clips.find((c) => c.name === "my voice.flac");
    expect(moved && moved.at / 48000).toBeGreaterThan(3.5);
    const end = await point(page, ((moved?.at ?? 0) + (moved?.length ?? 0)) / 48000, "Speech", "middle");
    await drag(page, { x: end.x - 2, y: end.y }, { x: end.x - 60, y: end.y });
    await settled(page);
    const trimmed = (await mix(page)).clips.find((c) => c.name === "my voice.flac");
    expect(trimmed?.length).toBeLessThan(moved?.length ?? 0);
    expect(trimmed?.at).toBe(moved?.at);
  });

  await test.step("clip gain: drag the wire, type a percentage, press a key", async () => {
    const bedClip = async () => (await mix(page)).clips.find((c) => c.name === "my bed.m4a");
    const wire = await point(page, 2, "Music", "wire");
    await drag(page, wire, { x: wire.x, y: wire.y + 14 });
    await settled(page);
    const dragged = (await bedClip())?.gain;
    expect(dragged).toBeLessThan(-2);
    await page.getByLabel("Clip gain").fill("50%");
    await page.getByLabel("Clip gain").press("Enter");
    await settled(page);
    expect((await bedClip())?.gain).toBeCloseTo(-6.02, 2);
    await page.getByTestId("timeline").hover({ position: { x: 3, y: 3 } });
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await page.keyboard.press("ArrowUp");
    await settled(page);
    expect((await bedClip())?.gain).toBeCloseTo(-5.02, 2);
    await page.getByLabel("Clip gain").fill("-6 dB");
    await page.getByLabel("Clip gain").press("Enter");
    await settled(page);
  });

  await test.step("select a range and dip it in one gesture", async () => {
    await drag(page, await point(page, 8, "Music", "low"), await point(page, 12, "Music", "low"));
    const { range } = await mix(page);
    expect(range && (range.to - range.from) / 48000).toBeCloseTo(4, 0);
    const inside = await point(page, 10, "Music", "middle");
    await drag(page, inside, { x: inside.x, y: inside.y + 16 });
    await settled(page);
    const { clips, label } = await mix(page);
    expect(label).toMatch(/^Dip my bed\.m4a by/);
    expect(clips.find((c) => c.name === "my bed.m4a")?.curve).toHaveLength(4);
    await page.keyboard.press("Control+z");
    await settled(page);
    expect((await mix(page)).clips.find((c) => c.name === "my bed.m4a")?.curve).toHaveLength(0);
    await page.getByLabel("Dip by dB").fill("-11");
    await page.getByRole("button", { name: "Dip", exact: true }).click();
    await settled(page);
  });

  await test.step("keyframes: add, type time and level, move, remove", async () => {
    const bedCurve = async () => (await mix(page)).clips.find((c) => c.name === "my bed.m4a")?.curve ?? [];
    const wire = await point(page, 17, "Music", "wire");
    const clipWire = { x: wire.x, y: wire.y + 12 };
    await page.mouse.move(clipWire.x, clipWire.y);
    await page.getByRole("tab", { name: "Levels" }).click();
    await page.evaluate(() => window.wattage?.store.getState().set({ playhead: 17 * 48000, range: null }));
    await page.getByRole("button", { name: /^Add at/ }).click();
    await settled(page);
    expect(await bedCurve()).toHaveLength(5);
    const level = page.getByLabel("Keyframe level").last();
    await level.fill("-3");
    await level.press("Enter");
    await settled(page);
    const time = page.getByLabel("Keyframe time").last();
    await time.fill("0:18.0");
    await time.press("Enter");
    await settled(page);
    expect((await bedCurve())[4]).toMatchObject({ at: 18 * 48000, level: -3 });
    await time.fill("never");
    await time.press("Enter");
    await expect(page.getByRole("alert")).toContainText("“never” is not a time");
    await time.press("Escape");
    await page.getByLabel("Choose this keyframe").last().check();
    await page.getByRole("button", { name: "Remove", exact: true }).click();
    await settled(page);
    expect(await bedCurve()).toHaveLength(4);
  });

  await test.step("all of it is there after reload, with its history", async () => {
    const before = await mix(page);
    await page.reload();
    await expect(page.getByTestId("timeline")).toBeVisible();
    const after = await mix(page);
    expect(after.clips).toEqual(before.clips);
    await page.getByRole("button", { name: "History and versions" }).click();
    await expect(
      page.getByRole("list", { name: "Edits, newest first" }).getByRole("button").first(),
    ).toContainText("Remove keyframe");
    await page.getByRole("button", { name: "Undo" }).click();
    await settled(page);
    await page.getByRole("button", { name: "Redo" }).click();
    await settled(page);
    expect((await mix(page)).clips).toEqual(before.clips);
  });

  await test.step("hear it from anywhere, and hear edits while playing", async () => {
    await page.evaluate(() => window.wattage?.store.getState().set({ playhead: 1 * 48000 }));
    await page.getByRole("button", { name: "Play" }).click();
    await expect
      .poll(() => page.evaluate(() => window.wattage?.player.levels().programme.peak[0]))
      .toBeGreaterThan(-30);
    const bedTrack = (await mix(page)).tracks.find((t) => t.name === "Music")?.id ?? "";
    const peak = () =>
      page.evaluate((id) => window.wattage?.player.levels().tracks[id]?.peak[0] ?? -Infinity, bedTrack);
    const loud = await peak();
    const heardAfter = await page.evaluate(async (id) => {
      const { store, player } = window.wattage ?? {};
      const clip = Object.values(store?.getState().clips ?? {}).find((c) => c.track === id);
      const begun = performance.now();
      const before = player?.levels().tracks[id]?.peak[0] ?? 0;
      void store?.getState().edit({ edit: "set-clip-gain", clips: [clip?.id ?? ""], gain: -26 });
      for (;;) {
        await new Promise((resolve) => setTimeout(resolve, 5));
        if ((player?.levels().tracks[id]?.peak[0] ?? 0) < before - 18) return performance.now() - begun;
        if (performance.now() - begun > 5000) return Infinity;
      }
    }, bedTrack);
    console.log(`      an edit is heard after ${Math.round(heardAfter)} ms`); // a figure of the machine, so it is only said
    expect(heardAfter).toBeLessThan(Infinity);
    expect(await peak()).toBeCloseTo(loud - 20, 0);
    await page.keyboard.press("Control+z");
    await page.getByRole("button", { name: "Stop" }).click();
    await settled(page);
    expect(await page.evaluate(() => window.wattage?.player.late)).toBe(0);
  });

  await test.step("hand over a WAV whose dipped range is lower by what was asked", async () => {
    await page.getByRole("button", { name: "Mute Speech" }).click();
    await settled(page);
    await page.getByRole("button", { name: "Handover" }).click();
    await page.getByRole("radio", { name: /16 bit/ }).click();
    await page.getByRole("button", { name: "Render" }).click();
    const download = page.waitForEvent("download");
    await page.getByRole("link", { name: "Fetch" }).click();
    const file = join(dir, "handover.wav");
    await (await download).saveAs(file);
    expect(rmsDb(file, 9, 2) - rmsDb(file, 2, 2)).toBeCloseTo(-11, 1);
    expect(Math.abs(rmsDb(file, 14, 2) - rmsDb(file, 2, 2))).toBeLessThan(0.1);
    await page.getByRole("button", { name: /^Remove .*\.wav/ }).click();
    await expect(page.getByRole("link", { name: "Fetch" })).toHaveCount(0);
  });
});

test("a project is renamed, deleted and brought back", async ({ page }) => {
  const name = `Tide ${Date.now()}`;
  await signIn(page);
  await beginProject(page, name);
  await page.getByRole("button", { name: "Wattage: to the projects" }).click();
  await page.getByRole("button", { name: `Rename ${name}` }).click();
  await page.getByLabel("New name").fill(`${name} again`);
  await page.getByRole("button", { name: "Rename", exact: true }).click();
  await page.getByRole("button", { name: `Delete ${name} again` }).click();
  await page.getByRole("button", { name: "Delete", exact: true }).click();
  const deleted = page.getByRole("listitem").filter({ hasText: `${name} again` });
  await expect(deleted).toContainText(/gone for good on \d+ \w+/);
  await deleted.getByRole("button", { name: "Bring back" }).click();
  await openProject(page, `${name} again`);
});

test("files that cannot be used say why, by name, and can be dismissed", async ({ page, dir }) => {
  const { writeFileSync } = await import("node:fs");
  const letter = join(dir, "letter.wav");
  writeFileSync(letter, "Dear editor,\n".repeat(4000));
  const empty = join(dir, "empty.wav");
  writeFileSync(empty, "");
  await signIn(page);
  await beginProject(page, `Bad ${Date.now()}`);
  await bringIn(page, letter, empty);
  await expect(
    page.getByRole("alert").filter({ hasText: "“letter.wav” is not an audio or video file" }),
  ).toBeVisible();
  await expect(page.getByRole("alert").filter({ hasText: "“empty.wav” is empty" })).toBeVisible();
  await page.getByRole("button", { name: "Dismiss letter.wav" }).click();
  await page.getByRole("button", { name: "Dismiss empty.wav" }).click();
  await expect(page.getByText("Nothing here yet")).toBeVisible();
});

test("the keyboard alone selects a clip and sets its level", async ({ page }) => {
  await signIn(page);
  await openCopyOfDemo(page);
  const clip = page.getByRole("button", { name: /^Clip Narrator on Narrator, 00:00:13/ });
  await clip.focus();
  await expect(clip).toHaveAttribute("aria-pressed", "true");
  await page.keyboard.press("ArrowDown");
  await settled(page);
  await expect(
    page.getByRole("button", { name: /^Clip Narrator on Narrator, 00:00:13.*−1.0 dB/ }),
  ).toBeFocused();
  await page.keyboard.press("Control+z");
  await settled(page);
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog")).toContainText("Play, stop");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toBeHidden();
});

test("Escape gives up a drag and nothing is stored", async ({ page }) => {
  await signIn(page);
  await openCopyOfDemo(page);
  const before = await mix(page);
  const name = await point(page, 15, "Narrator", "name");
  await page.mouse.move(name.x, name.y);
  await page.mouse.down();
  await page.mouse.move(name.x + 80, name.y, { steps: 5 });
  await page.keyboard.press("Escape");
  await page.mouse.up();
  await settled(page);
  expect((await mix(page)).revision).toBe(before.revision);
});
