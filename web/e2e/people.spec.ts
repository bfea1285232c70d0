import type { Page } from "@playwright/test";
import {
  agree,
  beginProject,
  drag,
  edit,
  expect,
  joinedBy,
  mix,
  openCopyOfDemo,
  point,
  send,
  settled,
  shown,
  signIn,
  stored,
  test,
  two,
} from "./support";

test("what one does the other sees, by name, and both show the same", async ({ page, browser, dir }) => {
  const nora = await two(page, browser, dir);
  await expect(page.getByRole("button", { name: /^Nora is here/ })).toBeVisible();
  const music = (await mix(page)).tracks.find((t) => t.stem === "music")?.id ?? "";
  const slowest: number[] = [];
  const seen = async (by: Page, on: Page, what: Parameters<typeof edit>[1]) => {
    await edit(by, what);
    const { revision } = await shown(by);
    const from = Date.now();
    await on.waitForFunction((r) => window.wattage?.store.getState().revision === r, revision);
    slowest.push(Date.now() - from);
    await agree(by, on);
  };
  await seen(page, nora, { edit: "set-clip-gain", clips: ["bed"], gain: -7 });
  await seen(nora, page, { edit: "add-keyframe", clip: "voice", at: 96_000, level: -3 });
  await seen(page, nora, {
    edit: "set-range",
    track: music,
    lane: "level",
    from: 48_000,
    to: 96_000,
    level: -9,
    ramp: 4800,
  });
  await seen(nora, page, {
    edit: "ride",
    passes: [
      {
        track: music,
        mode: "touch",
        start: 0,
        stop: 96_000,
        level: [
          [0, -6, 1],
          [48_000, -12, 1],
        ],
      },
    ],
  });
  // News goes by itself after some seconds, so it is looked for at once.
  const news = (text: string) => expect(nora.getByRole("status").filter({ hasText: text })).toBeVisible();
  await edit(page, { edit: "insert-time", at: 144_000, length: 96_000 });
  await news("Demo: Insert 2.00 s");
  await agree(page, nora);
  await page.evaluate(() => window.wattage?.store.getState().undo());
  await news("Demo: Undo “Insert 2.00 s");
  await agree(page, nora);
  await nora.evaluate(() => window.wattage?.store.getState().redo());
  await agree(page, nora);
  console.log(`      seen by the other after at most ${Math.max(...slowest)} ms`);
});

test("a drag, a text field and playing go on while somebody else edits", async ({ page, browser, dir }) => {
  const nora = await two(page, browser, dir);
  // Nora's hand is on the bed's wire, and the other sees it there.
  const wire = await point(nora, 5, "Music", "wire");
  await nora.mouse.move(wire.x, wire.y);
  await nora.mouse.down();
  await nora.mouse.move(wire.x + 1, wire.y + 12, { steps: 3 });
  await expect(page.getByTestId("timeline").getByText("Nora")).toBeVisible();
  await edit(page, { edit: "set-clip-gain", clips: ["voice"], gain: -4 });
  await edit(page, { edit: "add-marker", marker: "m-1", at: 48_000, name: "Here" });
  await expect.poll(async () => (await shown(nora)).revision).toBe((await shown(page)).revision);
  await nora.mouse.move(wire.x + 1, wire.y + 24, { steps: 3 });
  await nora.mouse.up();
  await settled(nora);
  const bed = (await mix(nora)).clips.find((c) => c.id === "bed");
  expect(Number(bed?.gain)).toBeLessThan(0);
  await agree(page, nora);

  // What is typed stays, and playing goes on.
  await nora.getByRole("button", { name: /^Clip bed\.wav/ }).focus();
  const field = nora.getByLabel("Clip gain").first();
  await field.fill("-11");
  await nora.evaluate(() => void window.wattage?.player.play(0));
  await edit(page, { edit: "rename-clip", clip: "voice", name: "Speaker" });
  await expect.poll(async () => (await shown(nora)).revision).toBe((await shown(page)).revision);
  await expect(field).toHaveValue("-11");
  expect((await mix(nora)).playing).toBe(true);
  await field.press("Enter");
  await settled(nora);
  expect((await mix(nora)).clips.find((c) => c.id === "bed")?.gain).toBe(-11);
  await agree(page, nora);
});

