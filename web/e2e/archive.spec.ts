import { join } from "node:path";
import { beginProject, bringIn, expect, makeMedia, mix, settled, signIn, test } from "./support";

test("a take of three channels is laid together; the project goes out as an archive, and comes back the same", async ({
  page,
  dir,
}) => {
  const take = makeMedia(
    dir,
    "take 7.wav",
    "0.1*sin(2*PI*200*t)|0.2*sin(2*PI*300*t)|0.05*sin(2*PI*400*t)",
    6,
    "-c:a",
    "pcm_s24le",
  );
  await signIn(page);
  await beginProject(page, `Takes ${Date.now()}`);
  await bringIn(page, take);
  for (const channel of ["1", "2", "3"])
    await expect(
      page.getByRole("button", { name: `Place take 7.wav · channel ${channel} at the playhead` }),
    ).toBeVisible();
  await page.getByRole("button", { name: "Intake" }).click();
  await page.getByRole("button", { name: "Together…" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Lay 3 sources" }).click();
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await settled(page);
  const laid = await mix(page);
  expect(laid.tracks.map((t) => t.name)).toEqual(["channel 1", "channel 2", "channel 3"]);
  await page.evaluate(
    (id) => void window.wattage?.store.getState().edit({ edit: "set-fader", track: id, fader: -7.5 }),
    laid.tracks[1]?.id ?? "",
  );
  await settled(page);

  await page.getByRole("button", { name: "Handover" }).click();
  await page.getByRole("button", { name: "The project as an archive" }).click();
  const download = page.waitForEvent("download");
  await page.getByRole("listitem").filter({ hasText: ".zip" }).getByRole("link", { name: "Fetch" }).click();
  const archive = join(dir, "takes.zip");
  await (await download).saveAs(archive);

  await page.goto("/");
  await beginProject(page, `Takes again ${Date.now()}`);
  await bringIn(page, archive);
  await expect.poll(async () => (await mix(page)).tracks.length).toBe(3);
  const back = await mix(page);
  const plain = (m: typeof back) =>
    m.clips.map(({ id, at, in: from, length, gain }) => ({ id, at, from, length, gain }));
  expect(plain(back)).toEqual(plain(laid));
  expect(await page.evaluate(() => window.wattage?.store.getState().tracks.map((t) => t.fader))).toEqual([
    0, -7.5, 0,
  ]);
});
