import { agree, edit, expect, mix, renderedBed, test, two } from "./support";

test("time put in and taken out takes everything along, on both screens and in the file", async ({
  page,
  browser,
  dir,
}) => {
  const nora = await two(page, browser, dir);
  const music = (await mix(page)).tracks.find((t) => t.stem === "music")?.id ?? "";
  const s = 48_000;
  await edit(page, {
    edit: "set-range",
    track: music,
    lane: "level",
    from: 6 * s,
    to: 8 * s,
    level: -12,
    ramp: 480,
  });
  await edit(page, { edit: "add-marker", marker: "m-1", at: 10 * s, name: "Ten" });
  await edit(nora, { edit: "set-captions", text: "1\n00:00:10,000 --> 00:00:11,000\nA line\n" });
  await edit(nora, { edit: "insert-time", at: 7 * s, length: 2 * s });
  await agree(page, nora);
  const there = async () => {
    const state = await page.evaluate(() => {
      const { markers, captions } = window.wattage?.store.getState() ?? {};
      return [markers?.[0]?.at, captions?.[0]?.from, captions?.[0]?.to];
    });
    return state.map((at) => Number(at) / s);
  };
  expect(await there()).toEqual([12, 12, 13]);

  /** Whether the bed stands at a level, dB against its own, in a part of the file; a tone is not whole in 10 ms. */
  const stands = (levels: number[], from: number, to: number, db: number) =>
    levels
      .slice(Math.round(100 * from) + 3, Math.round(100 * to) - 3)
      .every((level) => (db < -60 ? level < -60 : Math.abs(level - (levels[100] ?? 0) - db) < 0.5));
  const inserted = await renderedBed(page);
  expect(stands(inserted, 2, 6, 0)).toBe(true);
  expect(stands(inserted, 6, 7, -12)).toBe(true);
  expect(stands(inserted, 7, 9, -100)).toBe(true);
  expect(stands(inserted, 9, 10, -12)).toBe(true);
  expect(stands(inserted, 10, 16, 0)).toBe(true);

  await edit(page, { edit: "remove-range", from: 6.5 * s, to: 9.5 * s, close: true });
  await agree(page, nora);
  expect(await there()).toEqual([9, 9, 10]);
  const closed = await renderedBed(page);
  expect(stands(closed, 6, 6.5, -12)).toBe(true);
  expect(stands(closed, 6.5, 7, -12)).toBe(true);
  expect(stands(closed, 7, 14, 0)).toBe(true);
});