test("somebody else’s edit is taken back only after it was asked", async ({ page, browser, dir }) => {
  const nora = await two(page, browser, dir);
  await edit(nora, { edit: "set-clip-gain", clips: ["bed"], gain: -9 });
  await expect.poll(async () => (await shown(page)).revision).toBe((await shown(nora)).revision);
  const undo = page.getByRole("button", { name: "Undo", exact: true });
  await expect(undo).toHaveAttribute("title", /Undo “Set bed\.wav to −9\.0 dB” by Nora/);
  await undo.click();
  const question = page.getByRole("alertdialog");
  await expect(question).toContainText("Take back what Nora did?");
  await question.getByRole("button", { name: "Leave it" }).click();
  await settled(page);
  expect((await mix(page)).clips.find((c) => c.id === "bed")?.gain).toBe(-9);
  await undo.click();
  await question.getByRole("button", { name: "Take it back" }).click();
  await expect.poll(async () => (await mix(nora)).clips.find((c) => c.id === "bed")?.gain).toBe(0);
  await agree(page, nora);
});

test("what is gone is named: a clip, a keyframe, and the track of a ride", async ({ page, browser, dir }) => {
  const nora = await two(page, browser, dir);
  await nora.route("**/presence/**", (route) => route.abort());
  // Once she has noticed, no answer from before is under way, and she hears of nothing.
  await expect.poll(() => nora.evaluate(() => window.wattage?.store.getState().away ?? null)).not.toBeNull();
  const music = (await mix(page)).tracks.find((t) => t.stem === "music")?.id ?? "";
  await edit(page, { edit: "remove-clips", clips: ["bed"] });
  const from = await point(nora, 5, "Music", "name");
  await drag(nora, from, { x: from.x + 40, y: from.y });
  const said = nora.getByRole("alert");
  await expect(said).toContainText(
    "Demo changed the mix in the meantime. This clip is not in the mix any more",
  );
  await expect(said).toContainText("bed.wav");
  await expect(said).not.toContainText(/[0-9a-f]{8}-/);
  await expect(nora.getByRole("button", { name: /^Clip bed\.wav/ })).toHaveCount(0);

  await edit(page, { edit: "remove-track", track: music });
  const ride = {
    edit: "ride",
    passes: [{ track: music, mode: "write", start: 0, stop: 96_000, level: [[0, -6, 1]] }],
  };
  await edit(nora, ride as Parameters<typeof edit>[1]);
  await expect(said).toContainText("This track is not in the mix any more");
  await expect(said).toContainText("Music");
  await agree(nora);
});

test("edits wait while the server is away, survive a reload, and are done once", async ({
  page,
  browser,
  dir,
}) => {
  const nora = await two(page, browser, dir);
  await settled(page);
  let lost = 0;
  // The server does it, and the answer is lost.
  await page.route("**/edits*", async (route) => {
    if (lost++ === 0) await route.fetch();
    await route.abort();
  });
  await page.route("**/presence/**", (route) => route.abort());
  await page.route("**/changes*", (route) => route.fulfill({ status: 500, body: "" }));
  await page.evaluate(() => {
    const { edit } = window.wattage?.store.getState() ?? {};
    for (const by of [-3, -2]) void edit?.({ edit: "change-clip-gain", clips: ["bed"], by });
    void edit?.({ edit: "add-marker", marker: "m-9", at: 0, name: "Waiting" });
  });
  await page.getByText("3 edits not sent").click();
  await expect(page.getByRole("listitem").filter({ hasText: "change clip gain" })).toHaveCount(2);
  await page.keyboard.press("Escape");

  // Switching to A waits for what is part of the present.
  await page.keyboard.press("c");
  await expect(page.getByText("This waits until all edits are sent")).toBeVisible();
  expect(await page.evaluate(() => window.wattage?.store.getState().hearing)).toBeNull();

  await page.unrouteAll();
  await page.reload();
  await expect(page.getByTestId("timeline")).toBeVisible();
  await expect.poll(async () => (await mix(page)).clips.find((c) => c.id === "bed")?.gain).toBe(-5);
  await settled(page);
  await expect(page.getByText("saved", { exact: true })).toBeVisible();
  expect((await stored(page)).content).toMatchObject({ markers: [{ name: "Waiting" }] });
  await agree(page, nora);
});

