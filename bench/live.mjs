// What open screens cost an idle server: processor time of php-fpm, PostgreSQL and nginx while so many screens ask every 1.3 s, as they do.
// node bench/live.mjs URL [SCREENS [SECONDS]]   against a running demo on this machine
import { readdirSync, readFileSync } from "node:fs";

const [url, screens = "50", seconds = "30"] = process.argv.slice(2);
const TICKS = 100; // of a second, on Linux

/** Seconds of processor time that the servers have had. */
function spent() {
  let ticks = 0;
  for (const pid of readdirSync("/proc").filter((name) => /^\d+$/.test(name)))
    try {
      const stat = readFileSync(`/proc/${pid}/stat`, "utf8");
      const name = stat.slice(stat.indexOf("(") + 1, stat.lastIndexOf(")"));
      const fields = stat.slice(stat.lastIndexOf(")") + 2).split(" ");
      if (/^(php-fpm|postgres|nginx)/.test(name)) ticks += Number(fields[11]) + Number(fields[12]);
    } catch {
      // gone meanwhile
    }
  return ticks / TICKS;
}

const jar = new Map();
async function ask(method, path, body) {
  const answer = await fetch(url + path, {
    method,
    headers: { "Content-Type": "application/json", "X-Csrf-Token": jar.get("csrf") ?? "", Cookie: jar.get("cookie") ?? "" },
    ...(body ? { body: JSON.stringify(body) } : {}),
  });
  const cookie = answer.headers.get("set-cookie")?.split(";")[0];
  if (cookie) jar.set("cookie", cookie);
  const json = await answer.json();
  if (json.csrf) jar.set("csrf", json.csrf);
  return json;
}

const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
await ask("GET", "/api/session");
await ask("POST", "/api/session", { email: "demo@wattage.example", password: "salt-ferry" });
const { projects } = await ask("GET", "/api/projects");
const project = projects.find((p) => p.name === "The Salt Ferry").id;

const idleFrom = spent();
await pause(5000);
const idle = (spent() - idleFrom) / 5;

const times = [];
let over = false;
const screen = async () => {
  const id = crypto.randomUUID();
  await pause(1000 * Math.random());
  while (!over) {
    const begun = performance.now();
    await ask("PUT", `/api/projects/${project}/presence/${id}`, { holds: "clip:x" });
    times.push(performance.now() - begun);
    await pause(1300);
  }
};
const all = Array.from({ length: Number(screens) }, screen);
await pause(2000);
const from = spent();
times.length = 0;
await pause(1000 * Number(seconds));
const busy = (spent() - from) / Number(seconds);
const asked = times.length;
over = true;
await Promise.all(all);
times.sort((a, b) => a - b);
console.log(`${screens} open screens, ${(asked / Number(seconds)).toFixed(0)} requests a second, for ${seconds} s`);
console.log(`processor time of the servers: ${(100 * (busy - idle)).toFixed(1)} % of one core (idle: ${(100 * idle).toFixed(1)} %), ${((1000 * (busy - idle) * Number(seconds)) / asked).toFixed(2)} ms a request`);
console.log(`answer: median ${times[Math.floor(times.length / 2)].toFixed(1)} ms, 95th percentile ${times[Math.floor(times.length * 0.95)].toFixed(1)} ms`);
