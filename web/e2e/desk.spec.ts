import {
  expect,
  layVoiceOverBed,
  everyFour,
  makeMedia,
  makeVoice,
  mix,
  renderedBed,
  settled,
  sounded,
  test,
  setLane,
} from "./support";
import type { Page } from "@playwright/test";

const BED = "0.04*sin(2*PI*500*t)";

const track = async (page: Page, name: string) => (await mix(page)).tracks.find((t) => t.name === name);

test("a rule is tried, kept, corrected by hand, outdated, brought up to date, and rendered", async ({
  page,
  dir,
}) => {
  await layVoiceOverBed(
    page,
    `Duck ${Date.now()}`,
    makeVoice(dir, "voice.wav", everyFour(16), 16),
    makeMedia(dir, "bed.wav", BED, 16),
  );
  await page.getByRole("tab", { name: "Ducking" }).click();
  await page.getByRole("button", { name: "Interview" }).click();
  await expect(page.getByText("4 stretches of speech, −12.0 dB.")).toBeVisible();
  // Tried, and nothing is kept yet; a stretch is left out by a click and taken in again.
  expect((await track(page, "Music"))?.ducking).toBeUndefined();
  await page.getByRole("button", { name: /^speech, 00:00:05/ }).click();
  await expect(page.getByText("3 stretches of speech")).toBeVisible();
  await page.getByRole("button", { name: /^left out, 00:00:05/ }).click();
  await expect(page.getByText("4 stretches of speech")).toBeVisible();
  await page.getByRole("button", { name: "Keep" }).click();
  await settled(page);
  expect((await mix(page)).label).toBe("Duck: Interview");

  const before = await renderedBed(page);
  const full = before[5] ?? 0;
  const at = (levels: number[], seconds: number) => (levels[Math.round(100 * seconds)] ?? 0) - full;
  expect(at(before, 2)).toBeCloseTo(-12, 0);
  expect(at(before, 0.92)).toBeCloseTo(-12, 0);
  expect(at(before, 0.3)).toBeCloseTo(0, 0);

  // One moment is corrected in the lane: the dip at 5 s is made weaker.
  await setLane(page, "Music", "ducking");
  const music = (await track(page, "Music"))?.id ?? "";
  await page.evaluate(
    (id) =>
      window.wattage?.store.getState().set({
        range: { from: 5.5 * 48000, to: 6.5 * 48000, tracks: [id] },
        settings: { ramp: 4800, rampChosen: true, inside: false, by: 5, ceiling: -6 },
      }),
    music,
  );
  await page.keyboard.press("d");
  await settled(page);
  expect((await track(page, "Music"))?.ducking?.held).toHaveLength(1);
  await page.evaluate(() => window.wattage?.store.getState().set({ range: null }));

  // The speech moves: the lane says so, and one key brings it up to date and the correction goes with its words.
  await page.evaluate(() =>
    window.wattage?.store.getState().edit({
      edit: "move-clip",
      clip: "voice",
      track: window.wattage.store.getState().tracks[0]?.id ?? "",
      at: 48000,
    }),
  );
  await expect(page.getByText("out of date", { exact: false }).first()).toBeVisible();
  await page.keyboard.press("Shift+U");
  await expect
    .poll(() => page.evaluate(() => window.wattage?.store.getState().figures?.outOfDate))
    .toEqual([]);
  const after = await renderedBed(page);
  // It has gone along with its words.
  expect(at(after, 7)).toBeCloseTo(-7, 0);
  expect(at(after, 1.2)).toBeCloseTo(0, 0);
  expect(at(after, 3)).toBeCloseTo(-12, 0);

  // Into clip keyframes, which travel with the sound.
  await page.getByRole("button", { name: "More for Music" }).click();
  await page.getByRole("menuitem", { name: "Ducking into clip keyframes" }).click();
  await settled(page);
  expect((await track(page, "Music"))?.ducking).toBeUndefined();
  const turned = await renderedBed(page);
  for (const seconds of [1.2, 3, 7, 9]) expect(at(turned, seconds)).toBeCloseTo(at(after, seconds), 0);
});

