import { execFileSync } from "node:child_process";
import { join } from "node:path";
import {
  beginProject,
  bringIn,
  expect,
  mix,
  openCopyOfDemo,
  point,
  settled,
  sounded,
  signIn,
  test,
} from "./support";

test.describe.configure({ mode: "serial" });

test("intake: measured sources get a rough level that every use of them has", async ({ page }) => {
  await signIn(page);
  await openCopyOfDemo(page);
  await page.getByRole("button", { name: "intake" }).click();
  const row = page.getByRole("row", { name: /deckhand-far-mic/ });
  await expect(row).toContainText("mono");
  await row.getByRole("button", { name: /the suggested gain/ }).click();
  await settled(page);
  const { label } = await mix(page);
  expect(label).toMatch(/^Set source Deckhand, far mic to \+14\.\d dB$/);
  await expect(row).toContainText("−20.0");
  const gain = await row.getByLabel(/^Source gain of/).inputValue();
  expect(Number(gain.replace("+", ""))).toBeGreaterThan(10);

  await row.getByRole("button", { name: /^Listen to/ }).click();
  await page.waitForTimeout(700);
  await row.getByRole("button", { name: /^Stop/ }).click();

  const stereo = page.getByRole("row", { name: /two-voices/ });
  await stereo.getByRole("button", { name: /^Unlink/ }).click();
  await settled(page);
  await stereo.getByLabel(/^Source gain of two-voices.flac, right/).fill("-6");
  await page.keyboard.press("Enter");
  await settled(page);
  const right = await page.evaluate(
    () =>
      Object.values(window.wattage?.store.getState().sources ?? {}).find((s) => s.right !== undefined)?.right,
  );
  expect(right).toBe(-6);
  for (let i = 0; i < 3; i++) await page.getByRole("button", { name: "Undo", exact: true }).click();
  await settled(page);
});

