import { join } from "node:path";
import type { Page } from "@playwright/test";
import { expect, makeMedia, mix, point, rmsDb, settled, signIn, test } from "./support";

/** Four recordings that are not the demo's: two voices, music, and a place. */
function recordings(dir: string): string[] {
  const talk = (hz: number) => `0.2*sin(2*PI*${hz}*t)*gt(sin(2*PI*0.2*t)\\,0)`;
  return [
    makeMedia(dir, "host.wav", talk(210), 12),
    makeMedia(dir, "guest.flac", talk(340), 9),
    makeMedia(dir, "theme.mp3", "0.25*sin(2*PI*440*t)|0.25*sin(2*PI*554*t)", 24, "-b:a", "192k"),
    makeMedia(dir, "harbour.ogg", "0.02*sin(2*PI*90*t)|0.02*sin(2*PI*97*t)", 24, "-c:a", "libvorbis"),
  ];
}

/** Gestures, one line each, as they are done. */
class Diary {
  readonly lines: string[] = [];

  constructor(private readonly page: Page) {}

  write(line: string): void {
    this.lines.push(line);
  }

  async click(name: string | RegExp, role: "button" | "menuitem" | "link" = "button"): Promise<void> {
    this.write(`click ${String(name)}`);
    await this.page.getByRole(role, { name, exact: typeof name === "string" }).click();
    await settled(this.page).catch(() => undefined);
  }

  async drag(what: string, from: { x: number; y: number }, to: { x: number; y: number }): Promise<void> {
    this.write(`drag ${what}`);
    await this.page.mouse.move(from.x, from.y);
    await this.page.mouse.down();
    await this.page.mouse.move(from.x + 8, from.y + 4, { steps: 3 });
    await this.page.mouse.move(to.x, to.y, { steps: 6 });
    await this.page.mouse.up();
    await settled(this.page);
  }

  async press(keys: string, times = 1): Promise<void> {
    this.write(times > 1 ? `${times} × ${keys}` : keys);
    for (let i = 0; i < times; i++) await this.page.keyboard.press(keys);
    await this.page.waitForFunction(() => (window.wattage?.store.getState().pending ?? 0) === 0);
  }

  async type(text: string): Promise<void> {
    this.write(`type “${text}”, Enter`);
    await this.page.keyboard.type(text);
    await this.page.keyboard.press("Enter");
    await this.page.waitForFunction(() => (window.wattage?.store.getState().pending ?? 0) === 0);
  }

  /** F6 until a part of the screen has the focus. */
  async area(name: string): Promise<void> {
    for (let presses = 1; presses <= 5; presses++) {
      await this.page.keyboard.press("F6");
      const now = await this.page.evaluate(() =>
        document.activeElement?.closest("[data-area]")?.getAttribute("data-area"),
      );
      if (now === name) {
        this.write(`${presses} × F6 to the ${name}`);
        return;
      }
    }
    throw new Error(`F6 does not reach the ${name}`);
  }

  /** Tab, or Shift+Tab, until a control has the focus. */
  async tabTo(name: RegExp, back = false): Promise<void> {
    const key = back ? "Shift+Tab" : "Tab";
    for (let presses = 1; presses <= 120; presses++) {
      await this.page.keyboard.press(key);
      const now = await this.page.evaluate(() => {
        const at = document.activeElement;
        const field = at instanceof HTMLInputElement ? at.name : "";
        return at?.getAttribute("aria-label") ?? (field || at?.textContent || "");
      });
      if (name.test(now)) {
        this.write(`${presses} × ${key} to “${now.trim().slice(0, 40)}”`);
        return;
      }
    }
    throw new Error(`${String(name)} cannot be reached by ${key}`);
  }
}

async function checkFile(page: Page, dir: string, fetch: () => Promise<void>): Promise<void> {
  const download = page.waitForEvent("download");
  await fetch();
  const file = join(dir, "out.wav");
  await (await download).saveAs(file);
  const { clips, tracks } = await mix(page);
  expect(clips).toHaveLength(4);
  expect(tracks.length).toBeGreaterThanOrEqual(3);
  // The host pauses from 2.5 to 5 s; the theme is dipped there and full from 10 s on.
  const dipped = rmsDb(file, 3.2, 1.2);
  expect(dipped).toBeLessThan(rmsDb(file, 22, 1) - 8);
  expect(rmsDb(file, 0.5, 1)).toBeGreaterThan(-40);
}

