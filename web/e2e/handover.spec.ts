import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, integrated, layVoiceOverBed, makeMedia, mix, settled, test } from "./support";

const VOICE = "0.07*sin(2*PI*220*t)*lt(mod(t\\,4)\\,2)+0.8*sin(2*PI*900*t)*lt(mod(t\\,5)\\,0.003)";
const BED = "0.03*sin(2*PI*330*t)|0.03*sin(2*PI*440*t)";

test("the target is reached, a recipe is made, kept, changed and handed over, and its files measure as they say", async ({
  page,
  dir,
}) => {
  const voice = makeMedia(dir, "voice.wav", VOICE, 12);
  await layVoiceOverBed(page, `Hand over ${Date.now()}`, voice, makeMedia(dir, "bed.wav", BED, 14));
  await page.getByRole("button", { name: "Handover" }).click();

  await test.step("the distance in words, and one button that closes it; undone like any edit", async () => {
    await page.getByLabel("Loudness target").selectOption({ label: "Podcast, stereo: −16.0 LUFS" });
    await settled(page);
    await expect(page.getByText(/LU (louder|quieter) than the target/).first()).toBeVisible();
    await page.getByRole("button", { name: /^Reach the target/ }).click();
    await settled(page);
    await expect(page.getByRole("region", { name: "Handover" }).getByText("On target.")).toBeVisible();
    await page.keyboard.press("Control+z");
    await settled(page);
    await expect(page.getByText(/LU (louder|quieter) than the target/).first()).toBeVisible();
    await page.getByLabel("Target, LUFS").fill("-15.5");
    await page.getByLabel("Target, LUFS").press("Enter");
    await settled(page);
    await expect(page.getByLabel("Target, LUFS")).toHaveValue("−15.5");
  });

  const name = `To Nora ${Date.now()}`;
  await test.step("a recipe of two files", async () => {
    await page.getByRole("button", { name: "New", exact: true }).click();
    await page.getByLabel("Name", { exact: true }).fill(name);
    await page.getByLabel("How its files are named").fill("{recipe} {part} {loudness}");
    await page.getByLabel("Format of file 1").selectOption("mp3");
    await page.getByLabel("Target of file 1").selectOption("-16");
    await page.getByRole("button", { name: "Another file" }).click();
    await page.getByLabel("Format of file 2").selectOption("wav");
    await page.getByLabel("Part of file 2").selectOption("stem speech");
    await page.getByLabel("as in the whole").check();
    await page.getByRole("button", { name: "Keep" }).click();
    await expect(page.getByRole("button", { name: `Make ${name}` })).toBeVisible();
  });

  await test.step("made by one press, with what they say about themselves, and listed with what they measure", async () => {
    await page.getByText(/^What the files say/).click();
    await page.getByLabel("Author").fill("Ada Okoro");
    await page.getByRole("button", { name: `Make ${name}` }).click();
    await expect(page.getByText(`${name} -16.0 LUFS.mp3`)).toBeVisible();
    await expect(page.getByText(/−16\.0 LUFS ✓ on target/)).toBeVisible();
    await expect(page.getByText(/The peak guard held/).first()).toBeVisible();
    const download = page.waitForEvent("download");
    await page.getByRole("listitem").filter({ hasText: ".mp3" }).getByRole("link", { name: "Fetch" }).click();
    const file = join(dir, "handed-over.mp3");
    await (await download).saveAs(file);
    expect(Math.abs(integrated(file) + 16)).toBeLessThan(0.15);
    expect(readFileSync(file).subarray(0, 2000).toString("latin1")).toContain("Ada Okoro");
  });

  await test.step("a place where the guard acted leads to Balance", async () => {
    await page
      .getByText(/The peak guard held/)
      .first()
      .click();
    await page.getByTitle("Go there").first().click();
    await expect(page.getByTestId("timeline")).toBeVisible();
    await page.getByRole("button", { name: "Handover" }).click();
  });

  await test.step("a file is heard from where the mix is, and the mix from where the file was", async () => {
    await page.evaluate(() => window.wattage?.player.seek(3 * 48000));
    await page
      .getByRole("button", { name: /^Listen to .*\.mp3/ })
      .first()
      .click();
    await page.waitForTimeout(1500);
    await page.getByRole("button", { name: /^Back to the mix/ }).click();
    await expect
      .poll(() => page.evaluate(() => (window.wattage?.player.position ?? 0) / 48000))
      .toBeGreaterThan(3.5);
    await page.getByRole("button", { name: "Stop" }).click();
  });

  await test.step("after an edit it is out of date; the recipe can be changed and removed", async () => {
    const track = (await mix(page)).tracks[0]?.id ?? "";
    await page.evaluate(
      (id) => void window.wattage?.store.getState().edit({ edit: "set-fader", track: id, fader: -2 }),
      track,
    );
    await settled(page);
    await page.reload();
    await expect(page.getByText("out of date: the mix has changed since").first()).toBeVisible();
    await page.getByRole("button", { name: `Change the recipe ${name}` }).click();
    await page.getByRole("button", { name: "Remove file 2" }).click();
    await page.getByLabel("How its files are named").fill("{colour}");
    await page.getByRole("button", { name: "Keep" }).click();
    await expect(page.getByRole("alert")).toContainText("A pattern for names");
    await page.getByRole("button", { name: "Remove the recipe" }).click();
    await expect(page.getByRole("button", { name: `Make ${name}` })).toHaveCount(0);
  });
});
