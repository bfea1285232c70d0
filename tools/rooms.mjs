// The rooms of the three trees, in their order, with their sizes and with who uses whom.
//   node tools/rooms.mjs              writes docs/rooms.svg
//   node tools/rooms.mjs --at REV     the same of an older state, docs/rooms-before.svg; rooms that have no place get the one that suits best
//   node tools/rooms.mjs --check      fails where a room uses one above it, where a feature uses another one, or where one has more than a fifth of its tree
import { execFileSync } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join, normalize } from "node:path";

const ROOT = new URL("..", import.meta.url).pathname;
const MOST = 0.2;
const ORDERS = JSON.parse(readFileSync(join(ROOT, "tools/rooms.json"), "utf8"));
const NAMESPACES = { core: "Core", src: "App" };

function roomOf(path) {
  const [first, second] = path.split("/");
  return first === "features" || (first === "Edit" && path.split("/").length > 2) ? `${first}/${second}` : first;
}

function usedBy(tree, file, text) {
  if (tree !== "web/src")
    return [...text.matchAll(new RegExp(`Wattage\\\\${NAMESPACES[tree]}\\\\([\\w\\\\]+)`, "g"))].map(([, name]) => roomOf(name.replaceAll("\\", "/")));
  return [...text.matchAll(/(?:from |import\(|mock\()"([^"]+)"/g)].flatMap(([, path]) => {
    if (path.startsWith("@/")) return [roomOf(path.slice(2))];
    return path.startsWith(".") ? [roomOf(normalize(join(dirname(file), path)))] : [];
  });
}

function read(root, tree) {
  const rooms = new Map();
  for (const file of readdirSync(join(root, tree), { recursive: true })) {
    if (!/\.(php|tsx?)$/.test(file) || /\.test\.|schema\.ts|\.d\.ts/.test(file) || !file.includes("/")) continue;
    if (file.startsWith("test/")) continue;
    const text = readFileSync(join(root, tree, file), "utf8");
    const name = roomOf(file);
    const room = rooms.get(name) ?? { name, lines: 0, files: 0, uses: new Map() };
    rooms.set(name, room);
    room.lines += text.split("\n").filter((line) => line.trim() !== "").length;
    room.files += 1;
    for (const other of usedBy(tree, file, text))
      if (other !== name) room.uses.set(other, (room.uses.get(other) ?? 0) + 1);
  }
  for (const room of rooms.values()) for (const other of room.uses.keys()) if (!rooms.has(other)) room.uses.delete(other);
  return rooms;
}

/** The given order; what has no place in it comes where the fewest arrows go up. */
function ordered(rooms, order) {
  const known = order.filter((name) => rooms.has(name));
  if (known.length === rooms.size) return known;
  const left = new Set(rooms.keys());
  const found = [];
  while (left.size > 0) {
    const up = (name) => [...rooms.get(name).uses].reduce((sum, [other, count]) => sum + (left.has(other) ? count : 0), 0);
    const [next] = [...left].sort((a, b) => up(a) - up(b));
    found.push(next);
    left.delete(next);
  }
  return found;
}

function measure(root) {
  return Object.entries(ORDERS).map(([tree, order]) => {
    const rooms = read(root, tree);
    const names = ordered(rooms, order);
    const total = [...rooms.values()].reduce((sum, room) => sum + room.lines, 0);
    const faults = [...rooms.keys()].filter((name) => !order.includes(name)).map((name) => `${tree}: ${name} has no place in tools/rooms.json.`);
    const arrows = [];
    for (const room of rooms.values()) {
      if (room.lines > MOST * total) faults.push(`${tree}: ${room.name} has ${Math.round((100 * room.lines) / total)} % of its tree.`);
      for (const [other, count] of room.uses) {
        const up = names.indexOf(other) > names.indexOf(room.name);
        const beside = other.startsWith("features/") && room.name.startsWith("features/");
        if (up || beside) faults.push(`${tree}: ${room.name} uses ${other}, ${up ? "above" : "beside"} it.`);
        arrows.push({ from: room.name, to: other, count, wrong: up || beside });
      }
    }
    return { tree, rooms, names, total, arrows, faults };
  });
}

const ROW = 26;
const COLUMN = 560;

function drawn(trees, title) {
  const height = Math.max(...trees.map(({ names }) => names.length)) * ROW + 90;
  const parts = trees.map(({ tree, rooms, names, total, arrows }, column) => {
    const left = 20 + column * COLUMN;
    const y = (name) => 80 + (names.length - 1 - names.indexOf(name)) * ROW;
    const arcs = arrows.map(({ from, to, count, wrong }) => {
      const [a, b] = [y(from), y(to)];
      const reach = 290 + Math.min(220, Math.abs(a - b) * 0.5 + 14);
      const ink = wrong ? "#b3261e" : "#7a6a52";
      return `<path d="M${left + 290} ${a} C${left + reach} ${a} ${left + reach} ${b} ${left + 290} ${b}" fill="none" stroke="${ink}" stroke-opacity="${wrong ? 0.9 : 0.35}" stroke-width="${Math.min(4, 0.5 + Math.log2(count) * 0.5).toFixed(1)}"/>`;
    });
    const boxes = names.map((name) => {
      const { lines, files } = rooms.get(name);
      const share = lines / total;
      return `<rect x="${left + 130}" y="${y(name) - 8}" width="${(share * 700).toFixed(1)}" height="16" fill="${share > MOST ? "#b3261e" : "#b87333"}" fill-opacity="0.75"/><text x="${left + 124}" y="${y(name) + 4}" text-anchor="end">${name}</text><text x="${left + 134}" y="${y(name) + 4}" class="count">${lines} · ${files}</text>`;
    });
    const up = arrows.filter(({ wrong }) => wrong).length;
    return `<text x="${left}" y="40" class="head">${tree}: ${total} lines, ${names.length} rooms, ${up} arrows up or across</text>${arcs.join("")}${boxes.join("")}`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${20 + trees.length * COLUMN}" height="${height}" font-family="sans-serif" font-size="12"><style>.head{font-size:14px;font-weight:600}.count{font-size:10px}</style><rect width="100%" height="100%" fill="#fbf8f2"/><text x="20" y="20">${title} Bars: lines without empty ones · files; arcs: who uses whom, downwards.</text>${parts.join("")}</svg>\n`;
}

const [what, revision] = process.argv.slice(2);
if (what === "--check") {
  const faults = measure(ROOT).flatMap((tree) => tree.faults);
  for (const fault of faults) console.error(fault);
  process.exit(faults.length ? 1 : 0);
} else if (what === "--at") {
  const old = mkdtempSync(join(tmpdir(), "rooms-"));
  execFileSync("sh", ["-c", `git archive ${revision} core src web/src | tar -x -C ${old}`], { cwd: ROOT });
  writeFileSync(join(ROOT, "docs/rooms-before.svg"), drawn(measure(old), `The rooms at ${revision}.`));
  rmSync(old, { recursive: true });
} else {
  writeFileSync(join(ROOT, "docs/rooms.svg"), drawn(measure(ROOT), "The rooms, each above what it may use."));
}