const ready = async (page: Page) => {
  for (const name of ["host.wav", "guest.flac", "theme.mp3", "harbour.ogg"])
    await expect(page.getByRole("button", { name: `Place ${name} at the playhead` })).toBeVisible();
};

test("from nothing to a file, by mouse alone", async ({ page, dir }) => {
  await signIn(page);
  const diary = new Diary(page);
  await diary.click("Begin");
  await expect(page.getByTestId("timeline")).toBeVisible();
  const chooser = page.waitForEvent("filechooser");
  await diary.click(/Bring in files/);
  diary.write("choose four files");
  await (await chooser).setFiles(recordings(dir));
  await ready(page);
  const box = await page.getByTestId("timeline").boundingBox();
  const [left, top, height] = [box?.x ?? 0, box?.y ?? 0, box?.height ?? 0];
  const from = async (file: string) => {
    const item = await page.getByRole("listitem").filter({ hasText: file }).boundingBox();
    return { x: (item?.x ?? 0) + 30, y: (item?.y ?? 0) + 12 };
  };
  await diary.drag("host.wav above the horizon", await from("host.wav"), { x: left + 2, y: top + 40 });
  await diary.drag("theme.mp3 beneath it", await from("theme.mp3"), { x: left + 2, y: top + height - 60 });
  const end = ((await mix(page)).clips.find((c) => c.name === "host.wav")?.length ?? 0) / 48000;
  await diary.drag(
    "guest.flac behind host.wav",
    await from("guest.flac"),
    await point(page, end + 0.3, "host", "middle"),
  );
  await diary.drag("harbour.ogg beneath all", await from("harbour.ogg"), {
    x: left + 2,
    y: top + height - 20,
  });
  await diary.drag(
    "across the theme, 2 to 9 s",
    await point(page, 2, "theme", "low"),
    await point(page, 9, "theme", "low"),
  );
  const inside = await point(page, 5, "theme", "middle");
  await diary.drag("down inside that range", inside, { x: inside.x, y: inside.y + 24 });
  await diary.click("Handover");
  await diary.click("Render");
  await checkFile(page, dir, () => diary.click(/Fetch/, "link"));
  console.log(`by mouse, ${diary.lines.length} gestures:\n  ${diary.lines.join("\n  ")}`);
  expect(diary.lines.length).toBeLessThanOrEqual(14);
});

test("from nothing to a file, by keys alone", async ({ page, dir }) => {
  await signIn(page);
  const diary = new Diary(page);
  await diary.tabTo(/^name$/, true);
  await diary.type(`Keys ${Date.now()}`);
  await expect(page.getByTestId("timeline")).toBeVisible();
  // Waited for before the way there: a slow page would open its own dialog before it knows that somebody waits.
  const chooser = page.waitForEvent("filechooser");
  await diary.area("panel");
  await diary.tabTo(/Bring in files/);
  await diary.press("Enter");
  diary.write("choose four files");
  await (await chooser).setFiles(recordings(dir));
  await ready(page);
  const place = async (file: string) => {
    await diary.area("panel");
    await diary.tabTo(new RegExp(`^Place ${file} at the playhead`));
    await diary.press("Enter");
    await diary.press("Escape");
    await diary.press("Escape");
  };
  await place("host.wav");
  const addTrack = async (downs: number) => {
    await diary.area("lanes");
    await diary.tabTo(/^ ?Track$/);
    await diary.press("Enter");
    await diary.press("ArrowDown", downs);
    await diary.press("Enter");
  };
  await addTrack(1);
  await place("theme.mp3");
  await addTrack(2);
  await place("harbour.ogg");
  await diary.press("Enter"); // a time to go to
  await diary.type("0:12.5");
  await place("guest.flac");
  await diary.area("lanes");
  await diary.tabTo(/^Clip theme\.mp3/);
  await diary.press("Enter");
  await diary.type("0:02");
  await diary.press("i");
  await diary.press("Enter");
  await diary.type("0:09");
  await diary.press("o");
  await diary.press("d");
  await diary.press("Escape");
  await diary.area("bar");
  await diary.tabTo(/^Handover/);
  await diary.press("Enter");
  await diary.tabTo(/^Render$/);
  await diary.press("Enter");
  await expect(page.getByRole("link", { name: "Fetch" })).toBeVisible();
  await diary.tabTo(/Fetch/);
  await checkFile(page, dir, () => diary.press("Enter"));
  console.log(`by keys, ${diary.lines.length} steps:\n  ${diary.lines.join("\n  ")}`);
});
