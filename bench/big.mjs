// The big project in the browser: time of an edit, of opening, and of drawing while scrolling and zooming.
// node bench/big.mjs URL   (bench/run starts everything)
import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createRequire } from "node:module";

const require = createRequire(new URL("../web/package.json", import.meta.url));
const { chromium } = require("@playwright/test");
const url = process.argv[2];
const dir = mkdtempSync(join(tmpdir(), "wattage-bench-"));
const median = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];
const at95 = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length * 0.95)];
const row = (what, value, limit) => console.log(`${what.padEnd(56)} ${value}   (asked for: ${limit})`);

const browser = await chromium.launch({
  executablePath: "/usr/bin/chromium",
  args: [...(process.getuid() === 0 ? ["--no-sandbox"] : []), "--autoplay-policy=no-user-gesture-required", "--disable-background-networking"],
});
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(url);
  await page.getByLabel("E-mail address").fill("demo@wattage.example");
  await page.getByLabel("Password").fill("salt-ferry");
  await page.getByRole("button", { name: "Sign in" }).click();
  await page.getByRole("textbox", { name: "Name", exact: true }).fill("Big");
  await page.getByRole("button", { name: "Begin" }).click();
  const hour = join(dir, "hour.flac");
  execFileSync("ffmpeg", ["-v", "error", "-f", "lavfi", "-i", "anoisesrc=r=48000:a=0.2:c=pink:d=3600,aformat=channel_layouts=stereo:sample_fmts=s16,tremolo=f=0.2:d=0.9", hour]);
  await page.getByRole("tab", { name: "Sources" }).click();
  const sent = Date.now();
  await page.getByTestId("file-picker").setInputFiles(hour);
  await page.getByRole("button", { name: "Place hour.flac at the playhead" }).waitFor({ timeout: 300000 });
  const ingest = (Date.now() - sent) / 1000;
  row("one hour sent, decoded, measured and ready", `${ingest.toFixed(1)} s = ${(3600 / ingest).toFixed(0)}× real time`, "≥ 60×");

  const project = execFileSync("php", [new URL("./big-project.php", import.meta.url).pathname, "demo@wattage.example"], { encoding: "utf8" }).trim().split("\n").at(-1);
  const opening = [];
  for (let i = 0; i < 5; i++) {
    await page.goto(url);
    await page.getByRole("heading", { name: "Projects" }).waitFor();
    await page.evaluate(() => performance.clearMeasures());
    const begun = Date.now();
    await page.getByRole("button", { name: /^Big/ }).first().click();
    await page.waitForFunction(() => window.wattage && performance.getEntriesByName("timeline-draw").length > 0);
    await page.evaluate(async () => {
      await window.wattage.player.play(0);
    });
    opening.push(Date.now() - begun);
    await page.keyboard.press("Space");
  }
  row("opening the big project until it plays, median", `${median(opening)} ms`, "< 2000 ms");

  const edits = await page.evaluate(async (id) => {
    const { csrf } = await (await fetch("/api/session")).json();
    let { revision } = await (await fetch(`/api/projects/${id}/mix`)).json();
    const times = { dip: [], gain: [], undo: [] };
    const send = async (kind, path, body) => {
      const begun = performance.now();
      const answer = await fetch(`/api/projects/${id}/${path}`, { method: "POST", headers: { "X-Csrf-Token": csrf, "Content-Type": "application/json", "If-Match": `"${revision}"` }, body: JSON.stringify(body ?? {}) });
      const step = await answer.json();
      if (!answer.ok) throw new Error(JSON.stringify(step));
      times[kind].push(performance.now() - begun);
      revision = step.revision;
    };
    for (let i = 0; i < 40; i++) {
      const from = (20 + i) * 48000;
      await send("dip", "edits", { edit: "dip-range", clips: ["clip-2-0"], from, to: from + 24000, by: -3, ramp: 4800 });
      await send("gain", "edits", { edit: "set-clip-gain", clips: [`clip-${i % 8}-${i % 25}`], gain: -10 - i / 10 });
      if (i % 4 === 0) await send("undo", "undo");
    }
    return times;
  }, project);
  for (const [kind, times] of Object.entries(edits)) row(`${kind} on the big project, request to answer, median (95 %)`, `${median(times).toFixed(0)} ms (${at95(times).toFixed(0)} ms)`, "≤ 60 ms");

  await page.goto(`${url}/p/${project}`);
  await page.getByTestId("timeline").waitFor();
  await page.waitForTimeout(1500);
  await page.evaluate(() => performance.clearMeasures());
  const box = await page.getByTestId("timeline").boundingBox();
  await page.mouse.move(box.x + 400, box.y + 300);
  const trace = await page.context().newCDPSession(page);
  await trace.send("Performance.enable");
  const script = async () => Object.fromEntries((await trace.send("Performance.getMetrics")).metrics.map((m) => [m.name, m.value])).ScriptDuration * 1000;
  const frames = [];
  for (let i = 0; i < 160; i++) {
    const before = await script();
    if (i % 2) await page.keyboard.down("Control");
    await page.mouse.wheel(0, i % 2 ? (i % 40 < 20 ? -60 : 60) : 90);
    if (i % 2) await page.keyboard.up("Control");
    await page.evaluate(() => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve))));
    frames.push((await script()) - before);
  }
  const draws = await page.evaluate(() => performance.getEntriesByName("timeline-draw").map((m) => m.duration));
  row("scrolling and zooming, script per frame, median (95 %)", `${median(frames).toFixed(1)} ms (${at95(frames).toFixed(1)} ms)`, "< 8 ms");
  row("  of that, painting, median", `${median(draws).toFixed(1)} ms`, "");
} finally {
  await browser.close();
  rmSync(dir, { recursive: true });
}
