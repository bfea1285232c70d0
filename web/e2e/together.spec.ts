import { readFileSync } from "node:fs";
import {
  addTrack,
  beginProject,
  bringIn,
  drag,
  expect,
  joinedBy,
  makeMedia,
  mix,
  point,
  settled,
  signIn,
  test,
} from "./support";

test("two windows on one project lose no edit, and the second is told what happened", async ({
  page,
  context,
}) => {
  const name = `Together ${Date.now()}`;
  await signIn(page);
  await beginProject(page, name);
  await addTrack(page, "Music");
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(other.getByTestId("timeline")).toBeVisible();

  // The second window does not know of this track yet, and adds one on the older state: both stand.
  await other.route("**/presence/**", (route) => route.abort());
  await addTrack(page, "Speech");
  await other.getByRole("button", { name: "Track", exact: true }).click();
  await other.getByRole("menuitem", { name: "Effects" }).click();
  await settled(other);
  expect((await mix(other)).tracks.map((t) => t.name)).toEqual(["Music", "Speech", "Effects"]);

  // The first removes what the second still shows; the second is refused, told why, and shows the newest state.
  await page.getByRole("button", { name: "More for Effects" }).click();
  await page.getByRole("menuitem", { name: "Remove track and its clips" }).click();
  await settled(page);
  await other.getByRole("button", { name: "Mute Effects" }).click();
  const said = other.getByRole("alert");
  await expect(said).toContainText("You, in another window, changed the mix in the meantime");
  await expect(said).toContainText("Not done: “Mute Effects”");
  await expect(other.getByRole("group", { name: "Track Effects" })).toBeHidden();
});

test("an upload can be stopped, a drop on the page works, and a silent number is typed where the pointer is", async ({
  page,
  dir,
}) => {
  const bed = makeMedia(dir, "bed.wav", "0.2*sin(2*PI*330*t)", 20);
  const long = makeMedia(dir, "long.wav", "0.2*(random(0)-0.5)|0.2*(random(1)-0.5)", 600);
  await signIn(page);
  await beginProject(page, `Typed ${Date.now()}`);

  await test.step("stop", async () => {
    await bringIn(page, long);
    await page
      .getByRole("button", { name: /^Stop( sending)? long\.wav/ })
      .first()
      .click();
    await expect(page.getByRole("listitem").filter({ hasText: "long.wav" })).toHaveCount(0, {
      timeout: 30_000,
    });
  });

  await test.step("drop", async () => {
    const data = readFileSync(bed).toString("base64");
    const transfer = await page.evaluateHandle((base64) => {
      const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
      const transfer = new DataTransfer();
      transfer.items.add(new File([bytes], "bed.wav"));
      return transfer;
    }, data);
    const page1 = page.locator("div.relative.grid").first();
    await page1.dispatchEvent("dragover", { dataTransfer: transfer });
    await expect(page.getByText("Let go to bring these files in")).toBeVisible();
    await page1.dispatchEvent("drop", { dataTransfer: transfer });
    await expect(page.getByRole("button", { name: "Place bed.wav at the playhead" })).toBeVisible();
  });

  await test.step("place with the button, and type over the wire", async () => {
    await page.getByRole("button", { name: "Place bed.wav at the playhead" }).click();
    await settled(page);
    expect((await mix(page)).tracks.map((t) => t.stem)).toEqual(["speech"]);
    await page.keyboard.press("a");
    const wire = await point(page, 5, "Speech", "wire");
    await page.mouse.move(wire.x, wire.y);
    await page.keyboard.type("-7.5");
    await expect(page.getByLabel("Clip gain").first()).toBeFocused();
    await page.keyboard.press("Enter");
    await settled(page);
    expect((await mix(page)).clips[0]?.gain).toBe(-7.5);
  });

  await test.step("dip with keys: range in, range out, D", async () => {
    await page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await page.evaluate(() => window.wattage?.store.getState().set({ playhead: 5 * 48000 }));
    await page.keyboard.press("i");
    await page.evaluate(() => window.wattage?.store.getState().set({ playhead: 8 * 48000 }));
    await page.keyboard.press("o");
    await page.keyboard.press("d");
    await settled(page);
    const { clips, range } = await mix(page);
    expect(range).toMatchObject({ from: 5 * 48000, to: 8 * 48000 });
    expect(clips[0]?.curve.map((k) => k.level)).toEqual([0, -11, -11, 0]);
    await page.keyboard.press("n");
    await page.keyboard.press("b");
    await page.keyboard.press("b");
    await page.keyboard.press("b");
    await page.keyboard.press("b");
    await expect(page.getByRole("alert")).toContainText("no keyframe before");
  });

  await test.step("drag a keyframe with the mouse; double-click removes it", async () => {
    await page.keyboard.press("Escape");
    const before = (await mix(page)).clips[0]?.curve[1];
    const place = await page.evaluate(() => {
      const state = window.wattage?.store.getState();
      const clip = Object.values(state?.clips ?? {})[0];
      return (clip?.curve[1]?.at ?? 0) / 48000;
    });
    const at = await point(page, place, "Speech", "wire");
    const keyframe = { x: at.x, y: await wireHeight(page, -7.5 - 11) };
    await drag(page, keyframe, { x: keyframe.x + 12, y: keyframe.y + 10 });
    await settled(page);
    const after = (await mix(page)).clips[0]?.curve[1];
    expect(after?.at).toBeGreaterThan(before?.at ?? 0);
    expect(after?.level).toBeLessThan(-11);
    const moved = await point(page, (after?.at ?? 0) / 48000, "Speech", "wire");
    await page.mouse.dblclick(moved.x, await wireHeight(page, -7.5 + Number(after?.level)));
    await settled(page);
    expect((await mix(page)).clips[0]?.curve).toHaveLength(3);
  });
});

/** Height on the page of a level on the track Speech, by the scale of the timeline. */
async function wireHeight(page: Parameters<typeof mix>[0], db: number): Promise<number> {
  const head = await page.getByRole("group", { name: "Track Speech", exact: true }).boundingBox();
  if (!head) throw new Error("no track");
  const scale: [number, number][] = [
    [0, 0.7],
    [-6, 0.585],
    [-12, 0.475],
    [-24, 0.29],
    [-36, 0.165],
  ];
  const i = scale.findIndex(([low]) => db >= low);
  const [high, highAt] = scale[i - 1] ?? [0, 0.7];
  const [low, lowAt] = scale[i] ?? [-36, 0.165];
  const share = lowAt + ((highAt - lowAt) * (db - low)) / (high - low);
  const top = head.y + 3 + 17;
  const bottom = head.y + head.height - 3;
  return bottom - share * (bottom - top);
}

test("a viewer sees and hears, and is told why nothing can be changed", async ({ page: owner, browser }) => {
  await signIn(owner);
  await beginProject(owner, `Shared ${Date.now()}`);
  await addTrack(owner, "Music");
  const page = await joinedBy(browser, owner, "Vera", "viewer");
  await expect(page.getByText("view only")).toBeVisible();
  await expect(page.getByRole("button", { name: "Mute Music" })).toBeDisabled();
  await page.getByRole("button", { name: "Handover" }).click();
  await expect(page.getByText("There is nothing to render yet")).toBeVisible();
  await page.keyboard.press("Escape");
  await page.getByRole("tab", { name: "Sources" }).click();
  await expect(page.getByRole("button", { name: "Bring in files…" })).toBeHidden();
});
