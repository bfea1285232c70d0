// Workers killed in mid-job, so many times: does every job end, once, and with the whole of the sound?
import { createHash } from "node:crypto";
import { execFileSync } from "node:child_process";
import { join } from "node:path";
import { dir, kill, media, must, newProject, pause, say, send, session, settled, size, sql, workers } from "./lib.mjs";

const kills = Number(process.argv[2] ?? 50);
sql(`CREATE TABLE IF NOT EXISTS ended (job UUID, state TEXT);
CREATE OR REPLACE FUNCTION note_end() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN
  IF NEW.state IN ('done', 'failed', 'cancelled') AND OLD.state <> NEW.state THEN INSERT INTO ended VALUES (NEW.id, NEW.state); END IF; RETURN NEW; END $$;
CREATE OR REPLACE TRIGGER job_ends AFTER UPDATE ON job FOR EACH ROW EXECUTE FUNCTION note_end();`);

const who = await session();
const project = await newProject(who, "Killed");
const sent = [];
for (let i = 0; i < kills; i++) {
  const bytes = media(90, "flac", [], 100 + i);
  sent.push({ ...(await send(who, project, `take-${i}.flac`, bytes)), sha256: createHash("sha256").update(bytes).digest("hex") });
}
let killed = 0;
for (let waited = 0; killed < kills && waited < 1200; waited++) {
  if (Number(sql("SELECT count(*) FROM job WHERE state = 'running' AND progress > 0.05 AND lease_until > now()")) > 0) {
    const all = workers();
    kill(all[Math.floor(Math.random() * all.length)]);
    killed++;
  } else if (Number(sql("SELECT count(*) FROM job WHERE state IN ('waiting', 'running')")) === 0) break;
  await pause(300 + 500 * Math.random());
}
const sources = await settled(who, project, 900, sent.map((s) => s.id));
const ready = sources.filter((s) => s.state === "ready");
const frames = 90 * 48_000;
const bytesOf = (s) => s.frames * s.channels * Number(sql(`SELECT bits / 8 FROM source WHERE id = '${s.id}'`));
const half = ready.filter((s) => s.frames !== frames || size(join(dir, "storage/media/sources", s.id, "pcm")) !== bytesOf(s));
const wrong = ready.filter((s) => {
  const [sha, sound] = sql(`SELECT sha256, sound_digest FROM source WHERE id = '${s.id}'`).split("|");
  const stored = execFileSync("php", ["-r", "echo hash_file('xxh128', $argv[1]);", join(dir, "storage/media/sources", s.id, "pcm")], { encoding: "utf8" });
  return sha !== sent.find((x) => x.id === s.id).sha256 || sound !== stored;
});
const once = sql(`SELECT count(*) FROM (SELECT job FROM ended JOIN source ON job_id = job WHERE project_id = '${project}' GROUP BY job HAVING count(*) = 1) x`);
const twice = sql("SELECT count(*) FROM (SELECT job FROM ended GROUP BY job HAVING count(*) > 1) x");
const given = sources.filter((s) => s.state === "refused");
say(`${killed} workers killed in mid-job`, `${once} of ${kills} jobs ended once, ${twice} more than once`);
say("  sources: ready, given up after three tries, half", `${ready.length}, ${given.length}, ${half.length + wrong.length}`);
must(Number(once) === kills && Number(twice) === 0, "every job ends once");
must(half.length + wrong.length === 0, "no half source");
must(killed > 0, "workers were killed in mid-job");
