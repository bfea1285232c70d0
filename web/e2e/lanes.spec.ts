import type { Page } from "@playwright/test";
import {
  drag,
  everyFour,
  expect,
  layVoiceOverBed,
  makeMedia,
  makeVoice,
  mix,
  point,
  settled,
  test,
  setLane,
} from "./support";

const BED = "0.04*sin(2*PI*500*t)";

const music = async (page: Page) => {
  const found = (await mix(page)).tracks.find((t) => t.name === "Music");
  if (!found) throw new Error("no music");
  return found;
};
const points = async (page: Page) =>
  ((await music(page)).lanes?.level ?? []).map((k) => [k.at / 48000, k.level] as const);

test("lanes are edited by hand like wires: level, pan and mute", async ({ page, dir }) => {
  const voice = makeVoice(dir, "voice.wav", everyFour(16), 16);
  await layVoiceOverBed(page, `Lanes ${Date.now()}`, voice, makeMedia(dir, "bed.wav", BED, 16));

  await test.step("a keyframe by double-click, dragged, typed, and the whole of it lifted", async () => {
    await setLane(page, "Music", "level of the track");
    const line = await point(page, 4, "Music", "wire");
    await page.mouse.dblclick(line.x, line.y);
    await settled(page);
    const later = await point(page, 8, "Music", "wire");
    await page.mouse.dblclick(later.x, later.y);
    await settled(page);
    expect((await points(page)).map(([at]) => Math.round(at))).toEqual([4, 8]);
    await drag(page, later, { x: later.x, y: later.y + 25 });
    await settled(page);
    const [first, second] = await points(page);
    expect(first?.[1]).toBe(0);
    expect(Number(second?.[1])).toBeLessThan(-3);
    await page.getByLabel("Keyframe level").nth(1).fill("-12");
    await page.keyboard.press("Enter");
    await settled(page);
    await page.getByRole("button", { name: "Choose all" }).click();
    await page.getByTestId("timeline").hover({ position: { x: 5, y: 5 } });
    await page.keyboard.press("ArrowDown");
    await settled(page);
    expect((await points(page)).map(([, level]) => level)).toEqual([-1, -13]);
    // No clip was touched by any of it.
    expect((await mix(page)).clips.flatMap((c) => c.curve)).toEqual([]);
  });

  await test.step("a range of it dipped, deepened in one go, and cleared", async () => {
    const before = await points(page);
    await page.keyboard.press("Escape");
    await drag(page, await point(page, 10, "Music", "low"), await point(page, 12, "Music", "low"));
    const inside = await point(page, 11, "Music", "middle");
    await drag(page, inside, { x: inside.x, y: inside.y + 12 });
    await settled(page);
    expect((await mix(page)).label).toMatch(/^Lower the level lane of Music|^Dip/);
    const depth = (await points(page)).map(([, level]) => Number(level));
    await drag(page, inside, { x: inside.x, y: inside.y + 12 });
    await settled(page);
    expect(Math.min(...(await points(page)).map(([, l]) => Number(l)))).toBeLessThan(Math.min(...depth));
    await page.getByRole("button", { name: "Undo", exact: true }).click();
    await settled(page);
    expect(await points(page)).toEqual(before);
  });

  await test.step("copied to another track", async () => {
    await page.keyboard.press("Escape");
    await page.getByLabel("Copy this lane to").selectOption({ label: "Speech" });
    await settled(page);
    const { tracks } = await mix(page);
    expect(tracks[0]?.lanes?.level).toEqual((await music(page)).lanes?.level);
  });

  await test.step("pan: bent where it is taken, and a range brought to one side", async () => {
    await setLane(page, "Music", "pan");
    const centre = await point(page, 3, "Music", "middle");
    await drag(page, centre, { x: centre.x, y: centre.y - 40 });
    await settled(page);
    const bent = (await music(page)).lanes?.pan ?? [];
    expect(bent.map((p) => Math.round(p.at / 48000))).toEqual([0, 3]);
    expect(bent[1]?.pan).toBeLessThan(-0.2);
    await page.getByRole("textbox", { name: "Pan", exact: true }).nth(1).fill("30 right");
    await page.keyboard.press("Enter");
    await settled(page);
    expect((await music(page)).lanes?.pan?.[1]?.pan).toBe(0.3);
    // The slider in the head stands where the lane is.
    await page.evaluate(() => window.wattage?.player.seek(4 * 48000));
    await page.getByRole("button", { name: /^Lane of Music:/ }).click();
    await expect(page.getByRole("slider", { name: "Pan of Music" })).toHaveAttribute(
      "aria-valuetext",
      "30 right",
    );
    await page.keyboard.press("Escape");
  });

  await test.step("mute: a range, and its end dragged", async () => {
    await setLane(page, "Music", "mutes");
    await drag(page, await point(page, 5, "Music", "low"), await point(page, 7, "Music", "low"));
    await page.getByRole("button", { name: "Mute here" }).click();
    await settled(page);
    const end = await point(page, 7, "Music", "middle");
    const to = await point(page, 9, "Music", "middle");
    await page.keyboard.press("Escape");
    await drag(page, end, to);
    await settled(page);
    const mute = (await music(page)).lanes?.mute ?? [];
    expect(mute.map((m) => [Math.round(m.at / 48000), m.muted])).toEqual([
      [5, true],
      [9, false],
    ]);
    await page.getByRole("button", { name: "Remove this mute" }).click();
    await settled(page);
    expect((await music(page)).lanes?.mute ?? []).toEqual([]);
  });

  await test.step("what is drawn on the clips becomes the lane, and back again", async () => {
    await page.evaluate(async () => {
      const { edit, tracks } = window.wattage?.store.getState() ?? {};
      const track = tracks?.find((t) => t.name === "Music")?.id ?? "";
      await edit?.({ edit: "clear-lane", track, lane: "level" });
      await edit?.({ edit: "dip-range", clips: ["bed"], from: 96000, to: 192000, by: -9, ramp: 24000 });
    });
    const drawn = (await mix(page)).clips.find((c) => c.id === "bed")?.curve ?? [];
    await page.getByRole("button", { name: "More for Music" }).click();
    await page.getByRole("menuitem", { name: "Clip keyframes into the level lane" }).click();
    await settled(page);
    expect((await mix(page)).clips.find((c) => c.id === "bed")?.curve).toEqual([]);
    const levels = (await points(page)).map(([, level]) => Number(level));
    expect(Math.min(...levels)).toBeCloseTo(-9);
    await page.getByRole("button", { name: "More for Music" }).click();
    await page.getByRole("menuitem", { name: "Level lane into clip keyframes" }).click();
    await settled(page);
    expect(await points(page)).toEqual([]);
    const back = (await mix(page)).clips.find((c) => c.id === "bed")?.curve ?? [];
    for (const k of drawn) expect(back).toContainEqual(expect.objectContaining({ at: k.at, level: k.level }));
  });

  await test.step("single clips as those who speak", async () => {
    await page.getByRole("tab", { name: "Ducking" }).click();
    await page.getByRole("button", { name: "Interview" }).click();
    await expect(page.getByText("4 stretches of speech")).toBeVisible();
    const name = await point(page, 2, "Speech", "name");
    await page.mouse.click(name.x, name.y);
    await page.getByRole("button", { name: /^“voice.*” speaks/ }).click();
    await expect(page.getByText("4 stretches of speech")).toBeVisible();
    await page.getByRole("button", { name: "Keep" }).click();
    await settled(page);
    expect(await page.evaluate(() => window.wattage?.store.getState().rules[0]?.clips)).toEqual(["voice"]);
  });
});
