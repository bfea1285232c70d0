import type { Page } from "@playwright/test";
import { agree, expect, mix, stored, test, two } from "./support";

test("a thousand edits of two, answers delayed, lost and doubled: none lost, none twice", async ({
  page,
  browser,
  dir,
}) => {
  test.setTimeout(900_000);
  const nora = await two(page, browser, dir);
  const each = Number(process.env.WATTAGE_EDITS ?? 500);
  const happened = { late: 0, lost: 0, doubled: 0, failed: 0 };
  let seed = 11;
  const random = () => (seed = (seed * 48271) % 2147483647) / 2147483647;
  for (const who of [page, nora])
    await who.route(/\/(edits|undo|redo|changes)/, async (route) => {
      const dice = random();
      try {
        if (dice < 0.05) {
          happened.lost++;
          await route.fetch();
          await route.abort();
        } else if (dice < 0.1) {
          happened.doubled++;
          // Twice at the same moment; either answer will do.
          const [response] = await Promise.all([route.fetch(), route.fetch()]);
          await route.fulfill({ response });
        } else if (dice < 0.13) {
          happened.failed++;
          await route.fulfill({ status: 500, body: "" });
        } else {
          if (dice < 0.2) {
            happened.late++;
            await new Promise((resolve) => setTimeout(resolve, 300 * random()));
          }
          await route.continue();
        }
      } catch {
        // The page has gone on by itself.
      }
    });
  const work = (who: Page, name: string, clip: string) =>
    who.evaluate(
      async ([name, clip, each]) => {
        const { edit, settled } = window.wattage?.store.getState() ?? {};
        let refused = 0;
        for (let i = 0; i < each; i++) {
          const done =
            i % 2
              ? edit?.({ edit: "add-marker", marker: `${name}-${i}`, at: i * 480, name: `${name} ${i}` })
              : edit?.({ edit: "change-clip-gain", clips: [clip], by: i % 4 ? -0.1 : 0.2 });
          void done?.then((d) => (refused += d ? 0 : 1));
          if (i % 10 === 9) await settled?.();
        }
        await settled?.();
        return refused;
      },
      [name, clip, each] as const,
    );
  const refused = await Promise.all([work(page, "ada", "voice"), work(nora, "nora", "bed")]);
  expect(refused).toEqual([0, 0]);
  await page.unrouteAll({ behavior: "wait" });
  await nora.unrouteAll({ behavior: "wait" });
  console.log(`      ${JSON.stringify(happened)}`);
  await agree(page, nora);
  const { clips } = await mix(page);
  const there = (await stored(page)).content as { markers: unknown[] };
  expect(there.markers).toHaveLength(2 * Math.floor(each / 2));
  for (const id of ["voice", "bed"])
    expect(Number(clips.find((c) => c.id === id)?.gain)).toBeCloseTo((each / 4) * 0.2 - (each / 4) * 0.1, 6);
});
