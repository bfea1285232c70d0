// PostgreSQL restarted without mercy under a stream of edits: are any lost that were acknowledged, and what do people see meanwhile?
import { must, newProject, pause, restartDatabase, say, session, sql } from "./lib.mjs";

const restarts = Number(process.argv[2] ?? 50);
const who = await session();
const project = await newProject(who, "Interrupted");
let revision = 1;
const acknowledged = [];
const strange = [];
let over = false;
let away = null;
const recoveries = [];

const stream = async () => {
  for (let n = 0; !over; n++) {
    const key = `edit-${n}-${Date.now()}`;
    for (;;) {
      const answer = await who.ask("POST", `/api/projects/${project}/edits`, { edit: "add-marker", marker: `m${n}`, at: 48_000 * n, name: `M${n}` }, { "If-Match": `"${revision}"`, "Idempotency-Key": key });
      if (answer.status === 200) {
        revision = answer.json.revision;
        acknowledged.push(`m${n}`);
        if (away !== null) recoveries.push(performance.now() - away);
        away = null;
        break;
      }
      if (answer.status !== 503 || answer.retryAfter === null || !answer.json?.detail) strange.push(`${answer.status} ${answer.text.slice(0, 200)}`);
      if (over) return;
      await pause(100);
    }
  }
};
const running = stream();
for (let i = 0; i < restarts; i++) {
  await pause(300 + 700 * Math.random());
  restartDatabase();
  // From the moment it is back.
  away = performance.now();
}
await pause(3000);
over = true;
await running;
const mix = (await who.ask("GET", `/api/projects/${project}/mix`)).json.mix;
const there = new Set(mix.markers.map((m) => m.id));
const lost = acknowledged.filter((id) => !there.has(id));
say(`${restarts} restarts of PostgreSQL (-m immediate) under edits`, `${acknowledged.length} acknowledged, ${lost.length} lost, ${mix.markers.length - there.size} done twice`);
say("  answers that were neither done nor the announced outage", strange.length);
if (strange.length) console.log([...new Set(strange)].slice(0, 5).join("\n"));
say("  back at work after the database was", `${Math.round(Math.max(0, ...recoveries))} ms at most`);
say("  history is whole", sql(`SELECT count(*) = max(number) FROM revision WHERE project_id = '${project}'`) === "t" ? "yes" : "no");
must(acknowledged.length > 0 && lost.length === 0, "no acknowledged edit is lost");
must(strange.length === 0, "nothing but the announced outage");
must(Math.max(0, ...recoveries) < 10_000, "recovery within 10 s");
