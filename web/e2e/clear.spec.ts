import { writeFileSync } from "node:fs";
import { join } from "node:path";
import {
  addTrack,
  beginProject,
  bringIn,
  expect,
  everyFour,
  makeMedia,
  makeVoice,
  mix,
  settled,
  signIn,
  test,
  layVoiceOverBed,
} from "./support";
import type { Page } from "@playwright/test";

const figures = (page: Page) => page.evaluate(() => window.wattage?.store.getState().figures ?? null);

test("buried speech is seen, gone through, heard, dipped, lifted, accepted and cleared at once", async ({
  page,
  dir,
}) => {
  // Somebody speaks from 1 s to 3 s, from 5 s to 7 s, and so on.
  const voice = makeVoice(dir, "voice.wav", everyFour(16), 16);
  const bed = makeMedia(dir, "bed.wav", "0.04*sin(2*PI*440*t)", 16);
  await layVoiceOverBed(page, `Clear ${Date.now()}`, voice, bed);
  await expect.poll(async () => (await figures(page))?.buried.length).toBe(4);
  const group = page.getByRole("group", { name: "Clearance" });
  await expect(group).toContainText("0 % clear at");
  await expect(page.getByRole("group", { name: "Programme" })).toContainText(/LUFS/);

  // By key to the next stretch; one more key clears it.
  await page.keyboard.press("g");
  await expect(page.getByRole("tab", { name: "Speech" })).toHaveAttribute("aria-selected", "true");
  await expect(page.getByText("1 of 4")).toBeVisible();
  await page.keyboard.press("s");
  await settled(page);
  expect((await mix(page)).label).toMatch(/^Dip bed.wav by/);
  await expect.poll(async () => (await figures(page))?.buried.length).toBe(3);

  // In the strip by mouse; then the speech is lifted instead.
  await page.getByRole("button", { name: /^Buried speech, 00:00:05/ }).click();
  await page.getByRole("button", { name: /^Lift speech/ }).click();
  await settled(page);
  await expect.poll(async () => (await figures(page))?.buried.length).toBe(2);
  expect((await mix(page)).clips.find((c) => c.id === "voice")?.curve).toHaveLength(4);

  // One is wanted as it is.
  await page.keyboard.press("g");
  await page.getByRole("button", { name: "Accept…" }).click();
  await page.getByLabel("Why it is accepted").fill("The sea is meant to win.");
  await page.keyboard.press("Enter");
  await settled(page);
  await expect(page.getByText("“The sea is meant to win.”")).toBeVisible();
  await expect(page.getByText("1 buried stretch", { exact: true })).toBeVisible();

  // Listening loops the stretch, with a second before it.
  await page.getByRole("button", { name: "Listen", exact: true }).click();
  await expect.poll(() => page.evaluate(() => window.wattage?.store.getState().playing)).toBe(true);
  expect(await page.evaluate(() => window.wattage?.store.getState().looping)).toBe(true);
  await page.keyboard.press("Space");

  await page.getByRole("button", { name: "Look at it again" }).click();
  await settled(page);
  await page.getByRole("button", { name: "Dip for all 2" }).click();
  await settled(page);
  await expect.poll(async () => (await figures(page))?.buried.length).toBe(0);
  await expect(group).toContainText("100 % clear at");
  await expect(page.getByText("No stretch of half a second or more is buried.")).toBeVisible();
  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await settled(page);
  await expect.poll(async () => (await figures(page))?.buried.length).toBe(2);

  // Captions say when somebody speaks, in place of the ear: here only for one second.
  const vtt = join(dir, "said.vtt");
  writeFileSync(
    vtt,
    "WEBVTT\n\n00:01.500 --> 00:02.500\nThe tide does not wait.\n\n00:09.000 --> 00:08.000\nBroken\n",
  );
  await page.getByTestId("caption-picker").setInputFiles(vtt);
  await expect.poll(async () => (await mix(page)).label).toBe("Take 1 caption, 1 left out");
  await expect.poll(async () => (await figures(page))?.speech).toEqual([[72000, 120000]]);
  writeFileSync(vtt, "no captions at all");
  await page.getByTestId("caption-picker").setInputFiles(vtt);
  await expect(page.getByRole("alert")).toContainText("There is no caption in this file that can be used");
  await page.getByRole("button", { name: "Remove", exact: true }).click();
  await settled(page);
  await expect.poll(async () => (await figures(page))?.buried.length).toBe(2);

  // Less is wanted: nothing is buried. A number out of reach is refused in words.
  const wanted = page.getByLabel("Wanted clearance, LU");
  await wanted.fill("5");
  await wanted.press("Enter");
  await settled(page);
  await expect.poll(async () => (await figures(page))?.buried.length).toBe(0);
  await wanted.fill("90");
  await wanted.press("Enter");
  await expect(page.getByRole("alert")).toContainText(/clearance/i);
  await page.keyboard.press("Escape");
  await page.getByLabel("Loudness target").selectOption({ label: "Podcast, stereo: −16.0 LUFS" });
  await settled(page);
  expect((await mix(page)).label).toBe("Aim for −16 LUFS, −1 dBTP at most");
});

