import AxeBuilder from "@axe-core/playwright";
import { beginProject, expect, openProject, signIn, test } from "./support";
import type { Page } from "@playwright/test";

/** WCAG 2.0 to 2.2, A and AA, as axe-core checks them. */
async function violations(page: Page): Promise<string[]> {
  const tags = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"];
  // The clips' buttons take keys only; for pointers there is the canvas. How large they are matters to no pointer.
  const found = [
    await new AxeBuilder({ page }).withTags(tags).exclude("#lanes").analyze(),
    ...((await page.locator("#lanes").count())
      ? [
          await new AxeBuilder({ page })
            .withTags(tags)
            .include("#lanes")
            .disableRules(["target-size"])
            .analyze(),
        ]
      : []),
  ];
  return found
    .flatMap((f) => f.violations)
    .map(
      (v) =>
        `${v.id}: ${v.nodes
          .map((n) => n.target.join(" "))
          .slice(0, 3)
          .join(", ")} ${v.nodes[0]?.failureSummary ?? ""}`,
    );
}

/** What a pointer has to meet and is smaller than 24 px; the thumb of a slider counts with the strip it runs in. */
async function tooSmall(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const controls = "button, input, select, summary, [role=slider], [role=tab]";
    // The clips' buttons take keys only.
    const found = [...document.querySelectorAll(controls)].filter(
      (e) => !e.closest("#lanes, [data-testid=timeline]"),
    );
    return found.flatMap((element) => {
      const met = element.matches("span[role=slider]") ? element.parentElement?.parentElement : element;
      const { width, height } = (met ?? element).getBoundingClientRect();
      const isSeen = width > 1 && height > 1;
      const name = element.getAttribute("aria-label") ?? element.textContent;
      return isSeen && Math.min(width, height) < 23.9 ? [`${name}: ${width}x${height}`] : [];
    });
  });
}

const VIEWS: Record<string, (page: Page) => Promise<void>> = {
  balance: async (page) => {
    await page.getByRole("button", { name: /^Clip Slow accordion on Music, 00:00:00/ }).focus();
    await page.evaluate(() =>
      window.wattage?.store.getState().set({ range: { from: 480000, to: 960000, tracks: ["music"] } }),
    );
    await expect(page.getByRole("region", { name: "Range" })).toBeVisible();
  },
  sources: (page) => page.getByRole("tab", { name: "Sources" }).click(),
  speech: (page) => page.getByRole("tab", { name: "Speech" }).click(),
  versions: (page) => page.getByRole("button", { name: "History and versions" }).click(),
  marks: (page) => page.getByRole("tab", { name: "Notes" }).click(),
  intake: (page) => page.getByRole("button", { name: "Intake" }).click(),
  desk: async (page) => {
    await page.getByRole("button", { name: "Desk" }).click();
    await page.getByLabel("How Music is ridden").selectOption("latch");
    await expect(page.getByRole("group", { name: "Programme" }).last()).toBeVisible();
  },
  "close-up": async (page) => {
    await page.getByRole("button", { name: /^Clip Slow accordion on Music, 00:00:00/ }).focus();
    await page.keyboard.press("w");
    await expect(page.getByText(/^It suggests/)).toBeVisible();
  },
  "even up": async (page) => {
    await page.getByRole("button", { name: /^Clip Slow accordion on Music, 00:00:00/ }).focus();
    await page.keyboard.press("Shift+K");
    await expect(page.getByRole("dialog").getByRole("row")).not.toHaveCount(1);
  },
  steady: async (page) => {
    await page.getByRole("button", { name: /^Clip Slow accordion on Music, 00:00:00/ }).focus();
    await page.keyboard.press("Shift+S");
    await expect(page.getByRole("dialog").getByRole("row")).not.toHaveCount(1);
  },
  handover: (page) => page.getByRole("button", { name: "Handover" }).click(),
  keys: (page) => page.keyboard.press("?"),
  sharing: async (page) => {
    await page.getByRole("button", { name: /Share$/ }).click();
    await expect(page.getByRole("list", { name: "Members" }).getByRole("listitem")).not.toHaveCount(0);
  },
  "edits that wait": async (page) => {
    await page.route("**/edits*", (route) => route.abort());
    await page.route("**/presence/**", (route) => route.abort());
    await page.evaluate(() => {
      void window.wattage?.store.getState().edit({ edit: "set-fader", track: "music", fader: -3.5 });
    });
    await page.getByText("1 edit not sent").click();
    await expect(page.getByText("set fader")).toBeVisible();
  },
};

/** By day and by night: what is on the screen is the same, so it is looked at in both before it goes. */
async function isAccessible(page: Page): Promise<void> {
  for (const [theme, scheme] of [
    ["day", "light"],
    ["night", "dark"],
  ] as const) {
    await page.evaluate((to) => (document.documentElement.dataset.theme = to), theme);
    await expect(page.locator("html")).toHaveCSS("color-scheme", scheme);
    expect(await violations(page), theme).toEqual([]);
  }
  expect(await tooSmall(page)).toEqual([]);
}

test.describe("the AA checks, by day and by night", () => {
  test.beforeEach(({ page }) => page.emulateMedia({ reducedMotion: "reduce" }));

  test("are passed before a project is opened", async ({ page }) => {
    await page.goto("/");
    await isAccessible(page);
    for (const door of ["/post-box", `/new-password/${"x".repeat(43)}`, `/join/${"x".repeat(43)}`]) {
      await page.goto(door);
      await expect(page.getByRole("main")).toBeVisible();
      await isAccessible(page);
    }
    await signIn(page);
    await isAccessible(page);
    await page.getByRole("button", { name: "Demo", exact: true }).click();
    await isAccessible(page);
  });

  for (const [name, show] of Object.entries(VIEWS))
    test(`are passed by ${name}`, async ({ page }) => {
      await signIn(page);
      await openProject(page, "The Salt Ferry");
      await show(page);
      await isAccessible(page);
    });
});

test("at 1024 px everything still fits, and the page itself never scrolls", async ({ page }) => {
  await page.setViewportSize({ width: 1024, height: 720 });
  await signIn(page);
  await beginProject(page, `Narrow ${Date.now()}`);
  const overflow = await page.evaluate(() => [
    document.documentElement.scrollWidth - innerWidth,
    document.documentElement.scrollHeight - innerHeight,
  ]);
  expect(overflow).toEqual([0, 0]);
  for (const name of ["Handover", "Play", "Undo", "Track"])
    await expect(page.getByRole("button", { name, exact: true })).toBeInViewport({ ratio: 1 });
  const overlaps = () =>
    page.getByRole("banner").evaluate((bar) => {
      const boxes = [...bar.querySelectorAll("button, select, input")].map((e) => e.getBoundingClientRect());
      return boxes.filter((a, i) =>
        boxes.some((b, j) => j > i && a.left < b.right - 1 && b.left < a.right - 1),
      ).length;
    });
  expect(await overlaps()).toBe(0);
  await page.getByRole("button", { name: "Type a time to go to" }).click();
  await expect(page.getByRole("textbox", { name: "Time to go to" })).toBeFocused();
  expect(await overlaps()).toBe(0);
});
