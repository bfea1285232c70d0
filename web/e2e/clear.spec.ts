import { addTrack, beginProject, bringIn, expect, makeMedia, mix, settled, signIn, test } from "./support";
import type { Page } from "@playwright/test";

const figures = (page: Page) => page.evaluate(() => window.wattage?.store.getState().figures ?? null);

test("buried speech is seen, gone through, heard, dipped, lifted, accepted and cleared at once", async ({
  page,
  dir,
}) => {
  // Somebody speaks from 1 s to 3 s, from 5 s to 7 s, and so on.
  const voice = makeMedia(dir, "voice.wav", "0.1*sin(2*PI*300*t)*gt(sin(2*PI*0.25*(t-1))\\,0)", 16);
  const bed = makeMedia(dir, "bed.wav", "0.04*sin(2*PI*440*t)", 16);
  await signIn(page);
  await beginProject(page, `Clear ${Date.now()}`);
  await addTrack(page, "Speech");
  await addTrack(page, "Music");
  await bringIn(page, voice, bed);
  for (const file of ["voice.wav", "bed.wav"])
    await expect(page.getByRole("button", { name: `Place ${file} at the playhead` })).toBeVisible();
  await page.evaluate(async () => {
    const state = window.wattage?.store.getState();
    const { sources } = (await (await fetch(`/api/projects/${state?.project.id ?? ""}/sources`)).json()) as {
      sources: { id: string; name: string }[];
    };
    const [speech, music] = state?.tracks ?? [];
    const id = (name: string) => sources.find((s) => s.name === name)?.id ?? "";
    await state?.edit({
      edit: "add-clip",
      track: speech?.id ?? "",
      clip: "v",
      source: id("voice.wav"),
      at: 0,
    });
    await state?.edit({ edit: "add-clip", track: music?.id ?? "", clip: "b", source: id("bed.wav"), at: 0 });
  });
  await expect.poll(async () => (await figures(page))?.buried.length).toBe(4);
  const group = page.getByRole("group", { name: "Clearance" });
  await expect(group).toContainText("0 % clear at");
  await expect(page.getByRole("group", { name: "Programme" })).toContainText(
    /LUFS, \d+\.\d (over|under)|on target/,
  );

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
  expect((await mix(page)).clips.find((c) => c.id === "v")?.curve).toHaveLength(4);

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
