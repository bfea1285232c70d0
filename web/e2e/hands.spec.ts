import type { Page } from "@playwright/test";
import {
  addTrack,
  beginProject,
  bringIn,
  drag,
  expect,
  layVoiceOverBed,
  makeMedia,
  mix,
  point,
  renderedBed,
  settled,
  signIn,
  test,
} from "./support";

const VOICE = "0.1*sin(2*PI*300*t)*gt(sin(2*PI*0.25*(t-1))\\,0)";
const BED = "0.04*sin(2*PI*500*t)";

const lane = async (page: Page) =>
  (await mix(page)).tracks.find((t) => t.name === "Music")?.lanes?.level ?? [];

async function layOut(page: Page, dir: string, seconds = 16): Promise<void> {
  await layVoiceOverBed(
    page,
    `Hands ${Date.now()}`,
    makeMedia(dir, "voice.wav", VOICE, seconds),
    makeMedia(dir, "bed.wav", BED, seconds),
  );
}

/** Where playing is, on the app's own audio clock, in seconds. */
const heard = (page: Page) => page.evaluate(() => (window.wattage?.player.position ?? 0) / 48000);

const until = (page: Page, seconds: number) =>
  page.waitForFunction((at) => (window.wattage?.player.position ?? 0) / 48000 >= at, seconds);

const fader = (page: Page) => page.getByRole("slider", { name: "Tall fader of Music" });

/** Carries a recording from the list to a place on the timeline, as a browser does: event by event. */
async function carry(page: Page, file: string, x: number, y: number): Promise<string> {
  const item = await page.getByRole("listitem").filter({ hasText: file }).elementHandle();
  const ghost = await page.evaluate(
    ([from, left, top]) => {
      const timeline = document.querySelector("[data-testid=timeline]");
      const box = timeline?.getBoundingClientRect();
      if (!(from instanceof Element) || !box) throw new Error("nothing to carry");
      const dataTransfer = new DataTransfer();
      const at = { clientX: box.left + left, clientY: box.top + top };
      from.dispatchEvent(new DragEvent("dragstart", { bubbles: true, dataTransfer }));
      return new Promise<string>((resolve) =>
        requestAnimationFrame(() => {
          // What lies there: nothing may be in the way.
          const under = document.elementFromPoint(at.clientX, at.clientY);
          const fire = (type: string) =>
            under?.dispatchEvent(
              new DragEvent(type, { bubbles: true, cancelable: true, dataTransfer, ...at }),
            );
          fire("dragover");
          setTimeout(() => {
            const said = document.querySelector("[data-testid=timeline] [role=status]")?.textContent ?? "";
            fire("drop");
            from.dispatchEvent(new DragEvent("dragend", { bubbles: true, dataTransfer }));
            resolve(said);
          }, 120);
        }),
      );
    },
    [item, x, y] as const,
  );
  await settled(page);
  return ghost;
}

async function holdFader(page: Page, db: number): Promise<{ x: number; y: number }> {
  const box = await fader(page).boundingBox();
  if (!box) throw new Error("no fader");
  const x = box.x + box.width / 2;
  let y = box.y + 15 + 0.2 * (box.height - 30);
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let i = 0; i < 60; i++) {
    if (Number(await fader(page).getAttribute("aria-valuenow")) <= db) break;
    y += 3;
    await page.mouse.move(x, y);
  }
  return { x, y };
}

