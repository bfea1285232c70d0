import { execFileSync, spawnSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Edit } from "../src/api/schema";
import { type Browser, expect, type Page, test as base } from "@playwright/test";

export const test = base.extend<{ dir: string }>({
  // A directory of the test's own, gone afterwards.
  // eslint-disable-next-line no-empty-pattern
  dir: async ({}, use) => {
    const dir = mkdtempSync(join(tmpdir(), "wattage-e2e-"));
    await use(dir);
    rmSync(dir, { recursive: true });
  },
});

export { expect };

/** Speech-like bursts, or a steady bed: files that are not the demo's, made by ffmpeg. */
export function makeMedia(
  dir: string,
  name: string,
  expression: string,
  seconds: number,
  ...options: string[]
): string {
  const file = join(dir, name);
  execFileSync("ffmpeg", [
    "-v",
    "error",
    "-y",
    "-f",
    "lavfi",
    "-i",
    `aevalsrc=${expression}:s=48000:d=${seconds}`,
    ...options,
    file,
  ]);
  return file;
}

const SAID =
  'require "vendor/autoload.php"; [, $file, $times, $seconds, $level] = $argv; file_put_contents($file, Wattage\\Tests\\support\\Voice::wav(json_decode($times), (float) $seconds, (float) $level));';

/**
 * A mono WAV file in which somebody speaks.
 *
 * @param times from and to in seconds, and how loud, 1 usually
 * @param level RMS while it speaks, full scale is 1
 */
export function makeVoice(
  dir: string,
  name: string,
  times: number[][],
  seconds: number,
  level = 0.07,
): string {
  const file = join(dir, name);
  execFileSync("php", ["-r", SAID, file, JSON.stringify(times), String(seconds), String(level)], {
    cwd: join(import.meta.dirname, "../.."),
  });
  return file;
}

/** Two seconds of speech in every four, from the first second on. */
export const everyFour = (seconds: number): number[][] =>
  Array.from({ length: Math.ceil((seconds - 1) / 4) }, (_, i) => [4 * i + 1, Math.min(seconds, 4 * i + 3)]);

/** RMS level of a part of a file in dBFS, measured by sox. */
export function rmsDb(file: string, from: number, seconds: number): number {
  const { stderr } = spawnSync("sox", [file, "-n", "trim", String(from), String(seconds), "stats"], {
    encoding: "utf8",
  });
  return Number(/RMS lev dB\s+(-?[\d.]+)/.exec(stderr)?.[1]);
}

/** LUFS, as ffmpeg measures a file. */
export function integrated(file: string): number {
  const { stderr } = spawnSync(
    "ffmpeg",
    ["-nostats", "-hide_banner", "-i", file, "-af", "ebur128", "-f", "null", "-"],
    { encoding: "utf8" },
  );
  return Number(/I:\s+(-?[\d.]+) LUFS/.exec(stderr.slice(stderr.lastIndexOf("Summary")))?.[1]);
}

/** As somebody who knows their way: without the tour beneath the lanes. */
export async function signIn(page: Page): Promise<void> {
  await page.addInitScript(() => localStorage.setItem("wattage-tour", "aside"));
  await page.goto("/");
  await page.getByLabel("E-mail address").fill("demo@wattage.example");
  await page.getByLabel("Password").fill("salt-ferry");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("heading", { name: "Projects" })).toBeVisible();
}

export async function beginProject(page: Page, name: string): Promise<void> {
  await page.getByRole("textbox", { name: "Name", exact: true }).fill(name);
  await page.getByRole("button", { name: "Begin" }).click();
  await expect(page.getByTestId("timeline")).toBeVisible();
}

export async function openProject(page: Page, name: string): Promise<void> {
  await page
    .getByRole("button", { name: new RegExp(`^${name}`) })
    .first()
    .click();
  await expect(page.getByTestId("timeline")).toBeVisible();
}

export async function addTrack(page: Page, kind: string): Promise<void> {
  await page.getByRole("button", { name: "Track", exact: true }).click();
  await page.getByRole("menuitem", { name: kind }).click();
  await expect(page.getByRole("group", { name: new RegExp(`^Track ${kind}`) })).toBeVisible();
}

export async function bringIn(page: Page, ...files: string[]): Promise<void> {
  await page.getByRole("tab", { name: "Sources" }).click();
  await page.getByTestId("file-picker").setInputFiles(files);
}

/** A project of a voice above a bed, files named voice.wav and bed.wav, laid out by the store so that the gestures under test are the only ones. */
export async function layVoiceOverBed(page: Page, name: string, voice: string, bed: string): Promise<void> {
  await signIn(page);
  await beginProject(page, name);
  await addTrack(page, "Speech");
  await addTrack(page, "Music");
  await bringIn(page, voice, bed);
  for (const file of ["voice.wav", "bed.wav"])
    await expect(page.getByRole("button", { name: `Place ${file} at the playhead` })).toBeVisible();
  await page.evaluate(async () => {
    const store = window.wattage?.store;
    if (!store) throw new Error("no project");
    const { edit, project, tracks } = store.getState();
    const { sources } = (await (await fetch(`/api/projects/${project.id}/sources`)).json()) as {
      sources: { id: string; name: string }[];
    };
    const place = async (name: string, stem: string, clip: string) => {
      const source = sources.find((s) => s.name === name)?.id ?? "";
      const track = tracks.find((t) => t.stem === stem)?.id ?? "";
      await edit({ edit: "add-clip", track, clip, source, at: 0 });
    };
    await place("voice.wav", "speech", "voice");
    await place("bed.wav", "music", "bed");
  });
}