test("a ride with the pointer is written, repaired by touch, and played back with its fader", async ({
  page,
  dir,
}) => {
  await layVoiceOverBed(
    page,
    `Ride ${Date.now()}`,
    makeVoice(dir, "voice.wav", everyFour(30), 30),
    makeMedia(dir, "bed.wav", BED, 30),
  );
  await page.getByRole("button", { name: "Desk" }).click();
  await page.getByLabel("How Music is ridden").selectOption("write");
  const fader = page.getByRole("slider", { name: "Tall fader of Music" });
  const box = await fader.boundingBox();
  if (!box) throw new Error("no fader");
  const x = box.x + box.width / 2;
  const top = box.y + 15 + 0.2 * (box.height - 30);
  await page.keyboard.press("Space");
  await expect
    .poll(() => page.evaluate(() => window.wattage?.player.position ?? 0))
    .toBeGreaterThan(0.6 * 48_000);
  await page.mouse.move(x, top);
  await page.mouse.down();
  // Fifty times a second, as a hand does it, without waiting for the page.
  const input = await page.context().newCDPSession(page);
  const sent: Promise<unknown>[] = [];
  const begun = Date.now();
  for (let i = 1; i <= 50; i++) {
    await new Promise((resolve) => setTimeout(resolve, Math.max(0, begun + 20 * i - Date.now())));
    const move = { type: "mouseMoved" as const, x, y: top + 1.5 * i, button: "left" as const, buttons: 1 };
    sent.push(input.send("Input.dispatchMouseEvent", move));
  }
  await Promise.all(sent);
  await expect(page.getByText(/^● −/)).toBeVisible();
  await page.mouse.up();
  await sounded(page, 0.6);
  await page.keyboard.press("Space");
  await settled(page);
  await expect.poll(async () => (await mix(page)).label).toMatch(/^Ride Music, 0:00/);
  await expect(page.getByLabel("How Music is ridden")).toHaveValue("touch");
  const written = (await track(page, "Music"))?.lanes?.level ?? [];
  expect(written.length).toBeGreaterThan(2);
  expect(written.length).toBeLessThan(30);
  const down = Math.min(...written.map((k) => (k.level === "silence" ? -60 : k.level)));
  expect(down).toBeLessThan(-6);

  // Coarser, then finer again, against what was ridden.
  const tolerance = page.getByLabel("Tolerance of thinning, dB");
  await tolerance.fill("3");
  await page.keyboard.press("Enter");
  await settled(page);
  expect((await track(page, "Music"))?.lanes?.level?.length ?? 0).toBeLessThanOrEqual(written.length);

  // Spacing that is set holds, except at the joints to what was there, and the tolerance gives way.
  const spacing = page.getByLabel("Spacing of keyframes, ms");
  await spacing.fill("900");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toHaveText(/^It goes from 0 to 500 ms/);
  await spacing.fill("400");
  await page.keyboard.press("Enter");
  await settled(page);
  const apart = ((await track(page, "Music"))?.lanes?.level ?? []).map((k) => k.at);
  const gaps = apart.slice(1, -1).map((at, i) => at - (apart[i] ?? 0));
  // Steps are within 10 ms; one may end where the pass does.
  expect(gaps.filter((gap) => gap > 480 && gap < 0.399 * 48_000).length).toBeLessThanOrEqual(1);
  expect(apart.length).toBeLessThan(written.length);
  await spacing.fill("100");
  await page.keyboard.press("Enter");
  await settled(page);
  await tolerance.fill("0.25");
  await page.keyboard.press("Enter");
  await settled(page);
  expect((await track(page, "Music"))?.lanes?.level).toEqual(written);

  // Played back, the fader stands where the lane is.
  await page.evaluate(() => window.wattage?.player.seek(0));
  await page.keyboard.press("Space");
  for (let i = 0; i < 6; i++) {
    await sounded(page, 0.3);
    const [shown, due] = await page.evaluate(() => {
      const { player, store } = window.wattage ?? {};
      const thumb = document.querySelector('[aria-label="Tall fader of Music"]');
      const lane = store?.getState().tracks.find((t) => t.name === "Music")?.lanes?.level ?? [];
      const value = (l: number | "silence") => (l === "silence" ? -60 : l);
      // The fader is drawn ten times a second, on a busy page more seldom; it stands where the lane was within that time.
      const near = Array.from({ length: 17 }, (_, i) => i * 1200).map((back) => {
        const at = (player?.position ?? 0) - back;
        const j = lane.findIndex((k) => k.at > at);
        const [a, b] = [lane[j < 0 ? lane.length - 1 : j - 1], lane[j]];
        if (!a || !b) return value((a ?? b)?.level ?? 0);
        return value(a.level) + ((value(b.level) - value(a.level)) * (at - a.at)) / (b.at - a.at);
      });
      return [Number(thumb?.getAttribute("aria-valuenow")), near] as const;
    });
    expect(shown).toBeGreaterThan(Math.min(...due) - 0.3);
    expect(shown).toBeLessThan(Math.max(...due) + 0.3);
  }
  await page.keyboard.press("Space");

  // A touch in the middle by keys; all before and after stays exactly as it was.
  const start = await page.evaluate(() => {
    window.wattage?.player.seek(0);
    return 0;
  });
  expect(start).toBe(0);
  await page.keyboard.press("Space");
  await sounded(page, 0.5);
  await fader.focus();
  await page.keyboard.press("ArrowUp");
  await sounded(page, 0.9);
  await page.getByRole("button", { name: "Stop" }).click();
  await settled(page);
  await expect.poll(async () => (await track(page, "Music"))?.lanes?.level).not.toEqual(written);
  const repaired = (await track(page, "Music"))?.lanes?.level ?? [];
  const text = (lane: typeof written) => lane.map((k) => JSON.stringify(k));
  const [old, now] = [text(written), text(repaired)];
  const lead = now.findIndex((k, i) => k !== old[i]);
  const tail = [...now].reverse().findIndex((k, i) => k !== [...old].reverse()[i]);
  const touched = repaired.slice(lead, repaired.length - tail).map((k) => k.at / 48000);
  expect(Math.min(...touched)).toBeGreaterThan(0.2);
  expect(Math.max(...touched)).toBeLessThan(3);
  expect(old.slice(0, lead)).toEqual(now.slice(0, lead));
  expect(old.slice(old.length - tail)).toEqual(now.slice(now.length - tail));
  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await settled(page);
  expect((await track(page, "Music"))?.lanes?.level).toEqual(written);
});

