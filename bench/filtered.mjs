// Twelve tracks with all filters, played in Chromium for five minutes: counts the segments that did not sound in time. From a running demo: node bench/filtered.mjs [URL] [SECONDS]
import { createRequire } from "node:module";

const require = createRequire(new URL("../web/package.json", import.meta.url));
const { chromium } = require("@playwright/test");
const url = process.argv[2] ?? "http://127.0.0.1:8420";
const seconds = Number(process.argv[3] ?? 300);
const browser = await chromium.launch({
  executablePath: "/usr/bin/chromium",
  args: [...(process.getuid() === 0 ? ["--no-sandbox"] : []), "--autoplay-policy=no-user-gesture-required", "--disable-background-networking"],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.goto(url);
await page.getByLabel("E-mail address").fill("demo@wattage.example");
await page.getByLabel("Password").fill("salt-ferry");
await page.getByRole("button", { name: "Sign in" }).click();
await page.getByRole("heading", { name: "Projects" }).waitFor();
const project = await page.evaluate(async () => {
  const { csrf } = await (await fetch("/api/session")).json();
  const { projects } = await (await fetch("/api/projects")).json();
  const demo = projects.find((p) => p.name.startsWith("The Salt Ferry"));
  const made = await fetch(`/api/projects/${demo.id}/copy`, { method: "POST", headers: { "X-Csrf-Token": csrf, "Content-Type": "application/json" }, body: JSON.stringify({ name: "Twelve filtered" }) });
  return (await made.json()).id;
});
await page.reload();
await page.getByRole("button", { name: /^Twelve filtered/ }).first().click();
await page.getByTestId("timeline").waitFor();
await page.evaluate(async (length) => {
  const { edit, tracks, clips } = window.wattage.store.getState();
  const { source } = clips["slow-0"];
  for (const track of tracks) await edit({ edit: "remove-track", track: track.id });
  const tone = [180, 500, 2000, 5000].map((hertz, i) => ({ hertz, db: [-3, 2, 3, -2][i] }));
  for (let i = 0; i < 12; i++) {
    const [track, clip] = [`f-${i}`, `c-${i}`];
    await edit({ edit: "add-track", track, name: `Filtered ${i + 1}`, stem: "music" });
    await edit({ edit: "add-clip", track, clip, source, at: 0 });
    await edit({ edit: "loop-clip", clip, until: length * 48000 });
    await edit({ edit: "set-clip-colours", colours: Object.values(window.wattage.store.getState().clips).filter((c) => c.track === track).map((c) => ({ clip: c.id, colour: { tone } })) });
    await edit({ edit: "set-track-colour", track, colour: { lowCut: { hertz: 80 } } });
    for (let at = 5 + i / 4; at < length; at += 8) await edit({ edit: "dip-range", track, lane: "band", from: Math.round(at * 48000), to: Math.round((at + 3) * 48000), by: -12, ramp: 14400 });
  }
}, seconds + 5);
await page.keyboard.press("Home");
await page.keyboard.press("Space");
await page.waitForFunction((s) => window.wattage.player.position > s * 48000, seconds, { timeout: (seconds + 60) * 1000, polling: 1000 });
const { late, position, heap } = await page.evaluate(() => ({ late: window.wattage.player.late, position: window.wattage.player.position / 48000, heap: performance.memory?.usedJSHeapSize }));
console.log(`12 filtered tracks, played ${position.toFixed(1)} s, late segments: ${late}, script heap ${(heap / 1e6).toFixed(0)} MB`);
await page.evaluate(async (id) => {
  const { csrf } = await (await fetch("/api/session")).json();
  await fetch(`/api/projects/${id}`, { method: "DELETE", headers: { "X-Csrf-Token": csrf } });
}, project);
await browser.close();
process.exit(late === 0 ? 0 : 1);
