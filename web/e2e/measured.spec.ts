import { expect, layVoiceOverBed, makeMedia, mix, settled, test } from "./support";

test("sources get the gain that fits what they are used for, in one step", async ({ page, dir }) => {
  const voice = makeMedia(dir, "voice.wav", "0.2*sin(2*PI*997*t)", 8);
  const bed = makeMedia(dir, "bed.wav", "0.1*sin(2*PI*997*t)", 8);
  await layVoiceOverBed(page, `Intake ${Date.now()}`, voice, bed);
  await page.getByRole("button", { name: "Intake" }).click();
  // 997 Hz at full scale in one channel reads −3.01 LUFS (ITU-R BS.1770); 0.2 is 13.98 dB less.
  await expect(page.getByRole("row").filter({ hasText: "voice.wav" })).toContainText("−17.0");
  await page.getByRole("button", { name: /^Give 2 the suggested gain/ }).click();
  await settled(page);
  const gains = await page.evaluate(() =>
    Object.fromEntries(
      Object.values(window.wattage?.store.getState().sources ?? {}).map((s) => [s.name, s.gain]),
    ),
  );
  expect(gains["voice.wav"]).toBeCloseTo(-3, 1);
  expect(gains["bed.wav"]).toBeCloseTo(-7, 1);
  await expect(page.getByText("fits speech")).toBeVisible();
  await expect(page.getByText("fits music")).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("button", { name: /^Give 2 the suggested gain/ })).toBeVisible();
});

test("the desk reads what sounds, in dBFS, VU and LUFS, and moves faders by keys", async ({ page, dir }) => {
  const voice = makeMedia(dir, "voice.wav", "0.1*sin(2*PI*997*t)", 16);
  const bed = makeMedia(dir, "bed.wav", "0.05*sin(2*PI*997*t)", 16);
  await layVoiceOverBed(page, `Desk ${Date.now()}`, voice, bed);
  await page.getByRole("button", { name: "Desk" }).click();
  const speech = page.getByRole("group", { name: "Speech stem" });
  await page.keyboard.press("Space");
  // Peak of 0.1, and on both sides at that peak as much in LUFS.
  await expect(speech).toContainText("−20.0");
  await expect(speech.getByRole("definition").nth(1)).toHaveText("−20.0");
  await page.getByLabel("Scale").selectOption("lufs");
  const fader = page.getByRole("slider", { name: /^Tall fader of/ }).first();
  await fader.focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press("ArrowDown");
  await expect.poll(async () => (await mix(page)).tracks[0]?.fader).toBe(-3);
  await fader.dblclick();
  await expect.poll(async () => (await mix(page)).tracks[0]?.fader).toBe(0);
  await page.keyboard.press("Space");
});
