// So many mutated files through the whole of an upload: how many are taken, refused, break something, hang, leave something behind.
import { appendFileSync } from "node:fs";
import { dir, files, media, mediaFile, newProject, workersIdle, must, say, send, session, settled, sql } from "./lib.mjs";

const tries = Number(process.argv[2] ?? 10_000);
const BATCH = 50;
let state = 20_261_128;
const random = (below) => {
  // mulberry32: the same files in every run
  state = (state + 0x6d2b79f5) | 0;
  let t = Math.imul(state ^ (state >>> 15), 1 | state);
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
  return ((t ^ (t >>> 14)) >>> 0) % below;
};

const originals = [
  ["wav", media(0.4)],
  ["w64", media(0.4, "w64")],
  ["aiff", media(0.4, "aiff")],
  ["flac", media(0.4, "flac")],
  ["mp3", media(0.6, "mp3")],
  ["ogg", media(0.6, "ogg", ["-c:a", "libvorbis"])],
  ["opus", media(0.6, "opus", ["-c:a", "libopus"])],
  ["m4a", mediaFile(0.6, "m4a", ["-c:a", "aac"])],
  ["mov", mediaFile(0.4, "mov", ["-c:a", "pcm_s16le"])],
  ["mkv", mediaFile(0.6, "mkv", ["-c:a", "aac"])],
];

function mutant(bytes) {
  const made = new Uint8Array(bytes);
  switch (random(7)) {
    case 0: // a few bits anywhere
      for (let i = 0; i < 1 + random(20); i++) made[random(made.length)] ^= 1 << random(8);
      return made;
    case 1: // bytes of the head
      for (let i = 0; i < 1 + random(8); i++) made[random(Math.min(200, made.length))] = random(256);
      return made;
    case 2: // cut off
      return made.subarray(0, 1 + random(made.length - 1));
    case 3: {
      // a part taken out
      const at = random(made.length);
      return Uint8Array.from([...made.subarray(0, at), ...made.subarray(Math.min(made.length, at + 1 + random(5000)))]);
    }
    case 4: {
      // a part twice
      const at = random(made.length);
      return Uint8Array.from([...made.subarray(0, at), ...made.subarray(Math.max(0, at - random(3000)))]);
    }
    case 5: {
      // lengths and rates that lie
      const at = random(Math.min(120, made.length - 4));
      made.set([0xff, 0xff, 0xff, random(2) ? 0x7f : 0xff], at);
      return made;
    }
    default: // noise over a part
      made.fill(random(256), random(made.length), made.length);
      return made;
  }
}

const who = await session();
const count = { taken: 0, warned: 0, refused: 0, broken: 0, hung: 0 };
// What a killed worker left before is the reaper's.
const there = new Set(files(`${dir}/storage/spool`));
const leftBehind = [];
const began = Date.now();
for (let done = 0; done < tries; done += BATCH) {
  const project = await newProject(who, `Mutants ${done}`);
  const ids = [];
  for (let i = 0; i < Math.min(BATCH, tries - done); i++) {
    const [ending, bytes] = originals[random(originals.length)];
    const sent = await send(who, project, `mutant-${done + i}.${ending}`, mutant(bytes));
    if (sent.refused) count[sent.refused.status === 422 ? "refused" : "broken"]++;
    else ids.push(sent.id);
  }
  const sources = await settled(who, project, 120, ids);
  for (const source of sources.filter((s) => ids.includes(s.id))) {
    if (source.state === "ready") count[source.warning ? "warned" : "taken"]++;
    else if (source.state !== "refused") count.hung++;
    else if (/on our side|begun \d times/.test(source.problem)) {
      count.broken++;
      appendFileSync("/dev/stderr", `${source.name}: ${source.problem}\n`);
    } else count.refused++;
  }
  for (const id of ids) await who.ask("DELETE", `/api/sources/${id}`);
  await workersIdle();
  const left = [...files(`${dir}/storage/spool`).filter((file) => !there.has(file)), ...ids.flatMap((id) => [...files(`${dir}/storage/media/sources/${id}`), ...files(`${dir}/storage/media/uploads/${id}`)])];
  leftBehind.push(...left);
  await who.ask("DELETE", `/api/projects/${project}`);
}
say(`${tries.toLocaleString("en")} mutated uploads, in ${Math.round((Date.now() - began) / 1000)} s`, `${count.taken} taken, ${count.warned} taken with a warning, ${count.refused} refused`);
say("  broke something, hung, left files behind", `${count.broken}, ${count.hung}, ${leftBehind.length}`);
say("  jobs that did not end", sql("SELECT count(*) FROM job WHERE state IN ('waiting', 'running')"));
must(count.broken + count.hung + leftBehind.length === 0, "nothing breaks, hangs or is left behind");
must(count.refused > 0 && count.taken + count.warned > 0, "some are taken and some refused");