/** What the page knows of its mix; the store is there for measurements. */
export async function mix(page: Page) {
  return page.evaluate(() => {
    const state = window.wattage?.store.getState();
    if (!state) throw new Error("no project is open");
    const { tracks, clips, revision, label, range, playhead, playing, rate, length, canUndo, selected } =
      state;
    return {
      tracks,
      clips: Object.values(clips),
      revision,
      label,
      range,
      playhead,
      playing,
      rate,
      length,
      canUndo,
      selected,
    };
  });
}

/** Waits until all edits have been answered, and rides have been kept. */
export async function settled(page: Page): Promise<void> {
  await page.waitForFunction(() => {
    const state = window.wattage?.store.getState();
    return state?.pending === 0 && !state.keeping;
  });
}

/** Holds back what is asked for under an address, until the returned function lets it come. */
export async function holdBack(page: Page, address: string): Promise<() => void> {
  let letCome = () => {};
  const comes = new Promise<void>((resolve) => (letCome = resolve));
  await page.route(address, async (route) => {
    await comes;
    await route.continue();
  });
  return letCome;
}

/** Waits until so many seconds have sounded, by the app's own audio clock: a busy machine makes sound, and so this, slower. */
export async function sounded(page: Page, seconds: number): Promise<void> {
  const from = await page.evaluate(() => window.wattage?.player.clockTime ?? 0);
  await page.waitForFunction((until) => (window.wattage?.player.clockTime ?? 0) >= until, from + seconds);
}

/** A copy of the demo of one's own, so that tests that run side by side do not meet in it. */
export async function openCopyOfDemo(page: Page): Promise<void> {
  const demo = (await (await page.request.get("/api/projects")).json()) as {
    projects: { id: string; name: string }[];
  };
  const id = demo.projects.find((p) => p.name === "The Salt Ferry")?.id ?? "";
  const { csrf } = (await (await page.request.get("/api/session")).json()) as { csrf: string };
  const made = await page.request.post(`/api/projects/${id}/copy`, {
    headers: { "X-Csrf-Token": csrf },
    data: { name: `Ferry ${Date.now()} ${Math.random().toString(36).slice(2, 6)}` },
  });
  const copy = (await made.json()) as { id: string };
  await page.goto(`/p/${copy.id}`);
  await expect(page.getByTestId("timeline")).toBeVisible();
}

/** Where a moment and a lane are on the page. */
export async function point(
  page: Page,
  seconds: number,
  track: string,
  part: "wire" | "name" | "middle" | "low",
): Promise<{ x: number; y: number }> {
  const box = await page.getByTestId("timeline").boundingBox();
  const head = await page.getByRole("group", { name: `Track ${track}`, exact: true }).boundingBox();
  const first = await page.getByTestId("timeline").getAttribute("data-view");
  if (!box || !head || !first) throw new Error("nothing to point at");
  const [start, perPx, rate] = first.split(" ").map(Number) as [number, number, number];
  const x = box.x + (seconds * rate - start) / perPx;
  const nameY = head.y + 11;
  const top = head.y + 20;
  const bottom = head.y + head.height - 4;
  const y = { name: nameY, middle: (top + bottom) / 2, low: bottom - 6, wire: bottom - 0.7 * (bottom - top) }[
    part
  ];
  return { x, y };
}

export async function drag(
  page: Page,
  from: { x: number; y: number },
  to: { x: number; y: number },
): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 4 });
  await page.mouse.move(to.x, to.y, { steps: 4 });
  await page.mouse.up();
}

/** The bed alone, rendered: RMS of each 10 ms of the left side, dB. */
export async function renderedBed(page: Page): Promise<number[]> {
  await page.evaluate(async () => {
    const { edit, tracks } = window.wattage?.store.getState() ?? {};
    await edit?.({
      edit: "set-muted",
      track: tracks?.find((t) => t.stem === "speech")?.id ?? "",
      muted: true,
    });
  });
  const id = await page.evaluate(async () => {
    const project = window.wattage?.store.getState().project.id ?? "";
    const { csrf } = (await (await fetch("/api/session")).json()) as { csrf: string };
    const made = await fetch(`/api/projects/${project}/deliveries`, {
      method: "POST",
      headers: { "X-Csrf-Token": csrf, "Content-Type": "application/json" },
      body: JSON.stringify({ format: "float32" }),
    });
    const delivery = ((await made.json()) as { id: string }).id;
    for (;;) {
      const { deliveries } = (await (await fetch(`/api/projects/${project}/deliveries`)).json()) as {
        deliveries: { id: string; state: string }[];
      };
      if (deliveries.find((d) => d.id === delivery)?.state === "done") return delivery;
      await new Promise((resolve) => setTimeout(resolve, 200));
    }
  });
  await page.getByRole("button", { name: "Undo", exact: true }).click();
  await settled(page);
  const body = await (await page.request.get(`/api/deliveries/${id}/file`)).body();
  const frames = (await mix(page)).length;
  const samples = body.subarray(body.length - frames * 8);
  const levels: number[] = [];
  for (let block = 0; block + 480 <= frames; block += 480) {
    let sum = 0;
    for (let i = block; i < block + 480; i++) sum += samples.readFloatLE(8 * i) ** 2;
    levels.push(10 * Math.log10(Math.max(1e-12, sum / 480)));
  }
  return levels;
}

