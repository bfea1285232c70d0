// A disk that is full, in an upload, in the analysis and in a render: what is said, what stays, and whether anything half passes for whole.
import { execSync } from "node:child_process";
import { rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { dir, files, media, must, newProject, pause, say, send, session, settled, size, sql, workersIdle } from "./lib.mjs";

const storage = `${dir}/storage`;
const ballast = join(storage, "ballast");
const free = () => Number(execSync(`df --output=avail -B1 ${storage} | tail -1`, { encoding: "utf8" }));
/** Fills the disk but for so much. */
const leave = (bytes) => {
  rmSync(ballast, { force: true });
  try {
    writeFileSync(ballast, Buffer.alloc(Math.max(0, free() - bytes)));
  } catch {
    // somebody else was quicker to fill it
  }
};
const room = () => rmSync(ballast, { force: true });
const who = await session();
const half = [];
const unsaid = [];
const left = [];
const whole = (s) => s.state !== "ready" || size(join(storage, "media/sources", s.id, "pcm")) === s.frames * s.channels * Number(sql(`SELECT bits / 8 FROM source WHERE id = '${s.id}'`));
const told = (text) => /disk/.test(text ?? "") && /full|room/.test(text ?? "");

let tried = 0;
for (let i = 0; i < 12; i++) {
  const project = await newProject(who, `Full ${i}`);
  const bytes = media(15, "flac", [], 300 + i);
  // In the upload.
  leave(1_000_000);
  const refused = await send(who, project, "upload.flac", bytes, 500_000);
  if (!refused.refused || !told(refused.refused.json?.detail)) unsaid.push(`upload: ${refused.refused?.text ?? "it was taken"}`);
  room();
  // In the analysis, at another point every time; the reserve of the work disk is looked at first, so it is filled once the work has begun.
  const sent = await send(who, project, "analysis.flac", bytes);
  for (let waited = 0; waited < 200 && sql(`SELECT state FROM job WHERE id = (SELECT job_id FROM source WHERE id = '${sent.id}')`) === "waiting"; waited++) await pause(10);
  await pause(30 * i);
  leave(200_000);
  let [source] = await settled(who, project, 60, [sent.id]);
  room();
  if (source.state === "refused" && !told(source.problem)) unsaid.push(`analysis: ${source.problem}`);
  if (!whole(source)) half.push(source.id);
  if (source.state === "refused") {
    await who.ask("POST", `/api/sources/${sent.id}/retry`);
    [source] = await settled(who, project, 60, [sent.id]);
    if (source.state !== "ready" || !whole(source)) unsaid.push(`again: ${source.state} ${source.problem}`);
  }
  // In a render.
  await edit(project, { edit: "add-track", track: "m", name: "M", stem: "music" });
  await edit(project, { edit: "add-clip", track: "m", clip: "c", source: sent.id, at: 0 });
  leave(i % 2 ? 300_000 : 70_000_000);
  const delivery = (await who.ask("POST", `/api/projects/${project}/deliveries`, { format: "float32" })).json.id;
  if (i % 2 === 0) {
    await pause(20 * i);
    leave(200_000);
  }
  let made;
  for (let waited = 0; waited < 200; waited++) {
    made = (await who.ask("GET", `/api/projects/${project}/deliveries`)).json.deliveries.find((d) => d.id === delivery);
    if (!["waiting", "running"].includes(made.state)) break;
    await pause(200);
  }
  room();
  if (made.state === "failed" && !told(made.problem)) unsaid.push(`render: ${made.problem}`);
  if (made.state === "done" && made.size !== size(join(storage, "media/deliveries", `${delivery}.wav`))) half.push(delivery);
  if (made.state !== "done" && files(join(storage, "media/deliveries")).some((f) => f.includes(delivery))) left.push(delivery);
  await workersIdle();
  left.push(...files(join(storage, "spool")));
  for (const s of (await who.ask("GET", `/api/projects/${project}/sources`)).json.sources) await who.ask("DELETE", `/api/sources/${s.id}`);
  tried += 3;
  sql(`DELETE FROM revision WHERE project_id = '${project}'; DELETE FROM delivery WHERE project_id = '${project}'; DELETE FROM source WHERE project_id = '${project}'`);
  execSync(`rm -rf ${storage}/media/sources/${sent.id} ${storage}/media/deliveries/*`);
}
async function edit(project, what) {
  const { revision } = (await who.ask("GET", `/api/projects/${project}/mix`)).json;
  return who.ask("POST", `/api/projects/${project}/edits`, what, { "If-Match": `"${revision}"` });
}
say(`a full disk, ${tried} times: in upload, analysis, render`, `${half.length} half things called whole, ${left.length} files left behind`);
say("  times in which it was not said, or did not work afterwards", unsaid.length);
if (unsaid.length) console.log(unsaid.slice(0, 5).join("\n"));
if (left.length) console.log(left.slice(0, 5).join("\n"));
must(half.length + left.length + unsaid.length === 0, "a full disk is said, and leaves nothing half");
