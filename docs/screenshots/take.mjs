// Takes the pictures in this directory from a running demo: node docs/screenshots/take.mjs [URL]
import { createRequire } from "node:module";

const require = createRequire(new URL("../../web/package.json", import.meta.url));
const { chromium } = require("@playwright/test");
const url = process.argv[2] ?? "http://127.0.0.1:8420";
const browser = await chromium.launch({
  executablePath: "/usr/bin/chromium",
  args: [...(process.getuid() === 0 ? ["--no-sandbox"] : []), "--autoplay-policy=no-user-gesture-required", "--disable-background-networking"],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, colorScheme: "light" });
const take = async (name) => {
  await page.waitForTimeout(700);
  await page.screenshot({ path: new URL(`./${name}.png`, import.meta.url).pathname });
};
const state = (part) => page.evaluate((p) => window.wattage.store.getState().set(p), part);

await page.goto(url);
await take("sign-in");
await page.getByLabel("E-mail address").fill("demo@wattage.example");
await page.getByLabel("Password").fill("salt-ferry");
await page.getByRole("button", { name: "Sign in" }).click();
await page.getByRole("heading", { name: "Projects" }).waitFor();
await take("projects");
await page.getByRole("button", { name: /^The Salt Ferry/ }).first().click();
const timeline = page.getByTestId("timeline");
await timeline.waitFor();
await page.waitForTimeout(800);

await state({ selected: ["slow-0"], keyframe: 1516800, playhead: 48000 * 33.4 });
await page.keyboard.press("Space");
await page.waitForTimeout(2600);
await take("balance");
await page.keyboard.press("Space");

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

await page.getByRole("tab", { name: "Sources" }).click();
await take("sources");
await page.getByRole("tab", { name: "Edits" }).click();
await take("edits");
await page.getByRole("button", { name: "Handover" }).click();
await page.getByRole("button", { name: "Render" }).click();
await page.getByRole("link", { name: "Fetch" }).first().waitFor({ timeout: 60000 });
await take("handover");
await page.keyboard.press("Escape");
await page.keyboard.press("?");
await take("keys");
await page.keyboard.press("Escape");
await page.getByRole("button", { name: "Switch to night" }).click();
await page.getByRole("tab", { name: "Levels" }).click();
await page.keyboard.press("a");
await take("night");
await page.getByRole("button", { name: "Switch to day" }).click();
await page.getByRole("button", { name: "Wattage: to the projects" }).click();
await page.getByRole("textbox", { name: "Name", exact: true }).fill("Low tide");
await page.getByRole("button", { name: "Begin" }).click();
await timeline.waitFor();
await take("empty");
await page.getByRole("button", { name: "Wattage: to the projects" }).click();
await page.getByRole("button", { name: "Delete Low tide" }).click();
await page.getByRole("button", { name: "Delete", exact: true }).click();
await browser.close();