test("a ride is what was heard: holds are held, steps are steps, in the exported file", async ({
  page,
  dir,
}) => {
  // As long as a slow machine may need before the fader stands where it is to be held.
  await layOut(page, dir, 60);
  await page.getByRole("button", { name: "Desk" }).click();
  await page.getByLabel("How Music is ridden").selectOption("write");
  await page.keyboard.press("Space");
  const { x, y } = await holdFader(page, -20);
  const held = Number(await fader(page).getAttribute("aria-valuenow"));
  const from = await heard(page);
  await until(page, from + 4);
  const flicked = await heard(page);
  await page.mouse.move(x, y - 40);
  await page.mouse.move(x, y - 60);
  await page.mouse.up();
  await until(page, flicked + 1.5);
  await page.keyboard.press("Space");
  await settled(page);
  await expect.poll(async () => (await mix(page)).label).toMatch(/^Ride Music/);
  const levels = await renderedBed(page);
  const full = -30.97; // a sine of amplitude 0.04, of RMS
  const during = levels.slice(Math.round(100 * (from + 0.3)), Math.round(100 * (flicked - 0.3)));
  expect(during.length).toBeGreaterThan(200);
  for (const level of during) expect(Math.abs(level - full - held)).toBeLessThan(0.35);

  // By keys: two steps, with what lies between them as it was.
  await page.evaluate(() => window.wattage?.player.seek(38 * 48000));
  await page.getByLabel("How Music is ridden").selectOption("write");
  // When the keys came, by the same clock as the ride's.
  await page.evaluate(() => {
    const came: number[] = [];
    Object.assign(window, { came });
    window.addEventListener(
      "keydown",
      (event) => {
        if (event.key.startsWith("Page"))
          came.push((window.wattage?.player.positionAtTime(event.timeStamp) ?? 0) / 48000);
      },
      true,
    );
  });
  await page.keyboard.press("Space");
  await until(page, 39);
  await fader(page).focus();
  const start = Number(await fader(page).getAttribute("aria-valuenow"));
  await page.keyboard.press("PageDown");
  await until(page, (await heard(page)) + 2);
  await page.keyboard.press("PageUp");
  await until(page, (await heard(page)) + 1);
  await page.getByRole("button", { name: "Stop" }).click();
  await settled(page);
  const [down = 0, up = 0] = await page.evaluate(() => (window as unknown as { came: number[] }).came);
  const keyed = await renderedBed(page);
  const between = (a: number, b: number) => keyed.slice(Math.round(100 * a), Math.round(100 * b));
  for (const level of between(38.3, down - 0.3)) expect(Math.abs(level - full - start)).toBeLessThan(0.35);
  for (const level of between(down + 0.3, up - 0.3))
    expect(Math.abs(level - full - (start - 6))).toBeLessThan(0.35);
  for (const level of between(up + 0.3, up + 0.8)) expect(Math.abs(level - full - start)).toBeLessThan(0.35);
});

test("in latch the fader stays where it was left, and the next touch begins there", async ({ page, dir }) => {
  await layOut(page, dir, 60);
  await page.getByRole("button", { name: "Desk" }).click();
  await page.getByLabel("How Music is ridden").selectOption("latch");
  await page.keyboard.press("Space");
  await holdFader(page, -12);
  await page.mouse.up();
  const left = Number(await fader(page).getAttribute("aria-valuenow"));
  const at = await heard(page);
  await until(page, at + 1.5);
  expect(Number(await fader(page).getAttribute("aria-valuenow"))).toBeCloseTo(left, 5);
  const box = await fader(page).boundingBox();
  await page.mouse.move((box?.x ?? 0) + 14, (box?.y ?? 0) + (box?.height ?? 0) / 2);
  await page.mouse.down();
  await page.mouse.up();
  await until(page, at + 2.5);
  await page.keyboard.press("Space");
  await settled(page);
  const written = (await lane(page)).filter((k) => k.at / 48000 > at + 0.2 && k.at / 48000 < at + 2.3);
  for (const keyframe of written) expect(keyframe.level).toBeCloseTo(left, 1);
});

test("a ride survives a reload in the middle of it, with its mode and the view", async ({ page, dir }) => {
  await layOut(page, dir);
  await page.getByRole("button", { name: "Desk" }).click();
  await page.getByLabel("How Music is ridden").selectOption("latch");
  await page.keyboard.press("Space");
  await holdFader(page, -9);
  await until(page, 2);
  await page.reload();
  await page.waitForFunction(() => window.wattage !== undefined);
  await expect.poll(async () => (await mix(page)).label).toMatch(/^Ride Music/);
  expect(Math.min(...(await lane(page)).map((k) => Number(k.level)))).toBeLessThan(-8);
  await expect(page.getByLabel("How Music is ridden")).toHaveValue("latch");
  await expect(page.getByRole("region", { name: "Desk" })).toBeVisible();
});