test("clips are evened up and steadied after a look at what would become of them", async ({ page, dir }) => {
  // A sentence in every two seconds; the second half is nearer.
  const sentences = Array.from({ length: 6 }, (_, i) => [2 * i + 0.1, 2 * i + 1.4, i < 3 ? 0.4 : 1]);
  const near = makeVoice(dir, "near.wav", sentences, 12, 0.17);
  const far = makeVoice(
    dir,
    "far.wav",
    sentences.map(([from = 0, to = 0]) => [from, to]),
    12,
    0.014,
  );
  await signIn(page);
  await beginProject(page, `Even ${Date.now()}`);
  await addTrack(page, "Speech");
  await bringIn(page, near, far);
  for (const file of ["near.wav", "far.wav"])
    await expect(page.getByRole("button", { name: `Place ${file} at the playhead` })).toBeVisible();
  for (const file of ["near.wav", "far.wav"]) {
    await page.getByRole("button", { name: `Place ${file} at the playhead` }).click();
    await settled(page);
    await page.evaluate(() => {
      const state = window.wattage?.store.getState();
      state?.set({ playhead: state.length });
    });
  }
  await page.keyboard.press("Escape");
  await page.evaluate(() => {
    const state = window.wattage?.store.getState();
    state?.set({ selected: Object.keys(state.clips) });
  });
  await page.keyboard.press("Shift+K");
  const sheet = page.getByRole("dialog");
  await expect(sheet.getByRole("row")).toHaveCount(3);
  await sheet.getByRole("combobox").nth(1).selectOption("a level…");
  await sheet.getByLabel("Level in dBFS").fill("-24");
  await expect(sheet.getByRole("cell", { name: "−24.0", exact: true })).toHaveCount(2);
  await sheet.getByRole("button", { name: "Even up", exact: true }).click();
  await settled(page);
  expect((await mix(page)).label).toBe("Even up 2 clips");
  await expect(sheet).toHaveCount(0);

  await page.keyboard.press("Shift+S");
  await expect(sheet.getByRole("slider", { name: /^Level of the speech along the clip/ })).toBeVisible();
  const wandering = async () =>
    (await sheet.getByRole("cell").allInnerTexts()).filter((t) => t.startsWith("±"));
  await expect.poll(async () => (await wandering()).length).toBe(4);
  await sheet.getByLabel("Looks at").focus();
  await page.keyboard.press("ArrowLeft");
  await expect(sheet.getByRole("button", { name: "Steady", exact: true })).toHaveAttribute(
    "aria-disabled",
    "false",
  );
  await sheet.getByRole("button", { name: "Steady", exact: true }).click();
  await settled(page);
  const { label, clips } = await mix(page);
  expect(label).toBe("Steady 2 clips");
  expect(Math.max(...clips.map((c) => c.curve.length))).toBeGreaterThan(2);
  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await settled(page);
  expect((await mix(page)).clips.every((c) => c.curve.length === 0)).toBe(true);
});

test("clarity says what covers the speech and where, and follows the room it is heard in", async ({
  page,
  dir,
}) => {
  const voice = makeVoice(dir, "voice.wav", everyFour(16), 16);
  const bed = makeMedia(dir, "bed.wav", "0.08*sin(2*PI*1000*t)+0.06*sin(2*PI*2000*t)", 16);
  await layVoiceOverBed(page, `Clarity ${Date.now()}`, voice, bed);
  const clarity = () => page.evaluate(() => window.wattage?.store.getState().clarity);
  // Of the voice above the bed: what the voice had alone may still be shown.
  await expect.poll(async () => (await clarity())?.revision).toBe((await mix(page)).revision);
  const before = (await clarity())?.average ?? 0;

  await page.getByRole("button", { name: "Clarity", exact: true }).click();
  const head = page.getByRole("group", { name: "Clarity" });
  await expect(head).toContainText("% clear at");
  await page.getByRole("tab", { name: "Speech" }).click();
  const section = page.getByRole("region", { name: "Clarity" });
  await expect(section).toContainText(`On average ${Math.round(before)} of 100`);

  // Covered by the bed, in the middle of the spectrum; a click goes there.
  await head.getByLabel("Wanted clarity, of 100").fill("100");
  await head.getByLabel("Wanted clarity, of 100").press("Enter");
  await settled(page);
  expect((await mix(page)).label).toBe("Aim for a clarity of 100");
  const first = section.getByRole("list", { name: "Covered speech" }).getByRole("button").nth(1);
  await expect(first).toContainText("Music");
  await expect(first).toContainText(/1–(2\.5|3\.15|4) kHz/);
  await first.click();
  await expect.poll(() => page.evaluate(() => window.wattage?.store.getState().playhead)).toBe(5 * 48_000);

  // In a car less of it is understood; with the bed muted more.
  await section.getByLabel("Where it is to be understood").selectOption({ label: "a car" });
  await settled(page);
  await expect.poll(async () => (await clarity())?.average ?? 100).toBeLessThan(before);
  await section.getByLabel("Where it is to be understood").selectOption({ label: "a quiet room" });
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Mute Music" }).click();
  await settled(page);
  await expect.poll(async () => (await clarity())?.average ?? 0).toBeGreaterThan(before);
});
