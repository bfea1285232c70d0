// Fifty editors for so many minutes, each on a copy of the demo: an edit every 4 s, and what a screen asks for then (counted in a browser).
// Each screen says that it is there and asks for the figures after an edit; of five, one plays all the time (segments, and the state
// before the edit, to switch to), and another stands at the desk (its meters).
import { readFileSync } from "node:fs";
import { demoProject, dir, megabytes, must, part, pause, say, session } from "./lib.mjs";

const minutes = Number(process.argv[2] ?? 10);
const EDITORS = 50;
const owner = await session();
const demo = await demoProject(owner);
const times = { edit: [], figures: [], segment: [], presence: [], moments: [], before: [] };
const errors = [];
let over = false;

async function editor(number) {
  const who = number % 2 ? nora : owner;
  const ask = async (kind, ...request) => {
    const answer = await who.ask(...request);
    times[kind]?.push(answer.ms);
    if (answer.status !== 200) errors.push(`${kind} ${answer.status} ${answer.text.slice(0, 150)}`);
    return answer.json;
  };
  let { mix, revision } = await ask("open", "GET", `/api/projects/${projects[number]}/mix`);
  const screen = crypto.randomUUID();
  const there = (async () => {
    while (!over) {
      await ask("presence", "PUT", `/api/projects/${projects[number]}/presence/${screen}`, {});
      await pause(1700);
    }
  })();
  await pause(4000 * Math.random());
  for (let n = 0; !over; n++) {
    const next = pause(4000);
    const clip = mix.clips[(number + n) % mix.clips.length];
    const what = [
      { edit: "set-clip-gain", clips: [clip.id], gain: -((n * 7) % 12) },
      { edit: "dip-range", clips: [clip.id], from: clip.at, to: clip.at + Math.min(96_000, clip.length), by: -3, ramp: 4800 },
      { edit: "set-fader", track: clip.track, fader: -((n * 3) % 9) },
    ][n % 3];
    const answer = await ask("edit", "POST", `/api/projects/${projects[number]}/edits`, what, { "If-Match": `"${revision}"`, "Idempotency-Key": crypto.randomUUID() });
    const before = revision;
    revision = answer?.revision ?? revision;
    await ask("figures", "GET", `/api/projects/${projects[number]}/revisions/${revision}/figures`);
    if (number % 5 === 0) await ask("moments", "GET", `/api/projects/${projects[number]}/revisions/${revision}/moments/0`);
    if (number % 5 === 1) {
      await ask("before", "GET", `/api/projects/${projects[number]}/revisions/${before}/mix`);
      for (let s = 0; s < 9; s++) await ask("segment", "GET", `/api/sources/${mix.clips[(n + s) % mix.clips.length].source}/segments/0`);
    }
    await next;
  }
  await there;
}

// The machine is idle otherwise: the demo's picture is made before it is copied.
while ((await owner.ask("GET", `/api/projects/${demo}/sources`)).json.sources.some((s) => s.picture === "making")) await pause(500);
const projects = [];
const nora = await session("nora@wattage.example");
const me = (await nora.ask("GET", "/api/session")).json.user;
for (let i = 0; i < EDITORS; i++) {
  const copy = (await owner.ask("POST", `/api/projects/${demo}/copy`, { name: `Copy ${i}` })).json.id;
  projects.push(copy);
}
const { execFileSync } = await import("node:child_process");
execFileSync("psql", ["-Xq", "-c", `INSERT INTO membership (project_id, user_id, role) SELECT id, '${me.id}', 'editor' FROM project WHERE name LIKE 'Copy %'`]);
const before = megabytes("php-fpm: pool");
const all = projects.map((_, i) => editor(i));
await pause(20_000); // caches are cold at first
for (const kind of Object.keys(times)) times[kind].length = 0;
await pause(60_000 * minutes);
over = true;
await Promise.all(all);
const after = megabytes("php-fpm: pool");
say(`${EDITORS} editors for ${minutes} minutes: edits, errors`, `${times.edit.length}, ${errors.length}`);
if (errors.length) console.log([...new Set(errors)].slice(0, 5).join("\n"));
for (const [kind, row] of Object.entries(times)) say(`  ${kind}: median, 95 %, slowest`, `${Math.round(part(row, 0.5))}, ${Math.round(part(row, 0.95))}, ${Math.round(Math.max(...row))} ms`);
say("  memory of a php-fpm process, before and after", `${Math.max(...before)}, ${Math.max(...after)} MB`);
const requests = readFileSync(`${dir}/log/requests.log`, "utf8").trim().split("\n").map((line) => JSON.parse(line).mb);
say("  memory of a request at most", `${Math.max(...requests)} MB`);
must(errors.length === 0, "no errors");