test("somebody is invited, joins, becomes a viewer, comments, and the comment is ticked off", async ({
  page,
  browser,
}) => {
  await signIn(page);
  await openCopyOfDemo(page);
  const email = `vera-${Date.now()}@wattage.example`;
  await page.getByRole("button", { name: "Share" }).click();
  const share = page.getByRole("dialog");
  await share.getByLabel("E-mail address").fill(email);
  await share.getByLabel("Role", { exact: true }).selectOption("editor");
  await share.getByRole("button", { name: "Invite" }).click();
  await expect(share.getByText(`${email} is invited.`)).toBeVisible();
  await expect(share.getByRole("list", { name: "Invitations" })).toContainText(email);

  const vera = await (await browser.newContext()).newPage();
  await vera.goto("/post-box");
  await vera.getByRole("listitem").filter({ hasText: email }).getByRole("link").click();
  const link = vera.url();
  await vera.getByLabel("Your name, as others see it").fill("Vera");
  await vera.getByLabel("A password").fill("long enough");
  await vera.getByRole("button", { name: "Join" }).click();
  await expect(vera.getByTestId("timeline")).toBeVisible();
  await expect(vera.getByText("saved", { exact: true })).toBeVisible();

  // The role changes under her hands.
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: /^Vera is here/ }).click();
  await share.getByLabel("Role of Vera").selectOption("viewer");
  await expect(vera.getByText("view only")).toBeVisible();
  await page.keyboard.press("Escape");

  await vera.evaluate(() => window.wattage?.player.seek(10 * 48_000));
  await vera.getByRole("tab", { name: "Notes" }).click();
  await vera.getByLabel("Say something about this moment").fill("too loud <b>here</b>");
  await vera.keyboard.press("Enter");
  const mark = page.getByRole("button", { name: /^Comment of Vera at 00:00:10:00: too loud <b>here/ });
  await mark.click();
  // Pressed again, it shows what is said again.
  await page.getByRole("tab", { name: "Levels" }).click();
  await mark.click();
  await expect(page.getByRole("region", { name: "Comments" })).toContainText("too loud <b>here</b>");
  await page.getByRole("button", { name: "Tick off “too loud <b>here</b>”" }).click();
  await expect(mark).toHaveCount(0);
  await expect(vera.getByRole("region", { name: "Comments" })).toContainText("1 ticked off");
  await expect(vera.getByRole("button", { name: /^Tick off/ })).toHaveCount(0);

  // The link was for once.
  const late = await (await browser.newContext()).newPage();
  await late.goto(link);
  await expect(late.getByRole("alert")).toContainText("used already");
  // The last owner cannot leave; she can.
  await page.getByRole("button", { name: /^Vera is here/ }).click();
  await share.getByRole("button", { name: "Leave the project" }).click();
  await share.getByRole("button", { name: "Yes, leave" }).click();
  await expect(share.getByRole("alert")).toContainText("A project needs an owner");
  // And what was done is written down, for owners.
  await share.getByRole("button", { name: "Who did what" }).click();
  const record = share.getByRole("list", { name: /^Who did what/ });
  await expect(record).toContainText(`invited ${email} as an editor`);
  await expect(record).toContainText("joined as an editor");
  await expect(record).toContainText(`made Vera (${email}) a viewer`);
  await expect(record).toContainText("signed in");
});

