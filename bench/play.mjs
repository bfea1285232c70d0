// Plays a project in Chromium and counts the segments that did not sound in time: node bench/play.mjs [URL] [SECONDS] [PROJECT]
import { createRequire } from "node:module";

const require = createRequire(new URL("../web/package.json", import.meta.url));
const { chromium } = require("@playwright/test");
const url = process.argv[2] ?? "http://127.0.0.1:8420";
const seconds = Number(process.argv[3] ?? 300);
const project = process.argv[4] ?? "The Salt Ferry";
const browser = await chromium.launch({
  executablePath: "/usr/bin/chromium",
  args: [...(process.getuid() === 0 ? ["--no-sandbox"] : []), "--autoplay-policy=no-user-gesture-required", "--disable-background-networking"],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.goto(url);
await page.getByLabel("E-mail address").fill("demo@wattage.example");
await page.getByLabel("Password").fill("salt-ferry");
await page.getByRole("button", { name: "Sign in" }).click();
await page.getByRole("button", { name: new RegExp(`^${project}`) }).first().click();
await page.getByTestId("timeline").waitFor();
await page.keyboard.press("Space");
await page.waitForFunction((s) => window.wattage.player.position > s * 48000, seconds, { timeout: (seconds + 60) * 1000, polling: 1000 });
const { late, position, heap } = await page.evaluate(() => ({ late: window.wattage.player.late, position: window.wattage.player.position / 48000, heap: performance.memory?.usedJSHeapSize }));
console.log(`played ${position.toFixed(1)} s, late segments: ${late}, script heap ${(heap / 1e6).toFixed(0)} MB`);
await browser.close();
process.exit(late === 0 ? 0 : 1);
