// Plants bugs in the printer, one at a time, and says whether the random contracts find them, and how.
// Usage: npm run planted [-- WORDS]; with words, only the bugs whose name holds them
import { mkdirSync, readFileSync, readdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { build } from "esbuild";
import { compiledModules } from "./compileValidators.mjs";

const root = new URL("..", import.meta.url).pathname;
process.chdir(root);
const folder = "node_modules/.planted";
const printer = "src/core/languages/typescript/";

/** Each bug: what goes wrong, the file, and the text that is replaced. */
const bugs = [
  ["null is forgotten", "printType.ts", "`${text} | null`", "text"],
  [
    "a list of alternatives has no brackets",
    "printType.ts",
    "grouped(printReference(shape.item, printer, stance))",
    "printReference(shape.item, printer, stance)",
  ],
  [
    "the values of a map are not said",
    "printType.ts",
    "`Record<string, ${printReference(shape.value, printer, stance)}>`",
    '"Record<string, unknown>"',
  ],
  [
    "every item of a tuple is needed",
    "printType.ts",
    "return at < (shape.needed ?? shape.items.length) ? text",
    "return at >= 0 ? text",
  ],
  [
    "further items of a tuple are forgotten",
    "printType.ts",
    "if (shape.rest) items.push",
    "if (shape.rest && items.length > 99) items.push",
  ],
  [
    "integers are text",
    "printType.ts",
    'case "integer":\n    case "number":\n      return "number"',
    'case "integer":\n      return "string";\n    case "number":\n      return "number"',
  ],
  ["a boolean is always true", "printType.ts", 'return "boolean";', 'return "true";'],
  [
    "numbers are quoted",
    "printType.ts",
    'typeof value === "string" ? quoted(value) : String(value)',
    "quoted(String(value))",
  ],
  [
    "the last choice is lost",
    "printType.ts",
    "...shape.values.map(({ value }) => printLiteral(value)), ...openEnds",
    "...shape.values.slice(0, -1).map(({ value }) => printLiteral(value)), ...openEnds",
  ],
  [
    "the last alternative is lost",
    "printType.ts",
    "for (const { member, at, leaves } of members) {",
    "for (const { member, at, leaves } of members.length > 1 ? members.slice(0, -1) : members) {",
  ],
  [
    "what an alternative covers already is said again",
    "printType.ts",
    "const isFresh = !seen.has(atom) && !all.has(primitiveOf(atom));",
    "const isFresh = true;",
  ],
  ["needed and optional are swapped", "printShapes.ts", 'required ? "" : "?"', 'required ? "?" : ""'],
  ["nothing is optional", "printShapes.ts", 'required ? "" : "?"', '""'],
  ["an argument may not be undefined", "printShapes.ts", 'isLenient ? " | undefined" : ""', '""'],
  [
    "other keys are not widened by the fields",
    "printShapes.ts",
    "const members = [rest, ...shape.fields.map((field) => field.type)];",
    "const members = [rest];",
  ],
  [
    "a map of itself is an alias",
    "printShapes.ts",
    'if (shape.kind === "map" && reaches(',
    'if (shape.kind === "map" && false && reaches(',
  ],
  ["a comment can be closed by its text", "escape.ts", '.replaceAll("*/", "*\\\\/")', '.replaceAll("*/", "*/")'],
  [
    "odd field names are not quoted",
    "escape.ts",
    "return isIdentifierName(name) ? name : quoted(name);",
    "return name;",
  ],
  [
    "quotes in texts are not escaped",
    "escape.ts",
    "return JSON.stringify(text).replace(",
    'return `"${text}"`.replace(',
  ],
  [
    "platform types are shadowed",
    "identifiers.ts",
    "return platformTypes.has(safe) ? `${safe}Shape` : safe;",
    "return safe;",
  ],
  [
    "failures have no body",
    "printRestCall.ts",
    'failure.type ? printReference(failure.type, printer, "exact") : "undefined"',
    '"undefined"',
  ],
  [
    "a stream is typed as one answer",
    "printRestCall.ts",
    "streams ? `AsyncGenerator<${given}, void, undefined>` : `Promise<${given}>`",
    "`Promise<${given}>`",
  ],
  [
    "headers of answers are forgotten in the types",
    "printRestCall.ts",
    "} | undefined;\\n`;\n  });\n  const values",
    "};\\n`;\n  });\n  const values",
  ],
];

rmSync(folder, { recursive: true, force: true });
mkdirSync(folder, { recursive: true });
const runtimeFolder = "runtimes/typescript/wire";
const runtime = new Map(
  readdirSync(runtimeFolder).map((file) => [file, readFileSync(join(runtimeFolder, file), "utf8")]),
);

async function checkerWith(bug, at) {
  const outfile = join(folder, `planted-${at}.mjs`);
  let planted = bug === undefined;
  await build({
    entryPoints: ["test/random/checkContracts.ts"],
    outfile,
    bundle: true,
    format: "esm",
    platform: "node",
    packages: "external",
    logLevel: "error",
    plugins: [
      {
        name: "planted",
        setup(bundler) {
          bundler.onResolve({ filter: /^rhema:/ }, ({ path }) => ({ path, namespace: "rhema" }));
          bundler.onLoad({ filter: /.*/, namespace: "rhema" }, ({ path }) => ({
            contents: compiledModules[path](),
            loader: "js",
          }));
          bundler.onLoad({ filter: /languages\/typescript\/\w+\.ts$/ }, ({ path }) => {
            const text = readFileSync(path, "utf8");
            if (bug === undefined || !path.endsWith(printer + bug[1])) return { contents: text, loader: "ts" };
            planted = text.includes(bug[2]);
            return { contents: text.replace(bug[2], () => bug[3]), loader: "ts" };
          });
        },
      },
    ],
  });
  if (!planted) throw new Error(`The bug "${bug[0]}" has no place to stand: ${bug[2]}`);
  return (await import(pathToFileURL(join(root, outfile)).href)).checkContracts;
}

/** How a complaint was raised. */
function finder(failure) {
  if (failure.includes("@typescript-eslint/")) return "lint";
  if (failure.includes("Unused '@ts-expect-error'")) return "a value that is refused by the contract is taken";
  return failure.startsWith("probes") ? "a value that the contract allows is not taken" : "the SDK does not compile";
}

const batch = 20;
const most = 100;
let missed = 0;
const words = process.argv[2];
const chosen = bugs.filter(([name]) => words === undefined || name.includes(words));
for (const [at, bug] of [undefined, ...chosen].entries()) {
  const check = await checkerWith(bug, at);
  const found = new Map();
  let seed = 1;
  for (; seed <= most && found.size === 0; seed += batch) {
    for (const failure of check(seed, batch, { runtime, lint: true }).failures) {
      found.set(finder(failure), (found.get(finder(failure)) ?? 0) + 1);
    }
  }
  const how = [...found].map(([name, times]) => `${name} (${times})`).join(", ");
  const isRight = bug === undefined ? found.size === 0 : found.size > 0;
  if (!isRight) missed++;
  const verdict = bug === undefined ? (isRight ? "no complaint" : `COMPLAINED: ${how}`) : isRight ? how : "MISSED";
  console.log(`${bug === undefined ? "no bug at all" : bug[0]} [${seed - 1} contracts]: ${verdict}`);
}
rmSync(folder, { recursive: true, force: true });
console.log(`${chosen.length - missed} of ${chosen.length} planted bugs found`);
process.exitCode = missed > 0 ? 1 : 0;
