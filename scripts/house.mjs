/**
 * Measures the sources: long functions, long lists of parameters, large folders and circles of imports. The exit code
 * is 1 if a figure is over its limit, so that CI fails when the sources get worse. `--list` lists every function and
 * folder over a limit.
 */
import { readdirSync, readFileSync } from "node:fs";
import { dirname, join, relative, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import ts from "typescript";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const limits = { longFunctions: 0, manyParameters: 0.01, largeFolders: 0, circles: 0 };
/** Copied into SDKs unchanged, where a flat folder is easier to read. */
const flat = new Set(["runtimes/typescript/wire"]);
const most = { lines: 80, parameters: 3, files: 25 };

const files = ["src", "runtimes/typescript"].flatMap((folder) =>
  readdirSync(join(root, folder), { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && /\.ts$/.test(entry.name))
    .map((entry) => relative(root, join(entry.parentPath, entry.name))),
);

/** Returns the functions of a file with a body: name, place, number of parameters and of lines. */
function functionsOf(path) {
  const text = readFileSync(join(root, path), "utf8");
  const source = ts.createSourceFile(path, text, ts.ScriptTarget.Latest, true);
  const line = (position) => source.getLineAndCharacterOfPosition(position).line + 1;
  const found = [];
  const walk = (node) => {
    if (ts.isFunctionLike(node) && node.body !== undefined) {
      const name =
        node.name?.getText() ?? (ts.isVariableDeclaration(node.parent) ? node.parent.name.getText() : "(arrow)");
      const first = line(node.getStart());
      const parameters = node.parameters.filter((each) => each.name.getText() !== "this").length;
      found.push({ name, place: `${path}:${first}`, parameters, lines: line(node.end) - first + 1 });
    }
    ts.forEachChild(node, walk);
  };
  walk(source);
  const imports = source.statements
    .filter(
      (each) => (ts.isImportDeclaration(each) || ts.isExportDeclaration(each)) && each.moduleSpecifier !== undefined,
    )
    .map((each) => each.moduleSpecifier.text)
    .filter((name) => name.startsWith("."))
    .map((name) => relative(root, resolve(root, dirname(path), name)).replace(/\.js$/, ".ts"));
  return { path, found, imports };
}

/** Returns groups of files that import each other, by Tarjan's algorithm. */
function circlesOf(graph) {
  const index = new Map();
  const low = new Map();
  const stack = [];
  const circles = [];
  const visit = (node) => {
    index.set(node, index.size);
    low.set(node, index.get(node));
    stack.push(node);
    for (const next of graph.get(node) ?? []) {
      if (!graph.has(next)) continue;
      if (!index.has(next)) {
        visit(next);
        low.set(node, Math.min(low.get(node), low.get(next)));
      } else if (stack.includes(next)) low.set(node, Math.min(low.get(node), index.get(next)));
    }
    if (low.get(node) !== index.get(node)) return;
    const group = stack.splice(stack.indexOf(node));
    if (group.length > 1) circles.push(group);
  };
  for (const node of graph.keys()) if (!index.has(node)) visit(node);
  return circles;
}

const read = files.map(functionsOf);
const functions = read.flatMap(({ found }) => found);
const long = functions.filter(({ lines }) => lines > most.lines);
// Small functions that are passed on directly have the parameters of their caller.
const named = functions.filter(({ name }) => name !== "(arrow)");
const wide = named.filter(({ parameters }) => parameters > most.parameters);
const folders = new Map();
for (const path of files) folders.set(dirname(path), (folders.get(dirname(path)) ?? 0) + 1);
const large = [...folders]
  .filter(([folder, count]) => count > most.files && !flat.has(folder))
  .sort(([, one], [, other]) => other - one);
const circles = circlesOf(new Map(read.map(({ path, imports }) => [path, imports])));

const percent = (share) => `${(100 * share).toFixed(1)} %`;
const figures = [
  ["longFunctions", long.length, `functions of more than ${most.lines} lines`],
  ["manyParameters", wide.length / named.length, `functions with more than ${most.parameters} parameters`],
  ["largeFolders", large.length, `folders with more than ${most.files} files`],
  ["circles", circles.length, "circles of imports"],
];
console.log(`${files.length} files, ${functions.length} functions, ${named.length} of them with a name`);
for (const [name, value, what] of figures) {
  const shown = (figure) => (name === "manyParameters" ? percent(figure) : String(figure));
  console.log(`${value > limits[name] ? "over " : "fine "} ${shown(value)} ${what} (at most ${shown(limits[name])})`);
  if (value > limits[name]) process.exitCode = 1;
}
if (process.argv.includes("--list")) {
  for (const { place, name, lines } of long.sort((one, other) => other.lines - one.lines))
    console.log(`${place} ${name}: ${lines} lines`);
  for (const [folder, count] of large) console.log(`${folder}: ${count} files`);
  for (const group of circles) console.log(`circle: ${group.join(" ")}`);
  for (const { place, name, parameters } of wide) console.log(`${place} ${name}: ${parameters} parameters`);
}
