import {
  edit,
  everyFour,
  expect,
  layVoiceOverBed,
  makeMedia,
  makeVoice,
  mix,
  renderedBed,
  settled,
  test,
} from "./support";
import type { Page } from "@playwright/test";

const figures = (page: Page) => page.evaluate(() => window.wattage?.store.getState().figures ?? null);

const average = (levels: number[], from: number, to: number) =>
  levels.slice(from * 100, to * 100).reduce((sum, level) => sum + level, 0) / (100 * (to - from));

test("only the band of speech gives way: bass stays in the file, and what was corrected stays with its words", async ({
  page,
  dir,
}) => {
  const voice = makeVoice(dir, "voice.wav", everyFour(16), 16);
  // As much bass as middle: with the middle gone, half the power is left.
  const bed = makeMedia(dir, "bed.wav", "0.05*sin(2*PI*80*t)+0.05*sin(2*PI*1400*t)", 16);
  await layVoiceOverBed(page, `Band ${Date.now()}`, voice, bed);
  const before = await renderedBed(page);
  await page.getByRole("tab", { name: "Ducking" }).click();
  await page.getByRole("button", { name: "Interview" }).click();
  await page.getByLabel("the band of speech", { exact: true }).check();
  const depth = page.getByLabel("Depth, dB");
  await depth.fill("-24");
  await depth.press("Enter");
  await expect(
    page.getByText(/takes .* LU of the music; a plain dip for the same would take 2\d/),
  ).toBeVisible();
  await page.getByRole("button", { name: "Keep" }).click();
  await settled(page);
  const track = (await mix(page)).tracks.find((t) => t.stem === "music");
  expect(track?.band?.curve.length).toBeGreaterThan(4);
  const after = await renderedBed(page);
  expect(average(before, 1.5, 2.5) - average(after, 1.5, 2.5)).toBeGreaterThan(2.5);
  expect(average(before, 1.5, 2.5) - average(after, 1.5, 2.5)).toBeLessThan(4);
  expect(Math.abs(average(before, 8, 8.3) - average(after, 8, 8.3))).toBeLessThan(0.5);

  // Corrected by hand under the second sentence, then the speech moves: the correction goes along.
  await edit(page, {
    edit: "set-range",
    track: track?.id ?? "",
    lane: "band",
    from: 5.2 * 48000,
    to: 6.8 * 48000,
    level: -3,
    ramp: 4800,
  });
  await settled(page);
  const speaker = (await mix(page)).clips.find((c) => c.id === "voice");
  await edit(page, { edit: "move-clip", clip: "voice", track: speaker?.track ?? "", at: 48000 });
  await settled(page);
  await page.keyboard.press("Shift+U");
  await expect
    .poll(async () =>
      (await mix(page)).tracks
        .find((t) => t.id === track?.id)
        ?.band?.held?.map(({ from }) => Math.round(from / 4800)),
    )
    .toEqual([61]);
});

test("pauses are hushed, colour is set and evened up, and speech is put right by hand", async ({
  page,
  dir,
}) => {
  const voice = makeVoice(dir, "voice.wav", everyFour(16), 16);
  const bed = makeMedia(dir, "bed.wav", "0.2*sin(2*PI*60*t)+0.02*sin(2*PI*900*t)", 16);
  await layVoiceOverBed(page, `Colour ${Date.now()}`, voice, bed);
  await page.getByRole("tab", { name: "Ducking" }).click();
  await page.getByRole("button", { name: "Hush" }).click();
  await expect(page.getByText(/pauses go down by 10.0 dB/)).toBeVisible();
  await page.getByLabel("Keep the breath before a word").uncheck();
  await expect(page.getByText(/pauses go down by 10.0 dB/)).toBeVisible();
  await page.getByRole("button", { name: "Keep" }).click();
  await settled(page);
  expect((await mix(page)).label).toBe("Duck: Hush in pauses");
  await expect(page.getByRole("region", { name: "Rule Hush in pauses" })).toContainText(
    "down in their own pauses",
  );
  // With one microphone there are no turns to take.
  await expect(page.getByRole("button", { name: "Turns" })).toHaveAttribute("title", /two tracks of speech/);

  // A low cut takes the rumble out of the file, and is a step that undo takes back.
  const before = average(await renderedBed(page), 8, 9);
  await page.evaluate(() => window.wattage?.store.getState().set({ selected: ["bed"], chosen: [] }));
  await page.getByRole("tab", { name: "Levels" }).click();
  await page.getByText("as recorded").click();
  await page.getByLabel("Low cut of bed.wav", { exact: true }).selectOption("24 dB / octave");
  await settled(page);
  const hertz = page.getByLabel("Low cut of bed.wav, Hz");
  await hertz.fill("200");
  await hertz.press("Enter");
  await settled(page);
  const after = average(await renderedBed(page), 8, 9);
  expect(before - after).toBeGreaterThan(15);
  await page.getByLabel("Bass of bed.wav, dB").fill("9");
  await page.getByLabel("Bass of bed.wav, dB").press("Enter");
  await expect(
    page
      .getByText(/from −6/)
      .or(page.getByText(/−6.*6/))
      .first(),
  ).toBeVisible();
  await page.getByLabel("Bass of bed.wav, dB").press("Escape");

  // The voice is brought to the colour of the bed, after a look.
  await page.evaluate(() => window.wattage?.store.getState().set({ selected: ["voice"], chosen: [] }));
  await page.keyboard.press("Shift+Q");
  const sheet = page.getByRole("dialog");
  await expect(sheet.getByRole("img", { name: /^Spectrum of voice.wav/ })).toBeVisible();
  await sheet.getByRole("button", { name: "Even up the colour" }).click();
  await settled(page);
  expect((await mix(page)).clips.find((c) => c.id === "voice")?.colour?.tone).toHaveLength(4);

  // Nobody speaks in the first sentence, says somebody; it holds until it is taken back.
  await expect.poll(async () => (await figures(page))?.speech.length).toBe(4);
  await page.evaluate(() => {
    const state = window.wattage?.store.getState();
    const track = state?.tracks.find((t) => t.stem === "speech")?.id ?? "";
    state?.set({ range: { from: 0, to: 4 * 48000, tracks: [track] }, selected: [] });
  });
  await page.getByRole("tab", { name: "Speech" }).click();
  await page.getByRole("button", { name: "Nobody speaks here" }).click();
  await settled(page);
  await expect.poll(async () => (await figures(page))?.speech.length).toBe(3);
  await page.reload();
  await settled(page);
  await expect.poll(async () => (await figures(page))?.speech.length).toBe(3);
  await page.getByRole("tab", { name: "Speech" }).click();
  await page.getByRole("button", { name: /^Take back the mark at/ }).click();
  await settled(page);
  await expect.poll(async () => (await figures(page))?.speech.length).toBe(4);
});
