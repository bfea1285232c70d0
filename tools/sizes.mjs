// Lengths of the files and functions of the front end, in lines: medians, maxima, and what is longer than it may be.
//   node tools/sizes.mjs           the figures
//   node tools/sizes.mjs --check   fails where a component or a function has more than 100 lines
import { readdirSync, readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { join } from "node:path";

const ROOT = new URL("..", import.meta.url).pathname;
const ts = createRequire(join(ROOT, "web/package.json"))("typescript");
const LONGEST = 100;

const files = readdirSync(join(ROOT, "web/src"), { recursive: true })
  .filter((file) => /\.tsx?$/.test(file) && !/\.test\.|schema\.ts|\.d\.ts/.test(file))
  .map((file) => join("web/src", file));

const functions = [];
const lengths = files.map((file) => {
  const text = readFileSync(join(ROOT, file), "utf8");
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true, file.endsWith("x") ? ts.ScriptKind.TSX : ts.ScriptKind.TS);
  const lineAt = (position) => source.getLineAndCharacterOfPosition(position).line;
  const visit = (node) => {
    if (ts.isFunctionLike(node) && node.body) {
      const name = node.name?.getText(source) ?? node.parent.name?.getText(source) ?? "(nameless)";
      functions.push({ file, name, lines: lineAt(node.end) - lineAt(node.getStart(source)) + 1 });
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return { file, lines: text.split("\n").length - 1 };
});

const median = (list) => list.map((one) => one.lines).sort((a, b) => a - b)[Math.floor(list.length / 2)];
const longest = (list, count) => [...list].sort((a, b) => b.lines - a.lines).slice(0, count);
const say = (what, list) => {
  console.log(`${what}: ${list.length}, median ${median(list)} lines, longest:`);
  for (const { file, name, lines } of longest(list, 8)) console.log(`  ${lines}  ${file}${name ? ` ${name}` : ""}`);
};

const long = longest(functions, Infinity).filter(({ lines }) => lines > LONGEST);
if (process.argv.includes("--check")) {
  for (const { file, name, lines } of long) console.error(`${file}: ${name} has ${lines} lines; ${LONGEST} are the most.`);
  process.exit(long.length ? 1 : 0);
}
say("web files", lengths);
say("web functions and components", functions);
