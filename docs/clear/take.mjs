// What a plain dip and room by band do to the demo, in numbers, pictures and sound, from a running demo: node docs/clear/take.mjs [URL]
// Makes index.html beside it, with the sounds and spectrograms that it shows (by ffmpeg). The demo itself is left as it was.
import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

const url = process.argv[2] ?? "http://127.0.0.1:8420";
const here = new URL("./", import.meta.url).pathname;
/** Seconds of the programme that are heard. */
const [FROM, LENGTH] = [8, 15];
const CLARITY = 70;
const RULE = { id: "heard", name: "Heard", targets: ["music"], clarity: CLARITY, deepest: -40, lead: 0.15, fall: 0.3, rise: 1.2, hold: 0.5, bridge: 1.5, ignore: 0.2 };
const WAYS = [
  { name: "before", title: "As it was mixed by hand, without any rule", rule: null },
  { name: "plain", title: "A plain dip, as deep as its worst moment needs", rule: RULE },
  { name: "band", title: "The band of speech first, then the rest, from moment to moment", rule: { ...RULE, part: "band-first", moving: true } },
];

const jar = {};
let csrf = "";
async function call(method, path, body, headers = {}) {
  const ask = () => fetch(url + path, {
    method,
    headers: { cookie: Object.entries(jar).map(([k, v]) => `${k}=${v}`).join("; "), "X-Csrf-Token": csrf, ...(body ? { "content-type": "application/json" } : {}), ...headers },
    body: body && JSON.stringify(body),
  });
  // While ffmpeg worked, the server has let go of the line.
  const answer = await ask().catch(ask);
  for (const cookie of answer.headers.getSetCookie()) {
    const [name, value] = cookie.split(";")[0].split("=");
    jar[name] = value;
  }
  if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${await answer.text()}`);
  return (answer.headers.get("content-type") ?? "").includes("json") ? answer.json() : Buffer.from(await answer.arrayBuffer());
}

({ csrf } = await call("GET", "/api/session"));
({ csrf } = await call("POST", "/api/session", { email: "demo@wattage.example", password: "salt-ferry" }));
const demo = (await call("GET", "/api/projects")).projects.find((p) => p.name.startsWith("The Salt Ferry"));
const copy = await call("POST", `/api/projects/${demo.id}/copy`, { name: "Heard three ways" });
const api = `/api/projects/${copy.id}`;
const dir = mkdtempSync(join(tmpdir(), "wattage-heard-"));
const rows = [];
const cut = (wav) => ["-v", "error", "-y", "-ss", String(FROM), "-t", String(LENGTH), "-i", wav];
async function rendered(file) {
  const { id } = await call("POST", `${api}/deliveries`, { format: "pcm16" });
  for (;;) {
    await new Promise((resolve) => setTimeout(resolve, 300));
    const { state, problem } = (await call("GET", `${api}/deliveries`)).deliveries.find((d) => d.id === id);
    if (state === "failed") throw new Error(problem);
    if (state === "done") break;
  }
  writeFileSync(file, await call("GET", `/api/deliveries/${id}/file`));
}
try {
  for (const way of WAYS) {
    let { revision, mix } = await call("GET", `${api}/mix`);
    const edit = async (change) => ({ revision } = await call("POST", `${api}/edits`, change, { "If-Match": `"${revision}"` }));
    if (way === WAYS[0]) await edit({ edit: "set-aim", clarity: CLARITY });
    const plan = await call("POST", `${api}/ducking`, way.rule ? { rule: way.rule } : {});
    if (way.rule) await edit(plan.edit);
    const figures = await call("GET", `${api}/revisions/${revision}/figures`);
    const clarity = await call("GET", `${api}/revisions/${revision}/clarity`);
    const sounds = join(dir, `${way.name}.wav`);
    await rendered(sounds);
    execFileSync("ffmpeg", [...cut(sounds), "-c:a", "libopus", "-b:a", "80k", `${here}${way.name}.ogg`]);
    // What the music loses is seen where nothing else sounds.
    const others = mix.tracks.filter((t) => t.id !== "music");
    for (const { id } of others) await edit({ edit: "set-muted", track: id, muted: true });
    const alone = join(dir, `${way.name}-music.wav`);
    await rendered(alone);
    for (const { id } of others) await edit({ edit: "set-muted", track: id, muted: false });
    execFileSync("ffmpeg", [...cut(alone), "-lavfi", "aformat=channel_layouts=mono,aresample=20000,showspectrumpic=s=760x220:legend=0:scale=log:drange=80:color=magma", "-frames:v", "1", `${here}${way.name}.png`]);
    rows.push({ way, taken: plan.taken, clarity, figures, music: figures.stems.music.integrated, programme: figures.programme.integrated });
  }
} finally {
  await call("DELETE", api);
  rmSync(dir, { recursive: true });
}

const [before, plain, band] = rows;
const taken = { before: 0, plain: band.taken.plain, band: band.taken.now };
const percent = (part) => `${Math.floor(100 * part)} %`;
const table = rows
  .map(({ way, clarity, figures, music }) => `<tr><td>${way.title}</td><td>${clarity.average.toFixed(1)}</td><td>${percent(clarity.clearPart)}</td><td>${percent(figures.clearPart)}</td><td>${taken[way.name].toFixed(1)} LU</td><td>${music.toFixed(1)} LUFS</td></tr>`)
  .join("\n");
const heard = rows
  .map(({ way }) => `<section><h2>${way.title}</h2><audio controls preload="metadata" src="${way.name}.ogg"></audio><img src="${way.name}.png" width="760" height="220" alt="Spectrogram of the music alone, 0 Hz at the bottom to 10 kHz at the top"></section>`)
  .join("\n");
writeFileSync(
  `${here}index.html`,
  `<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<title>Heard three ways</title>
<style>
body { font: 15px/1.5 system-ui, sans-serif; max-width: 800px; margin: 2rem auto; padding: 0 1rem; color: #1f1b16; background: #f7f2e6 }
table { border-collapse: collapse; width: 100%; font-size: 13px } td, th { text-align: right; padding: 4px 8px; border-top: 1px solid #cfc5b0 } td:first-child, th:first-child { text-align: left; padding-left: 0 }
audio { width: 100%; display: block; margin: 6px 0 } img { width: 100%; height: auto } h1 { font-size: 22px } h2 { font-size: 15px; margin: 24px 0 4px }
</style>
<h1>The demo, heard three ways</h1>
<p>The Salt Ferry from 0:0${FROM} on, ${LENGTH} seconds: the narrator over the accordion; the pictures are of the music alone, 0 Hz to 10 kHz. Both rules ask for a clarity of ${CLARITY}. Made by <code>node docs/clear/take.mjs</code>.</p>
<table>
<tr><th>of the whole programme</th><th>clarity</th><th>as clear as wanted</th><th>clear by 15 LU</th><th>taken from the music while somebody speaks</th><th>the music</th></tr>
${table}
</table>
${heard}
</html>
`,
);
console.log(JSON.stringify(rows.map(({ way, clarity, figures, music }) => ({ way: way.name, clarity: clarity.average, clear: clarity.clearPart, clearance: figures.clearPart, taken: taken[way.name], music })), null, 1));