test("snapshots are named, compared in words and by ear, and taken up again", async ({ page }) => {
  await signIn(page);
  await openCopyOfDemo(page);
  const fader = (level: number) =>
    page.evaluate(
      (db) => window.wattage?.store.getState().edit({ edit: "set-fader", track: "music", fader: db }),
      level,
    );
  await fader(-3);
  await page.getByRole("button", { name: "History and versions" }).click();
  const name = `Loud bed ${Date.now()}`;
  await page.getByLabel("Name of the snapshot").fill(name);
  await page.getByRole("button", { name: "Take", exact: true }).click();
  const line = page.getByRole("listitem").filter({ hasText: name });
  await expect(line).toBeVisible();
  await fader(-20);
  await line.getByRole("button", { name: "A", exact: true }).click();
  await expect(page.getByText(/The fader of Music is at −20.0 dB instead of/)).toBeVisible();
  await expect(page.getByText(/LUFS \(/)).toBeVisible();

  // Space plays although a button was clicked last; the switch goes on from the same spot. The louder of the two is turned
  // down by the difference that was measured.
  const playing = () => page.evaluate(() => window.wattage?.store.getState().playing);
  const position = () => page.evaluate(() => window.wattage?.player.position ?? 0);
  await page.keyboard.press("Space");
  await expect.poll(playing).toBe(true);
  await expect.poll(position).toBeGreaterThan(24000);
  const before = await position();
  await page.keyboard.press("c");
  expect(await position()).toBeGreaterThanOrEqual(before);
  await expect.poll(position).toBeGreaterThan(before + 12000);
  expect(await playing()).toBe(true);
  await expect.poll(() => page.evaluate(() => window.wattage?.store.getState().trim)).toBeLessThan(-0.05);
  await page.getByRole("button", { name: "Back to B" }).click();
  await expect.poll(() => page.evaluate(() => window.wattage?.store.getState().trim)).toBe(0);
  expect(await playing()).toBe(true);
  await page.keyboard.press("Space");
  await expect.poll(playing).toBe(false);

  await line.getByRole("button", { name: `More for ${name}` }).click();
  await page.getByRole("menuitem", { name: "Go back to it" }).click();
  await settled(page);
  expect((await mix(page)).label).toContain(name);
  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await settled(page);
  expect((await mix(page)).tracks.find((t) => t.id === "music")?.fader).toBe(-20);
  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await settled(page);
});

test("a range loops with a pre-roll, speech or the rest are heard alone, at half speed, scrubbed", async ({
  page,
}) => {
  await signIn(page);
  await openCopyOfDemo(page);
  const state = () =>
    page.evaluate(() => {
      const { player, store } = window.wattage ?? {};
      return {
        position: player?.position ?? 0,
        tracks: player?.levels().tracks ?? {},
        looping: store?.getState().looping,
      };
    });
  const peak = async (track: string) =>
    Math.max(...((await state()).tracks[track]?.peak ?? [-Infinity, -Infinity]));
  await page.evaluate(() =>
    window.wattage?.store.getState().set({ range: { from: 15 * 48000, to: 17 * 48000, tracks: null } }),
  );
  await page.keyboard.press("q");
  await page.keyboard.press("Space");
  await sounded(page, 0.3);
  const first = (await state()).position / 48000;
  expect(first).toBeGreaterThan(13.9);
  expect(first).toBeLessThan(15);
  // Round twice, and never outside.
  const seen: number[] = [];
  for (let i = 0; i < 45; i++) {
    await sounded(page, 0.15);
    seen.push((await state()).position / 48000);
  }
  expect(Math.max(...seen)).toBeLessThan(17.3);
  const turns = seen.filter((s, i) => i > 0 && s < (seen[i - 1] ?? 0) - 1).length;
  expect(turns).toBeGreaterThanOrEqual(2);
  expect(await page.evaluate(() => window.wattage?.player.late)).toBe(0);

  await page.keyboard.press("v");
  await sounded(page, 0.4);
  expect(await peak("music")).toBe(-Infinity);
  await page.keyboard.press("v");
  await sounded(page, 0.4);
  expect(await peak("narrator")).toBe(-Infinity);
  expect(await peak("music")).toBeGreaterThan(-60);
  await page.keyboard.press("v");

  await page.keyboard.press("q");
  await page.keyboard.press("Escape");
  await page.keyboard.press("y");
  await sounded(page, 1.2);
  // Position against the clock of the sound, both read at the same moment.
  const both = () =>
    page.evaluate(() => {
      const { player } = window.wattage ?? {};
      return [(player?.position ?? 0) / 48000, player?.clockTime ?? 0] as const;
    });
  // A machine that is busy may hold the sound up for a moment; the next stretch shows its speed again.
  await expect(async () => {
    const [from, begun] = await both();
    await sounded(page, 1.5);
    const [to, ended] = await both();
    const speed = (to - from) / (ended - begun);
    expect(speed).toBeGreaterThan(0.48);
    expect(speed).toBeLessThan(0.52);
  }).toPass();
  await page.keyboard.press("y");
  await page.keyboard.press("y");
  await page.keyboard.press("Space");

  await test.step("the playhead's lozenge scrubs", async () => {
    await page.evaluate(() => window.wattage?.store.getState().set({ playhead: 20 * 48000 }));
    const at = await point(page, 20, "Narrator", "middle");
    const horizon = await page.getByText("Horizon", { exact: true }).boundingBox();
    const y = (horizon?.y ?? 0) - 4;
    await page.mouse.move(at.x, y);
    await page.mouse.down();
    const to = await point(page, 33, "Narrator", "middle");
    await page.mouse.move(to.x, y, { steps: 12 });
    await expect.poll(async () => Math.abs((await mix(page)).playhead / 48000 - 33)).toBeLessThan(0.5);
    await page.mouse.up();
    expect((await mix(page)).playing).toBe(false);
  });
});

test("the picture follows the sound, frame by frame, and can be detached and put aside", async ({
  page,
  dir,
}) => {
  // A film that shows its own frame number as grey: frame n of 50 is n times 5 of 255.
  const film = join(dir, "grey.mp4");
  execFileSync("ffmpeg", [
    ...["-v", "error", "-y", "-f", "lavfi", "-i", "color=black:s=64x36:r=25:d=2,format=gray"],
    ...["-f", "lavfi", "-i", "sine=frequency=300:duration=2"],
    ...["-vf", "geq=lum='N*5',format=yuv420p", "-c:v", "libx264", "-qp", "0", "-c:a", "aac", film],
  ]);
  await signIn(page);
  await beginProject(page, `Picture ${Date.now()}`);
  await bringIn(page, film);
  await page.getByRole("button", { name: "Place grey.mp4 at the playhead" }).click();
  await settled(page);
  const picture = page.getByTestId("picture");
  await expect(picture).toBeVisible();
  const grey = () =>
    picture.evaluate((video: HTMLVideoElement) => {
      const canvas = document.createElement("canvas");
      canvas.width = canvas.height = 8;
      const ctx = canvas.getContext("2d");
      ctx?.drawImage(video, 0, 0, 8, 8);
      return ctx?.getImageData(4, 4, 1, 1).data[0] ?? -1;
    });
  await page.keyboard.press("Home");
  // Each step has been taken when the video has found its frame and stands.
  const found = (frame: number) =>
    page.waitForFunction(
      (at) => {
        const video = document.querySelector("video");
        return video && !video.seeking && video.readyState >= 2 && Math.abs(video.currentTime - at) < 0.001;
      },
      (frame + 0.5) / 25,
    );
  await found(0);
  const shades: number[] = [];
  for (let frame = 1; frame <= 8; frame++) {
    await page.keyboard.press("ArrowRight");
    await found(frame);
    await page.evaluate(
      () => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve))),
    );
    shades.push(await grey());
  }
  // Each step is the next frame: five levels brighter, within what VP8 rounds.
  for (let i = 1; i < shades.length; i++)
    expect(Math.abs((shades[i] ?? 0) - (shades[i - 1] ?? 0) - 5)).toBeLessThanOrEqual(3);
  expect(Math.abs((shades[7] ?? 0) - (shades[0] ?? 0) - 35)).toBeLessThanOrEqual(4);

  await page.keyboard.press("Home");
  await page.keyboard.press("Space");
  await sounded(page, 0.9);
  const apart = () =>
    page.evaluate(() => {
      const video = document.querySelector("video");
      return Math.abs((video?.currentTime ?? 0) - (window.wattage?.player.position ?? 0) / 48000);
    });
  await expect.poll(apart).toBeLessThan(0.09);
  await page.keyboard.press("Space");

  await page.getByRole("tab", { name: "Levels" }).click();
  await page.getByRole("button", { name: "Do", exact: true }).click();
  await page.getByRole("menuitem", { name: "Detach its picture" }).click();
  await settled(page);
  await page.keyboard.press("Home");
  await expect(page.getByText("by itself: moved to")).toBeVisible();
  await page
    .getByRole("button", { name: /Picture/ })
    .first()
    .click();
  await expect(picture).toBeHidden();
});
