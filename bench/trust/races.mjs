// A recording removed while it is placed, and while its project is copied: does a clip ever stand without its sound?
import { media, must, newProject, say, send, session, settled, sql } from "./lib.mjs";

const rounds = Number(process.argv[2] ?? 50);
const one = await session();
const two = await session();
const bytes = media(0.3);
const count = { placed: 0, removed: 0, copied: 0, holes: 0, strange: 0 };
const heard = async (project) => {
  const { mix } = (await one.ask("GET", `/api/projects/${project}/mix`)).json;
  for (const clip of mix.clips) {
    if ((await one.ask("GET", `/api/sources/${clip.source}/segments/0`)).status !== 200) count.holes++;
  }
  for (const source of (await one.ask("GET", `/api/projects/${project}/sources`)).json.sources) {
    if (source.state === "ready" && (await one.ask("GET", `/api/sources/${source.id}/segments/0`)).status !== 200) count.holes++;
  }
};
for (let n = 0; n < rounds; n++) {
  const project = await newProject(one, `Race ${n}`);
  const { id } = await send(one, project, `short-${n}.wav`, bytes);
  await settled(one, project, 60);
  const place = () => two.ask("POST", `/api/projects/${project}/edits`, { edit: "add-clip", track: "t", clip: "c", source: id, at: 0, stem: "music" }, { "If-Match": '"1"' });
  const copy = () => two.ask("POST", `/api/projects/${project}/copy`, { name: `Copy of ${n}` });
  const [removed, other] = await Promise.all(n % 2 ? [one.ask("DELETE", `/api/sources/${id}`), place()] : [one.ask("DELETE", `/api/sources/${id}`), copy()]);
  if (removed.status === 204) count.removed++;
  else if (removed.status !== 409) count.strange++;
  if (other.status === 200) count.placed++;
  else if (other.status === 201) count.copied++;
  else if (other.status !== 422 && other.status !== 404) count.strange++;
  await heard(project);
  if (other.status === 201) await heard(other.json.id);
}
say(`a recording removed while placed or copied, ${rounds} times`, `${count.removed} removed, ${count.placed} placed, ${count.copied} copied`);
say("  clips or recordings without sound, answers nobody expects", `${count.holes}, ${count.strange}`);
must(count.holes === 0 && count.strange === 0, "no hole");
must(sql("SELECT count(*) FROM job WHERE state IN ('waiting', 'running')") === "0", "all jobs ended");
