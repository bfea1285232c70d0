// Takes the pictures in this directory from a running demo: node docs/screenshots/take.mjs [URL]
import { createRequire } from "node:module";

const require = createRequire(new URL("../../web/package.json", import.meta.url));
const { chromium } = require("@playwright/test");
const url = process.argv[2] ?? "http://127.0.0.1:8420";
const browser = await chromium.launch({
  executablePath: "/usr/bin/chromium",
  args: [...(process.getuid() === 0 ? ["--no-sandbox"] : []), "--autoplay-policy=no-user-gesture-required", "--disable-background-networking"],
});
const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 }, colorScheme: "light" })).newPage();
await page.addInitScript(() => localStorage.setItem("wattage-tour", "aside"));
const take = async (name) => {
  await page.waitForTimeout(700);
  await page.screenshot({ path: new URL(`./${name}.png`, import.meta.url).pathname });
};
const setLane = async (choice) => {
  await page.getByRole("button", { name: /^Lane of Music:/ }).click();
  await page.getByRole("radio", { name: choice, exact: true }).click();
  await page.keyboard.press("Escape");
};
const state = (part) => page.evaluate((p) => window.wattage.store.getState().set(p), part);

await page.goto(url);
await page.getByLabel("E-mail address").fill("demo@wattage.example");
await page.getByLabel("Password").fill("salt-ferry");
await page.getByRole("button", { name: "Sign in" }).click();
await page.getByRole("heading", { name: "Projects" }).waitFor();
await take("projects");
await page.getByRole("button", { name: /^The Salt Ferry/ }).first().click();
const timeline = page.getByTestId("timeline");
await timeline.waitFor();
await page.waitForTimeout(800);

await state({ selected: ["slow-0"], chosen: [{ clip: "slow-0", keyframes: [1516800] }], playhead: 48000 * 33.4 });
await page.waitForFunction(async () => {
  const { project } = window.wattage.store.getState();
  const { sources } = await (await fetch(`/api/projects/${project.id}/sources`)).json();
  return sources.every((s) => s.picture !== "making");
}, null, { polling: 1000, timeout: 120000 });
await page.locator("video").waitFor();
await page.keyboard.press("Space");
await page.waitForTimeout(2600);
await take("balance");
await page.keyboard.press("Space");

const speechClips = await page.evaluate(() => {
  const clips = Object.values(window.wattage.store.getState().clips);
  return Object.fromEntries(["narrator", "deckhand"].map((t) => [t, clips.filter((c) => c.track === t).map((c) => c.id)]));
});
const box = await timeline.boundingBox();
const [start, perPx] = (await timeline.getAttribute("data-view")).split(" ").map(Number);
const x = (seconds) => box.x + (seconds * 48000 - start) / perPx;
const music = await page.getByRole("group", { name: "Track Music" }).boundingBox();
await page.mouse.move(x(67.5), music.y + 62);
await page.mouse.down();
await page.mouse.move(x(74), music.y + 62, { steps: 6 });
await page.mouse.up();
await page.mouse.move(x(70), music.y + 40);
await page.mouse.down();
await page.mouse.move(x(70), music.y + 53, { steps: 6 });
await take("dip");
await page.keyboard.press("Escape");
await page.mouse.up();
await state({ range: null });

// Buried speech and what is offered against it.
await page.keyboard.press("Home");
await page.keyboard.press("g");
await page.keyboard.press("g");
await page.waitForFunction(() => window.wattage.store.getState().clarity !== null);
await state({ judged: "clarity" });
await take("speech");
await state({ judged: "clearance" });
await page.getByRole("button", { name: /^Dip for all/ }).click();
await page.waitForFunction(() => window.wattage.store.getState().figures?.clearPart > 0.9);
await page.keyboard.press("Control+z");
await page.waitForFunction(() => window.wattage.store.getState().figures?.clearPart < 0.5);
await state({ stretch: null, selected: ["narrator", "deckhand"].flatMap((t) => speechClips[t]) });
await page.keyboard.press("Shift+K");
await page.getByRole("dialog").getByRole("row").nth(3).waitFor();
await take("even-up");
await page.keyboard.press("Escape");