/** A request of the page's own session, with its token. */
export async function send(
  page: Page,
  method: string,
  path: string,
  data: object = {},
): Promise<Record<string, unknown>> {
  const { csrf } = (await (await page.request.get("/api/session")).json()) as { csrf: string };
  const answer = await page.request.fetch(path, { method, data, headers: { "X-Csrf-Token": csrf } });
  return answer.status() === 204 ? {} : ((await answer.json()) as Record<string, unknown>);
}

/** Somebody else, new here: invited to the open project, joined by the link in the post box, in a browser of their own. */
export async function joinedBy(browser: Browser, page: Page, name: string, role = "editor"): Promise<Page> {
  const email = `${name.toLowerCase()}-${Date.now()}-${Math.random().toString(36).slice(2, 7)}@wattage.example`;
  const project = await page.evaluate(() => window.wattage?.store.getState().project.id ?? "");
  await send(page, "POST", `/api/projects/${project}/invitations`, { email, role });
  const other = await (await browser.newContext({ bypassCSP: true })).newPage();
  await other.goto("/post-box");
  await other.getByRole("listitem").filter({ hasText: email }).getByRole("link").click();
  await other.getByLabel("Your name, as others see it").fill(name);
  await other.getByLabel("A password").fill("long enough");
  await other.getByRole("button", { name: "Join" }).click();
  await expect(other.getByTestId("timeline")).toBeVisible();
  return other;
}

/** All of the mix as the screen has it, and its revision. */
export async function shown(page: Page): Promise<{ revision: number; content: unknown }> {
  return page.evaluate(() => {
    const s = window.wattage?.store.getState();
    if (!s) throw new Error("no project is open");
    const { rate, frameRate, length, aim, captions, faders, rules, sources, tracks, clips, markers } = s;
    const { pictures, strip } = s;
    const content = { rate, frameRate, length, aim, captions, faders, rules, sources, tracks, clips };
    return { revision: s.revision, content: { ...content, markers, pictures, strip } };
  });
}

/** The same as the server has it. */
export async function stored(page: Page): Promise<{ revision: number; content: unknown }> {
  const id = await page.evaluate(() => window.wattage?.store.getState().project.id ?? "");
  const { revision, mix } = (await (await page.request.get(`/api/projects/${id}/mix`)).json()) as {
    revision: number;
    mix: { sources: { id: string }[]; clips: { id: string }[] };
  };
  const byId = (things: { id: string }[]) => Object.fromEntries(things.map((t) => [t.id, t]));
  return { revision, content: { ...mix, sources: byId(mix.sources), clips: byId(mix.clips) } };
}

/** An edit as the screen sends it. */
export function edit(page: Page, edit: Edit): Promise<boolean> {
  return page.evaluate((wanted) => window.wattage?.store.getState().edit(wanted) ?? false, edit);
}

const VOICE = "0.2*(random(0)-0.5)*lt(mod(t\\,4)\\,2)";
const BED = "0.2*sin(2*PI*330*t)";

/** A project of two: its owner, and Nora, who edits it in a browser of her own. */
export async function two(page: Page, browser: Browser, dir: string): Promise<Page> {
  const files = [makeMedia(dir, "voice.wav", VOICE, 20), makeMedia(dir, "bed.wav", BED, 20)] as const;
  await layVoiceOverBed(page, `Two ${Date.now()}`, ...files);
  return joinedBy(browser, page, "Nora");
}

/** Both screens show what the server has, all of it. */
export async function agree(...pages: Page[]): Promise<void> {
  const [first] = pages;
  if (!first) return;
  const there = await stored(first);
  for (const page of pages) {
    await expect.poll(async () => (await shown(page)).revision).toBe(there.revision);
    expect(await shown(page)).toEqual(there);
  }
}

/** Chooses what the lane of a track shows, or what a ride of it does, from what stands behind its head. */
export async function setLane(page: Page, track: string, choice: string): Promise<void> {
  await page.getByRole("button", { name: new RegExp(`^Lane of ${track}:`) }).click();
  await page.getByRole("radio", { name: choice, exact: true }).click();
  await page.keyboard.press("Escape");
}