test("Delete takes what is framed, ranges keep their beginning, nothing is split that is not selected", async ({
  page,
  dir,
}) => {
  await layOut(page, dir);
  const at = (seconds: number) => point(page, seconds, "Music", "low");
  await drag(page, await at(4), await at(7));
  await expect(page.getByText("Delete takes the sound of the range, on Music")).toBeVisible();
  await page.keyboard.press("Delete");
  await settled(page);
  const music = (await mix(page)).tracks.find((t) => t.stem === "music")?.id;
  const rest = (await mix(page)).clips.filter((c) => c.track === music);
  expect(rest.reduce((sum, c) => sum + c.length, 0) / 48000).toBeCloseTo(13, 0);
  await page.keyboard.press("Control+z");
  await settled(page);

  // A number typed right after a range was dragged is for the range, and the keys are the timeline's again.
  await drag(page, await at(9), await at(11));
  const zoom = await page.getByTestId("timeline").getAttribute("data-view");
  await page.keyboard.type("+8");
  await page.keyboard.press("Enter");
  await settled(page);
  await expect.poll(async () => (await mix(page)).label).toMatch(/^Lift .* by 8 dB/);
  expect(await page.getByTestId("timeline").getAttribute("data-view")).toBe(zoom);
  await page.keyboard.press("Space");
  await expect.poll(async () => (await mix(page)).playing).toBe(true);
  await page.keyboard.press("Space");
  await page.keyboard.press("Control+z");
  await settled(page);

  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await page.keyboard.press("/");
  await expect(page.getByText("Select the clips to split")).toBeVisible();
  expect((await mix(page)).clips).toHaveLength(2);

  await page.evaluate(() => window.wattage?.store.getState().set({ playhead: 5 * 48000, range: null }));
  await page.keyboard.press("i");
  const horizon = await page.getByText("Horizon", { exact: true }).boundingBox();
  const nine = await at(9);
  await page.mouse.click(nine.x, (horizon?.y ?? 0) + 28);
  await page.keyboard.press("o");
  const { range } = await mix(page);
  expect((range?.from ?? 0) / 48000).toBeCloseTo(5, 5);
  expect((range?.to ?? 0) / 48000).toBeCloseTo(9, 0);

  await page.keyboard.press("Escape");
  await page.keyboard.press("Control+a");
  expect((await mix(page)).selected).toHaveLength(2);
  expect(await page.evaluate(() => document.getSelection()?.toString() ?? "")).toBe("");
});