await page.getByRole("button", { name: "intake" }).click();
await take("intake");
// The desk, where the horn is ridden down.
await page.getByRole("button", { name: "desk" }).click();
const gripOf = async (track) => {
  const box = await page.getByRole("slider", { name: `Tall fader of ${track}` }).boundingBox();
  return (part) => page.mouse.move(box.x + 14, box.y + box.height * part);
};
await state({ selected: [], modes: { spots: "touch", music: "latch" } });
await page.evaluate(() => window.wattage.player.seek(48000 * 171));
await page.keyboard.press("Space");
await page.waitForTimeout(600);
const horn = await gripOf("Spot effects");
await horn(0.24);
await page.mouse.down();
for (let i = 0; i < 60; i++) {
  await horn(0.24 + 0.2 * Math.sin(i / 38) ** 2);
  await page.waitForTimeout(45);
}
await take("desk");
await page.mouse.up();
await page.keyboard.press("Space");
await page.waitForTimeout(600);
await page.keyboard.press("Control+z");
await state({ modes: {}, selected: [] });
await page.getByRole("button", { name: "balance" }).click();
await page.keyboard.press("Home");

// A rule of ducking while it is tried; then a ride of the music on the desk, and its lane.
await page.getByRole("tab", { name: "Ducking" }).click();
await page.getByRole("button", { name: "Interview" }).click();
await page.waitForFunction(() => window.wattage.store.getState().duckTry !== null);
await page.getByLabel("that first, then the rest").check();
await page.getByLabel("as deep as needed for a clarity").check();
await page.getByLabel("Follow from moment to moment").check();
await page.getByText(/takes .* LU of the music/).waitFor();
await page.getByLabel("Name of the rule").scrollIntoViewIfNeeded();
await take("ducking");
await page.getByRole("button", { name: "Cancel" }).click();
await page.getByRole("button", { name: "Hush" }).click();
await page.getByText(/pauses go down by/).waitFor();
await take("hush");
await page.getByRole("button", { name: "Cancel" }).click();
await state({ selected: speechClips.deckhand.slice(1, 2), chosen: [] });
await page.keyboard.press("Shift+Q");
await page.getByRole("img", { name: /^Spectrum of/ }).waitFor();
await take("colour");
await page.keyboard.press("Escape");
await state({ selected: [] });
await page.getByRole("button", { name: "desk" }).click();
await page.getByLabel("How Music is ridden").selectOption("touch");
await page.evaluate(() => window.wattage.player.seek(48000 * 57));
await page.getByRole("button", { name: /^Ride/ }).click();
await page.waitForTimeout(1800);
const grip = await gripOf("Music");
await grip(0.24);
await page.mouse.down();
for (let i = 0; i < 90; i++) {
  await grip(0.24 + 0.16 * Math.sin(i / 14) ** 2);
  await page.waitForTimeout(45);
}
await page.mouse.up();
await page.keyboard.press("Space");
await page.waitForTimeout(500);
await page.getByRole("button", { name: "balance" }).click();
await setLane("level of the track");
await take("ride");
await page.keyboard.press("Control+z");
await setLane("levels of its clips");
await state({ modes: {} });
await page.getByRole("tab", { name: "Levels" }).click();
await page.keyboard.press("Home");

// Fades, a crossfade, an opened clip, markers, a lock and an ink: all on one screen.
await page.getByRole("tab", { name: "Levels" }).click();
await page.evaluate(async () => {
  const { store } = window.wattage;
  const { edit, clips, tracks } = store.getState();
  const wheelhouse = Object.values(clips).find((c) => c.name === "Deckhand, wheelhouse");
  await edit({ edit: "split", cuts: [{ clip: wheelhouse.id, at: 48000 * 50.2 }] });
  const later = Object.values(store.getState().clips).find((c) => c.track === wheelhouse.track && c.at === 48000 * 50.2);
  await edit({ edit: "cross-over", earlier: wheelhouse.id, later: later.id, length: "2.5 s" });
  await edit({ edit: "set-fade", clips: ["slow-0"], edge: "in", length: "6 s", shape: "s" });
  const shore = Object.values(clips).find((c) => c.name === "Shore" && c.at === 0);
  await edit({ edit: "open-channels", clips: [shore.id], open: true });
  await edit({ edit: "set-channel", clip: shore.id, channel: "right", gain: -8 });
  await edit({ edit: "dip-range", clips: [shore.id], channel: "left", from: 48000 * 14, to: 48000 * 22, by: -9, ramp: 40000 });
  for (const [at, name] of [[13.7, "First line"], [31.7, "Second line"], [44, "Wheelhouse"], [62, "Casting off"]])
    await edit({ edit: "add-marker", marker: name.toLowerCase().replace(" ", "-"), at: Math.round(at * 48000), name });
  await edit({ edit: "set-locked", track: "spots", locked: true });
  await edit({ edit: "set-hue", track: "deckhand", hue: "plum" });
  store.getState().select(shore.id);
});
await take("fades-and-channels");
await page.evaluate(() => {
  const { clips, select } = window.wattage.store.getState();
  select(Object.values(clips).find((c) => c.name === "Deckhand, wheelhouse").id);
});
await page.keyboard.press("w");
await page.getByText(/^It suggests/).waitFor();
await take("close-up");
await page.keyboard.press("Escape");

