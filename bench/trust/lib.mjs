// What the trials share: a session, uploads, the database by psql, media by ffmpeg, and the workers' processes.
import { execFileSync, execSync, spawnSync } from "node:child_process";
import { existsSync, readdirSync, readFileSync, statSync } from "node:fs";
import { Agent, request as ask } from "node:http";
import { join } from "node:path";

export const url = process.env.WATTAGE_URL;
export const dir = process.env.WATTAGE_DIR;
export const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
export const say = (what, value) => console.log(`${what.padEnd(62)} ${value}`);
/** What must hold; a script in which it does not ends with 1. */
export const must = (holds, what) => {
  if (holds) return;
  console.log(`NOT SO: ${what}`);
  process.exitCode = 1;
};
export const part = (times, p) => [...times].sort((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * p))] ?? 0;

const connections = new Agent({ keepAlive: true, maxSockets: 200 });

/** By Node's own plain client: what asks must take little of a machine that is measured. */
function request(address, method, headers, body) {
  return new Promise((resolve, reject) => {
    const sent = ask(address, { agent: connections, method, headers }, (answer) => {
      const chunks = [];
      answer.on("data", (chunk) => chunks.push(chunk)).on("error", reject).on("end", () => resolve({ status: answer.statusCode, headers: answer.headers, body: Buffer.concat(chunks) }));
    });
    sent.on("error", reject).end(body);
  });
}

/** Somebody who is signed in. Answers tell their status; what does not arrive has status 0. */
export async function session(email = "demo@wattage.example", base = url) {
  let cookie = "";
  let csrf = "";
  const ask = async (method, path, body, headers = {}) => {
    const raw = body instanceof Uint8Array;
    const began = performance.now();
    try {
      const sent = body === undefined || raw ? body : JSON.stringify(body);
      const answer = await request(base + path, method, {
        cookie, "X-Csrf-Token": csrf,
        ...(sent === undefined ? {} : { "Content-Length": Buffer.byteLength(sent) }),
        ...(raw || body === undefined ? {} : { "Content-Type": "application/json" }), ...headers,
      }, sent);
      for (const set of answer.headers["set-cookie"] ?? []) cookie = set.split(";")[0];
      const ms = performance.now() - began;
      const text = answer.headers["content-type"]?.includes("json") ? answer.body.toString() : "";
      return { status: answer.status, json: text ? JSON.parse(text) : null, ms, retryAfter: answer.headers["retry-after"] ?? null, text };
    } catch (error) {
      return { status: 0, json: null, ms: performance.now() - began, retryAfter: null, text: String(error.cause ?? error) };
    }
  };
  csrf = (await ask("GET", "/api/session")).json.csrf;
  const signedIn = await ask("POST", "/api/session", { email, password: "salt-ferry" });
  if (signedIn.status !== 200) throw new Error(`${email} cannot sign in: ${signedIn.text}`);
  csrf = signedIn.json.csrf;
  return { ask, cookie: () => cookie };
}

export async function newProject(who, name) {
  return (await who.ask("POST", "/api/projects", { name })).json.id;
}

export async function demoProject(who) {
  return (await who.ask("GET", "/api/projects")).json.projects.find((p) => p.name === "The Salt Ferry").id;
}

/** Sends a file in pieces. @returns the id, or the answer that refused it */
export async function send(who, project, name, bytes, piece = 8 << 20) {
  const source = await who.ask("POST", `/api/projects/${project}/sources`, { name, size: bytes.length });
  if (source.status !== 201) return { refused: source };
  for (let at = 0; at < bytes.length; at += piece) {
    const sent = await who.ask("PUT", `/api/sources/${source.json.id}/bytes?offset=${at}`, bytes.subarray(at, at + piece));
    if (sent.status !== 200) return { id: source.json.id, refused: sent };
  }
  return { id: source.json.id };
}

export async function settled(who, project, seconds, ids = null) {
  for (const end = Date.now() + 1000 * seconds; Date.now() < end; await pause(300)) {
    const { json } = await who.ask("GET", `/api/projects/${project}/sources`);
    const sources = json?.sources.filter((s) => ids === null || ids.includes(s.id)) ?? [];
    if (json && sources.every((s) => s.state === "ready" || s.state === "refused")) return sources;
  }
  return (await who.ask("GET", `/api/projects/${project}/sources`)).json.sources;
}

export const sql = (query) => execFileSync("psql", ["-XAtq", "-c", query], { encoding: "utf8" }).trim();

/** Whatever there was to do, for whomever, is done: only then is a file in the work directory one that was left behind. */
export async function workersIdle() {
  for (let waited = 0; waited < 1200 && sql("SELECT count(*) FROM job WHERE state IN ('waiting', 'running')") !== "0"; waited++) await pause(100);
}

/** Made by ffmpeg from nothing. */
export function media(seconds, format = "wav", options = [], seed = 1) {
  return new Uint8Array(execFileSync("ffmpeg", ["-v", "error", "-f", "lavfi", "-i", `anoisesrc=d=${seconds}:c=pink:r=48000:a=0.3:seed=${seed}`, "-ac", "2", ...options, "-f", format, "pipe:1"], { maxBuffer: 1 << 30, stdio: ["ignore", "pipe", "ignore"] }));
}

/** The same into a file, for containers that must be able to go back. */
export function mediaFile(seconds, ending, options, seed = 1) {
  const file = join(dir, `made-${seed}.${ending}`);
  execFileSync("ffmpeg", ["-v", "error", "-y", "-f", "lavfi", "-i", `anoisesrc=d=${seconds}:c=pink:r=48000:a=0.3:seed=${seed}`, "-ac", "2", ...options, file], { stdio: "ignore" });
  return new Uint8Array(readFileSync(file));
}

export function workers() {
  return [1, 2, 3].flatMap((number) => {
    const group = readFileSync(`${dir}/run/worker-${number}.pid`, "utf8").trim();
    return spawnSync("pgrep", ["-g", group, "-x", "php"], { encoding: "utf8" }).stdout.split("\n").filter(Boolean);
  });
}

export const kill = (pid) => spawnSync("kill", ["-KILL", pid]);
export const restartDatabase = () => execSync(process.env.RESTART_DATABASE, { stdio: "ignore" });

/** All files below a directory, with their sizes. */
export function files(directory) {
  if (!existsSync(directory)) return [];
  return readdirSync(directory, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => join(entry.parentPath ?? entry.path, entry.name));
}

export const megabytes = (pattern) =>
  execSync(`ps -eo rss,args | grep -E '${pattern}' | grep -v grep | awk '{print $1}'`, { encoding: "utf8" })
    .split("\n")
    .filter(Boolean)
    .map((kb) => Math.round(Number(kb) / 1024));

export const size = (file) => statSync(file).size;