test("a recording lands where its ghost shows: on a lane, on a new track, in a clip's place", async ({
  page,
  dir,
}) => {
  await signIn(page);
  const name = `Drop ${Date.now()}`;
  await page.getByRole("textbox", { name: "Name", exact: true }).fill(name);
  await page.getByRole("button", { name: "Begin" }).dblclick();
  await expect(page.getByTestId("timeline")).toBeVisible();
  const projects = (await (await page.request.get("/api/projects")).json()) as {
    projects: { name: string }[];
  };
  expect(projects.projects.filter((p) => p.name === name)).toHaveLength(1);
  await bringIn(page, makeMedia(dir, "voice.wav", VOICE, 4), makeMedia(dir, "other.wav", BED, 4));
  await expect(page.getByRole("button", { name: "Place other.wav at the playhead" })).toBeVisible();
  await expect(page.getByRole("button", { name: "Place voice.wav at the playhead" })).toBeVisible();
  const timeline = page.getByTestId("timeline");
  const box = await timeline.boundingBox();
  // Onto empty space beneath the horizon.
  expect(await carry(page, "other.wav", 120, (box?.height ?? 0) - 60)).toContain("on a new music track");
  await expect(page.getByRole("group", { name: "Track other", exact: true })).toBeVisible();
  expect(await carry(page, "voice.wav", 100, 40)).toContain("on a new speech track");
  const { tracks, clips } = await mix(page);
  expect(tracks.map((t) => [t.name, t.stem])).toEqual([
    ["other", "music"],
    ["voice", "speech"],
  ]);
  expect(clips).toHaveLength(2);
  // The list stays open, so that the next can be placed.
  await expect(page.getByRole("tab", { name: "Sources" })).toHaveAttribute("data-state", "active");
  // Onto a clip: it takes its place.
  const voice = clips.find((c) => c.name === "voice.wav");
  const spot = await point(page, (voice?.at ?? 0) / 48000 + 1, "voice", "middle");
  const ghost = await carry(page, "other.wav", spot.x - (box?.x ?? 0), spot.y - (box?.y ?? 0));
  expect(ghost).toContain("Replace the sound of “voice.wav”");
  expect((await mix(page)).label).toBe("Replace voice.wav by other.wav");
  expect((await mix(page)).clips.find((c) => c.id === voice?.id)).toMatchObject({ at: voice?.at });
  // At the playhead, or a reason.
  await page.evaluate(
    (at) => window.wattage?.store.getState().set({ playhead: at, selected: [] }),
    voice?.at ?? 0,
  );
  await page.getByRole("button", { name: "Place voice.wav at the playhead" }).click();
  await expect(page.getByRole("alert")).toContainText("is in the way on");
  // The sheet of keys does nothing by Space.
  await page.keyboard.press("?");
  await page.keyboard.press("Space");
  await expect(page.getByText("Yes, all keys as they came")).toHaveCount(0);
  await page.keyboard.press("Escape");
});

test("every entry of every menu can be reached at 1024x640", async ({ page, dir }) => {
  await page.setViewportSize({ width: 1024, height: 640 });
  await layOut(page, dir);
  await page.evaluate(() => {
    const { select, edit, set } = window.wattage?.store.getState() ?? {};
    select?.("bed");
    void edit?.({ edit: "add-marker", marker: "mark", at: 12 * 48000, name: "Horn" });
    set?.({ playhead: 0 });
  });
  await settled(page);
  await page.getByRole("button", { name: "Put the first steps aside" }).click();
  await page.getByRole("tab", { name: "Levels" }).click();
  const walk = async (what: string) => {
    const menu = page.getByRole("menu");
    await expect(menu, what).toBeVisible();
    const items = menu.locator("[role^=menuitem]");
    const count = await items.count();
    expect(count, what).toBeGreaterThan(0);
    for (let i = 0; i < count; i++) {
      const item = items.nth(i);
      await item.scrollIntoViewIfNeeded();
      const box = await item.boundingBox();
      const name = `${what}: ${await item.innerText()}`;
      expect(box?.y ?? -1, name).toBeGreaterThanOrEqual(0);
      expect((box?.y ?? 9999) + (box?.height ?? 0), name).toBeLessThanOrEqual(640);
      expect((box?.x ?? 9999) + (box?.width ?? 0), name).toBeLessThanOrEqual(1024);
      // What lies at its middle is the entry itself, so that a mouse can press it.
      const hit = await item.evaluate((element) => {
        const r = element.getBoundingClientRect();
        return element.contains(document.elementFromPoint(r.x + r.width / 2, r.y + r.height / 2));
      });
      expect(hit, name).toBe(true);
    }
    await page.keyboard.press("Escape");
    await expect(menu).toHaveCount(0);
  };
  for (const button of ["Do", "More for Music", "More for Speech", "Track"]) {
    await page.getByRole("button", { name: button, exact: true }).click();
    await walk(button);
  }
  const press = async (spot: { x: number; y: number }, what: string) => {
    await page.mouse.click(spot.x, spot.y, { button: "right" });
    await walk(what);
  };
  await press(await point(page, 6, "Music", "name"), "a clip");
  await press(await point(page, 6, "Music", "wire"), "a wire");
  const box = await page.getByTestId("timeline").boundingBox();
  const horizon = await page.getByText("Horizon", { exact: true }).boundingBox();
  const x = async (seconds: number) => (await point(page, seconds, "Music", "low")).x;
  await press({ x: await x(12), y: (horizon?.y ?? 0) + 30 }, "a marker");
  await press({ x: await x(5), y: (horizon?.y ?? 0) + 10 }, "the time");
  await press(
    { x: (box?.x ?? 0) + (box?.width ?? 0) - 12, y: (await point(page, 1, "Music", "low")).y },
    "an empty lane",
  );
  const head = await page.getByRole("group", { name: "Track Music", exact: true }).boundingBox();
  await press({ x: (head?.x ?? 0) + 20, y: (head?.y ?? 0) + 12 }, "a head");
  await drag(page, await point(page, 7, "Music", "low"), await point(page, 9, "Music", "low"));
  await press(await point(page, 8, "Music", "middle"), "a range");
  await page.keyboard.press("d");
  await settled(page);
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  const corner = await point(page, 0, "Music", "low");
  await press({ x: corner.x + 4, y: corner.y + 2 }, "a fade");
});