test("the simulated fader bank moves a fader, and its own follow the desk", async ({
  page,
  dir,
  context,
}) => {
  await layVoiceOverBed(
    page,
    `Bank ${Date.now()}`,
    makeVoice(dir, "voice.wav", everyFour(16), 16),
    makeMedia(dir, "bed.wav", BED, 16),
  );
  await page.getByRole("button", { name: "Desk" }).click();
  await page.getByLabel("Fader bank").selectOption("simulated");
  const opened = context.waitForEvent("page");
  await page.getByRole("link", { name: "Open the simulated bank" }).click();
  const bank = await opened;
  // The second strip is the music: speech stands first.
  const strip = bank.getByRole("slider", { name: "Tall fader of strip 2" });
  await strip.focus();
  for (let i = 0; i < 6; i++) await bank.keyboard.press("ArrowDown");
  await expect.poll(async () => (await track(page, "Music"))?.fader).toBeCloseTo(-6, 1);
  expect((await mix(page)).label).toMatch(/^Set Music to −6\.0 dB$/);
  // And back: what is set on the desk moves the bank.
  const field = page.getByRole("textbox", { name: "Level of Music in dB" });
  await field.fill("-20");
  await field.press("Enter");
  await expect.poll(async () => Number(await strip.getAttribute("aria-valuenow"))).toBeCloseTo(-20, 0);
  await bank.close();
});
