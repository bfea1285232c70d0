// Two application servers and three workers on one database and one S3 store: bring in, play, edit, render, each step on the other machine.
import { createHash } from "node:crypto";
import { media, must, newProject, pause, say, session, settled, sql } from "./lib.mjs";

const a = await session();
const b = await session("demo@wattage.example", process.env.WATTAGE_OTHER);
const project = await newProject(a, "Two machines");
const bytes = media(40, "flac", [], 5);
const source = (await a.ask("POST", `/api/projects/${project}/sources`, { name: "noise.flac", size: bytes.length })).json.id;
const PIECE = 1 << 20;
let statuses = [];
for (let at = 0, n = 0; at < bytes.length; at += PIECE, n++) {
  // A piece to the one, a piece to the other.
  const sent = await (n % 2 ? b : a).ask("PUT", `/api/sources/${source}/bytes?offset=${at}`, bytes.subarray(at, at + PIECE));
  statuses.push(sent.status);
}
const [ready] = await settled(b, project, 120);
say("a file whose pieces went to both machines", `${statuses.length} pieces, ${ready.state}${ready.problem ?? ""}`);
must(ready.state === "ready" && ready.frames === 40 * 48_000, "it is ready");

const segments = await Promise.all([0, 7, 19].map((n) => (n % 2 ? a : b).ask("GET", `/api/sources/${source}/segments/${n}`)));
say("  segments by ranges of the stored sound", segments.map((s) => `${s.status} in ${Math.round(s.ms)} ms`).join(", "));
must(segments.every((s) => s.status === 200), "it plays");

let { revision } = (await a.ask("GET", `/api/projects/${project}/mix`)).json;
const edits = [
  { edit: "add-clip", track: "m", clip: "c", source, at: 0, stem: "music" },
  { edit: "dip-range", clips: ["c"], from: 480_000, to: 960_000, by: -9, ramp: 4800 },
  { edit: "set-fader", track: "m", fader: -3 },
];
for (const [n, edit] of edits.entries()) {
  const answer = await (n % 2 ? a : b).ask("POST", `/api/projects/${project}/edits`, edit, { "If-Match": `"${revision}"` });
  must(answer.status === 200, `${edit.edit}: ${answer.text.slice(0, 200)}`);
  revision = answer.json.revision;
}
const seen = (await a.ask("GET", `/api/projects/${project}/mix`)).json;
const figures = (await b.ask("GET", `/api/projects/${project}/revisions/${revision}/figures`)).json;
say("  edits made in turn on both, seen on the first", `revision ${seen.revision}, ${figures.programme.integrated} LUFS`);
must(seen.revision === revision && seen.mix.clips.length === 1, "both see the same");

const delivery = (await b.ask("POST", `/api/projects/${project}/deliveries`, { format: "pcm24" })).json.id;
let made;
for (let i = 0; i < 200 && !["done", "failed"].includes(made?.state); i++) {
  await pause(200);
  made = (await a.ask("GET", `/api/projects/${project}/deliveries`)).json.deliveries.find((d) => d.id === delivery);
}
const address = await fetch(`${process.env.WATTAGE_URL}/api/deliveries/${delivery}/file`, { redirect: "manual", headers: { cookie: a.cookie() } });
const file = await fetch(address.headers.get("location"));
const sha256 = createHash("sha256").update(new Uint8Array(await file.arrayBuffer())).digest("hex");
const part = await fetch(address.headers.get("location"), { headers: { Range: "bytes=0-3" } });
say("  a delivery, fetched from the store by a signed address", `${made.state}, ${address.status}, ${sha256 === sql(`SELECT sha256 FROM delivery WHERE id = '${delivery}'`) ? "as rendered" : "OTHERWISE"}, ranges ${part.status}`);
must(sha256 === sql(`SELECT sha256 FROM delivery WHERE id = '${delivery}'`) && part.status === 206, "the file is as rendered");
const unsigned = await fetch(address.headers.get("location").split("?")[0]);
say("  the same address without its signature (s3rver asks for none)", unsigned.status);
say("  jobs", sql("SELECT string_agg(DISTINCT kind || ' ' || state, ', ') FROM job"));