test("a time is typed to go there, and one key goes back to where playing began", async ({ page, dir }) => {
  await layOut(page, dir);
  await page.keyboard.press("Enter");
  await page.getByLabel("Time to go to").fill("0:05.5");
  await page.keyboard.press("Enter");
  expect((await mix(page)).playhead / 48000).toBeCloseTo(5.5, 3);
  await page.keyboard.press("Space");
  await until(page, 6.3);
  await page.keyboard.press(",");
  expect((await mix(page)).playing).toBe(false);
  expect((await mix(page)).playhead / 48000).toBeCloseTo(5.5, 3);
  await page.keyboard.press(",");
  await until(page, 5.8);
  await page.keyboard.press("Space");
});

test("what is wrong in a field is said there, and nothing is sent", async ({ page, dir }) => {
  await signIn(page);
  await beginProject(page, `Said ${Date.now()}`);
  await addTrack(page, "Music");
  await bringIn(page, makeMedia(dir, "bed.wav", BED, 4));
  await page.getByRole("button", { name: "Place bed.wav at the playhead" }).click();
  await settled(page);
  await page.getByRole("tab", { name: "Levels" }).click();
  const errors: string[] = [];
  page.on("console", (message) => message.type() === "error" && errors.push(message.text()));
  const gain = page.getByRole("textbox", { name: "Clip gain", exact: true });
  await gain.fill("loud");
  await gain.press("Enter");
  await expect(page.getByRole("alert")).toContainText("“loud” is not a level");
  await gain.fill("30");
  await gain.press("Enter");
  await expect(page.getByRole("alert")).toContainText("It goes up to +24 dB");
  await gain.press("Escape");
  const ends = page.getByRole("textbox", { name: "Clip ends" });
  await ends.fill("soon");
  await ends.press("Enter");
  await expect(page.getByRole("alert")).toContainText("“soon” is not a time");
  await ends.press("Escape");
  expect(errors).toEqual([]);
  // Too loud: said before the render, and after it.
  await gain.fill("24");
  await gain.press("Enter");
  await settled(page);
  await page.getByRole("textbox", { name: "Level of Music in dB" }).fill("12");
  await page.keyboard.press("Enter");
  await settled(page);
  await page.getByRole("button", { name: "Handover" }).click();
  await expect(page.getByRole("alert")).toContainText("passes full scale by 8.0 dB");
  await page.getByRole("button", { name: "Render", exact: true }).click();
  await expect(page.getByText(/samples were flattened, by up to 8\.0 dB/)).toBeVisible();
  await page.getByRole("button", { name: /^Lower the programme by/ }).click();
  await expect(page.getByText("It passes full scale")).toHaveCount(0);
});
