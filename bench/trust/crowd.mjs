// Everybody in the way at once: six slow readers, six of the heaviest edits after one another, thirty renders and a thousand silent connections.
// How long does an edit of somebody else take, and a one-second upload?
import { connect } from "node:net";
import { demoProject, media, must, newProject, part, pause, say, send, session, settled, url } from "./lib.mjs";

const EDITS = Number(process.argv[2] ?? 60);
const { hostname, port } = new URL(url);
const heavy = await session();
const demo = await demoProject(heavy);
const edit = async (who, project, what) => {
  const { revision } = (await who.ask("GET", `/api/projects/${project}/mix`)).json;
  return who.ask("POST", `/api/projects/${project}/edits`, what, { "If-Match": `"${revision}"` });
};

// A delivery large enough to be read slowly.
const first = (await heavy.ask("POST", `/api/projects/${demo}/deliveries`, { format: "float32" })).json.id;
for (let i = 0; i < 200; i++) {
  const made = (await heavy.ask("GET", `/api/projects/${demo}/deliveries`)).json.deliveries.find((d) => d.id === first);
  if (made.state === "done") break;
  await pause(200);
}

// A mix that takes the most time that is allowed: a clip with many keyframes, changed in a thousand places.
const crowded = [await newProject(heavy, "Crowded")];
const source = (await send(heavy, crowded[0], "long.flac", media(1200, "flac", ["-ac", "1"]))).id;
await settled(heavy, crowded[0], 120);
await edit(heavy, crowded[0], { edit: "add-clip", track: "m", clip: "c", source, at: 0, stem: "music" });
for (let i = 1; i < 6; i++) crowded.push((await heavy.ask("POST", `/api/projects/${crowded[0]}/copy`, { name: `Crowded ${i}` })).json.id);
const points = Array.from({ length: 490 }, (_, i) => ({ at: 96_000 * i, level: -(i % 20) }));
const dips = Array.from({ length: 1000 }, (_, i) => ({ clips: ["c"], from: 30_000 * i, to: 30_000 * i + 9600, by: -1, ramp: 480 }));

const stranger = await session("nora@wattage.example");
const own = await newProject(stranger, "Own");
await edit(stranger, own, { edit: "add-track", track: "a", name: "A", stem: "speech" });
const measure = async () => {
  const times = [];
  for (let n = 0; n < EDITS; n++) {
    const answer = await edit(stranger, own, { edit: "set-fader", track: "a", fader: -(n % 9) });
    if (answer.status !== 200) throw new Error(answer.text);
    times.push(answer.ms);
    await pause(200);
  }
  return times;
};
const quiet = await measure();

let over = false;
const silent = [];
for (let i = 0; i < 1000; i++) {
  const socket = connect(Number(port), hostname);
  socket.on("error", () => {});
  silent.push(socket);
}
const readers = Array.from({ length: 6 }, () => {
  const socket = connect(Number(port), hostname, () => socket.write(`GET /api/deliveries/${first}/file HTTP/1.1\r\nHost: ${hostname}\r\nCookie: ${heavy.cookie()}\r\n\r\n`));
  socket.on("error", () => {});
  socket.pause();
  const drip = setInterval(() => socket.read(2000), 500);
  return () => (clearInterval(drip), socket.destroy());
});
for (let i = 0; i < 30; i++) await heavy.ask("POST", `/api/projects/${demo}/deliveries`, { format: "pcm24" });
const heaviest = [];
const edits = crowded.map(async (project) => {
  const who = await session();
  while (!over) {
    await edit(who, project, { edit: "set-curves", curves: [{ clip: "c", curve: points }] });
    const answer = await edit(who, project, { edit: "dips", dips });
    must(answer.status === 200, `the heaviest edit: ${answer.text.slice(0, 150)}`);
    heaviest.push(answer.ms);
  }
});
await pause(1000);
const began = Date.now();
const upload = await send(stranger, own, "one-second.wav", media(1, "wav", [], 77));
const [short] = await settled(stranger, own, 120, [upload.id]);
const uploaded = Date.now() - began;
const busy = await measure();
over = true;
readers.forEach((end) => end());
silent.forEach((socket) => socket.destroy());
await Promise.all(edits);
say("an edit of somebody else, alone: median, slowest", `${Math.round(part(quiet, 0.5))}, ${Math.round(Math.max(...quiet))} ms`);
say("  with slow readers, heaviest edits, renders, silence at once", `${Math.round(part(busy, 0.5))}, ${Math.round(Math.max(...busy))} ms`);
say("  the heaviest edits meanwhile took", `${Math.round(part(heaviest, 0.5))} ms at the median, ${heaviest.length} of them`);
say("  a one-second upload of somebody else was ready after", `${uploaded} ms (${short.state})`);
must(short.state === "ready" && busy.length === EDITS, "others can work");