await page.getByRole("button", { name: "History and versions" }).click();
await page.getByLabel("Name of the snapshot").fill("Before the ride");
await page.getByRole("button", { name: "Take", exact: true }).click();
await page.getByRole("listitem").filter({ hasText: "Before the ride" }).getByRole("button", { name: "A", exact: true }).click();
await page.evaluate(async () => {
  const { edit } = window.wattage.store.getState();
  await edit({ edit: "set-fader", track: "music", fader: -7.5 });
  await edit({ edit: "set-clip-gain", clips: ["slow-0"], gain: -6 });
  await edit({ edit: "dip-range", clips: ["slow-0"], from: 48000 * 63, to: 48000 * 70, by: -9, ramp: 33600 });
});
await page.getByText(/LUFS \(/).waitFor();
await page.keyboard.press("c");
await take("versions");
await page.keyboard.press("c");
// Nora is invited, joins by the link in the post box, has a clip in hand, comments and edits.
await page.getByRole("button", { name: "Share" }).click();
for (const [email, role] of [["nora@wattage.example", "editor"], ["client@wattage.example", "viewer"]]) {
  await page.getByRole("textbox", { name: "E-mail address" }).fill(email);
  await page.getByLabel("Role", { exact: true }).selectOption(role);
  await page.getByRole("button", { name: "Invite" }).click();
  await page.getByText(`${email} is invited.`).waitFor();
}
const nora = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
await nora.goto(`${url}/post-box`);
await nora.getByRole("listitem").filter({ hasText: "to nora@" }).getByRole("link").first().click();
await nora.getByLabel("Your name").fill("Nora Lindqvist");
await nora.getByLabel("A password").fill("salt-ferry");
await nora.getByRole("button", { name: "Join" }).click();
await nora.getByTestId("timeline").waitFor();
await page.keyboard.press("Escape");
await page.getByRole("button", { name: /^Nora Lindqvist is here/ }).click();
await page.getByRole("list", { name: "Members" }).getByText("Nora Lindqvist").waitFor();
await page.keyboard.press("Escape");
await page.getByRole("tab", { name: "Notes" }).click();
await nora.getByRole("tab", { name: "Notes" }).click();
for (const [at, text] of [[21.5, "The accordion is too loud under her last word."], [41.5, "Can we hear the hatch less?"]]) {
  await nora.evaluate((s) => window.wattage.player.seek(48000 * s), at);
  await nora.getByLabel("Say something about this moment").fill(text);
  await nora.keyboard.press("Enter");
  await page.getByText(text).first().waitFor();
}
await nora.evaluate(() => window.wattage.store.getState().select("slow-0"));
await nora.evaluate(() => window.wattage.store.getState().edit({ edit: "dip-range", clips: ["slow-0"], from: 48000 * 24, to: 48000 * 28, by: -6, ramp: 24000 }));
await page.getByText("Nora Lindqvist: Dip").first().waitFor();
await page.getByTestId("timeline").getByText("Nora Lindqvist").first().waitFor();
await take("together");
await nora.context().close();
await page.getByRole("button", { name: "Handover" }).click();
await page.getByRole("button", { name: "Make To the podcast host" }).click();
await page.getByRole("button", { name: "Make To the broadcaster" }).click();
await page.waitForFunction(() => document.querySelectorAll('a[aria-label^="Report of"][target]').length >= 3, null, { timeout: 180_000 });
await take("handover");
const report = await page.locator('a[aria-label*=".mp3"][target]').first().getAttribute("href");
const paper = await page.context().newPage();
await paper.setViewportSize({ width: 900, height: 1270 });
await paper.goto(new URL(report, page.url()).href);
await paper.screenshot({ path: new URL("report.png", import.meta.url).pathname });
await paper.close();
await page.getByRole("button", { name: "Balance", exact: true }).click();
await page.keyboard.press("?");
await take("keys");
await page.keyboard.press("Escape");
await page.getByRole("button", { name: "Switch to night" }).click();
await page.getByRole("tab", { name: "Levels" }).click();
await page.keyboard.press("a");
await take("night");
await browser.close();
