// Plays a dense mix in Chromium for minutes, and counts segments that came too late and memory on the way: node bench/dense.mjs [URL] [CLIPS] [SECONDS]
// Brings in sixty recordings of its own on first use; more clips sound from other places in them.
import { execFileSync } from "node:child_process";
import { createRequire } from "node:module";

const require = createRequire(new URL("../web/package.json", import.meta.url));
const { chromium } = require("@playwright/test");
const [url = "http://127.0.0.1:8420", clips = "60", seconds = "600"] = process.argv.slice(2);
const SOURCES = 60;
const LONG = Number(seconds) + 40;
const RATE = 48_000;
const args = [...(process.getuid() === 0 ? ["--no-sandbox"] : []), "--autoplay-policy=no-user-gesture-required", "--disable-background-networking", "--enable-precise-memory-info"];
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.goto(url);
await page.getByLabel("E-mail address").fill("demo@wattage.example");
await page.getByLabel("Password").fill("salt-ferry");
await page.getByRole("button", { name: "Sign in" }).click();
await page.getByRole("button", { name: /^The Salt Ferry/ }).first().waitFor();

let csrf = (await (await page.request.get(`${url}/api/session`)).json()).csrf;
const ask = async (method, path, data, headers = {}) => {
  const answer = await page.request.fetch(url + path, { method, data, timeout: 120_000, headers: { "X-Csrf-Token": csrf, ...headers } });
  if (!answer.ok()) throw new Error(`${method} ${path}: ${answer.status()} ${await answer.text()}`);
  return answer.json();
};
const name = `Dense, ${clips} clips of ${LONG} s`;
let project = (await ask("GET", "/api/projects")).projects.find((p) => p.name === name && !p.deletedAt)?.id;
if (!project) {
  project = (await ask("POST", "/api/projects", { name })).id;
  const sources = [];
  for (let i = 0; i < SOURCES; i++) {
    const bytes = execFileSync("ffmpeg", ["-v", "error", "-f", "lavfi", "-i", `sine=f=${90 + 23 * i}:r=${RATE}:d=${LONG}`, "-af", "volume=-30dB", "-f", "flac", "pipe:1"], { maxBuffer: 1 << 30 });
    const source = await ask("POST", `/api/projects/${project}/sources`, { name: `tone-${i}.flac`, size: bytes.length });
    for (let at = 0; at < bytes.length; at += 8 << 20) await ask("PUT", `/api/sources/${source.id}/bytes?offset=${at}`, bytes.subarray(at, at + (8 << 20)));
    sources.push(source.id);
  }
  for (;;) {
    const { sources: all } = await ask("GET", `/api/projects/${project}/sources`);
    if (all.every((s) => s.state === "ready")) break;
    await new Promise((resolve) => setTimeout(resolve, 1000));
  }
  for (let i = 0; i < Number(clips); i++) {
    const { revision } = await ask("GET", `/api/projects/${project}/mix`);
    const start = 2 * RATE * (Math.floor(i / SOURCES) * 3 + (i % 7)) + 137 * i;
    await ask("POST", `/api/projects/${project}/edits`, { edit: "add-clip", track: `t${i}`, clip: `c${i}`, source: sources[i % SOURCES], at: 0, in: start, length: Number(seconds) * RATE, stem: "music" }, { "If-Match": `"${revision}"` });
  }
}
await page.goto(`${url}/p/${project}`);
await page.getByTestId("timeline").waitFor();
await page.waitForTimeout(3000);
await page.keyboard.press("Space");
const read = () => page.evaluate(() => ({ late: window.wattage.player.late, position: window.wattage.player.position / 48000, heap: performance.memory.usedJSHeapSize / 1e6 }));
/** Of the page's own process, decoded sound included. */
const memory = () => Math.max(...execFileSync("ps", ["-eo", "rss,args"], { encoding: "utf8" }).split("\n").filter((line) => /chromium.*--type=renderer/.test(line)).map((line) => Math.round(Number(line.trim().split(/\s+/)[0]) / 1024)));
const seen = [];
const began = Date.now();
while (Date.now() - began < 1000 * (Number(seconds) - 5)) {
  await page.waitForTimeout(Math.min(30_000, 1000 * Number(seconds) - 5000));
  const now = { ...(await read()), renderer: memory() };
  seen.push(now);
  console.log(`${now.position.toFixed(0).padStart(4)} s: ${now.late} late, script heap ${now.heap.toFixed(0)} MB, page ${now.renderer} MB`);
}
await browser.close();
process.exit(seen.at(-1).late === 0 ? 0 : 1);