test("a forgotten password is set anew by a link, and one signs out everywhere", async ({
  page,
  browser,
}) => {
  await signIn(page);
  await beginProject(page, `Account ${Date.now()}`);
  const nora = await joinedBy(browser, page, "Nora");
  const { user } = (await (await nora.request.get("/api/session")).json()) as { user: { email: string } };
  const elsewhere = await (await browser.newContext()).newPage();
  await elsewhere.goto("/");
  await elsewhere.getByRole("button", { name: "Forgotten your password?" }).click();
  await elsewhere.getByLabel("E-mail address").fill(user.email);
  await elsewhere.getByRole("button", { name: "Send me a link" }).click();
  await expect(elsewhere.getByText("a link is on its way")).toBeVisible();
  await elsewhere.goto("/post-box");
  await elsewhere
    .getByRole("listitem")
    .filter({ hasText: user.email })
    .filter({ hasText: "A new password" })
    .getByRole("link")
    .click();
  await elsewhere.getByLabel("New password").fill("entirely new");
  await elsewhere.getByRole("button", { name: "Set it" }).click();
  await elsewhere.getByRole("button", { name: "Sign in" }).click();
  await elsewhere.getByLabel("E-mail address").fill(user.email);
  await elsewhere.getByLabel("Password").fill("entirely new");
  await elsewhere.getByRole("button", { name: "Sign in" }).click();
  await expect(elsewhere.getByRole("heading", { name: "Projects" })).toBeVisible();
  // Where the old password was in use, one is signed out, and told so.
  await expect(nora.getByText("no connection")).toHaveAttribute("title", /You have been signed out/);

  await elsewhere.getByRole("button", { name: "Nora", exact: true }).click();
  await elsewhere.getByLabel("Name, as others see it").fill("Nora L.");
  await elsewhere.getByRole("button", { name: "Rename" }).click();
  await expect(
    elsewhere.getByRole("button", { name: "Nora L.", exact: true, includeHidden: true }),
  ).toHaveCount(1);
  await elsewhere.getByRole("button", { name: "Sign out everywhere" }).click();
  await expect(elsewhere.getByLabel("E-mail address")).toBeVisible();
});

test("the list of edits has every one, branches too, after hundreds of undos", async ({ page }) => {
  await signIn(page);
  await beginProject(page, `History ${Date.now()}`);
  await page.evaluate(async () => {
    const { edit, settled } = window.wattage?.store.getState() ?? {};
    for (let i = 0; i < 120; i++)
      void edit?.({ edit: "add-marker", marker: `m-${i}`, at: i * 4800, name: `Mark ${i}` });
    await settled?.();
    for (let i = 0; i < 100; i++) void window.wattage?.store.getState().undo();
    await settled?.();
    await edit?.({ edit: "add-track", track: "t-1", name: "Another way", stem: "music" });
  });
  await page.getByRole("button", { name: "History and versions" }).click();
  const list = page.getByRole("list", { name: "Edits, newest first" });
  await expect(list.getByRole("listitem")).toHaveCount(122);
  await expect(list.getByRole("button", { name: /Add track Another way.*now/ })).toBeVisible();
  const left = list.getByRole("button", { name: /Mark 119.*another way/ });
  // It is heard with C and left with C; taken up by a press, also while it is heard.
  const heard = () => page.evaluate(() => window.wattage?.store.getState().hearing?.revision ?? null);
  await left.focus();
  await page.keyboard.press("c");
  await expect.poll(heard).toBe(121);
  await page.keyboard.press("c");
  await expect.poll(heard).toBeNull();
  await page.keyboard.press("c");
  await expect.poll(heard).toBe(121);
  await left.click();
  await expect.poll(heard).toBeNull();
  await settled(page);
  expect((await stored(page)).content).toMatchObject({ tracks: [] });
  await expect(list.getByRole("button", { name: /Add track Another way.*another way/ })).toBeVisible();
  const { head } = (await send(page, "GET", `/api/projects/${page.url().split("/").pop()}/history`)) as {
    head: number;
  };
  expect(head).toBe(121);
});
