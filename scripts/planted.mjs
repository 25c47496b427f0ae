// Plants bugs in what types and prints, one at a time, and says whether random contracts, or random schemas and queries,
// find them, and how.
// Usage: npm run planted [-- WORDS]; with words, only the bugs whose name holds them, or all of `contracts` or `schemas`
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

/** Bugs in the typing of queries, which random schemas and queries have to find; files are those of the core. */
const queryBugs = [
  [
    "a non-null variable may be null",
    "graphql/readGraphqlContract.ts",
    "return { ...toReference(type.ofType), nullable: false };",
    "return { ...toReference(type.ofType), nullable: true };",
  ],
  [
    "a non-null answer may be null",
    "graphql/typeSelections.ts",
    "if (isNonNullType(type)) return { ...typeOutput(type.ofType, nodes, context), nullable: false };",
    "if (isNonNullType(type)) return { ...typeOutput(type.ofType, nodes, context), nullable: true };",
  ],
  [
    "null in lists is forgotten",
    "graphql/typeSelections.ts",
    'shape: { kind: "list", item: typeOutput(type.ofType, nodes, context) }',
    'shape: { kind: "list", item: { ...typeOutput(type.ofType, nodes, context), nullable: false } }',
  ],
  [
    "a nullable object is never null",
    "graphql/typeSelections.ts",
    "context), nullable: true };\n}\n\n/** When every node",
    "context), nullable: false };\n}\n\n/** When every node",
  ],
  [
    "conditions are forgotten",
    "graphql/typeSelections.ts",
    "required: isAlways(conditions, collected.outer),",
    "required: true,",
  ],
  [
    "every field may be absent",
    "graphql/typeSelections.ts",
    "required: isAlways(conditions, collected.outer),",
    "required: false,",
  ],
  [
    "an alias is ignored",
    "graphql/typeSelections.ts",
    "selection.alias?.value ?? selection.name.value",
    "selection.name.value",
  ],
  [
    "only the first of merged selections counts",
    "graphql/typeSelections.ts",
    "return nodes.flatMap(({ node, condition }) =>",
    "return nodes.slice(0, 1).flatMap(({ node, condition }) =>",
  ],
  [
    "the tag is not sent",
    "graphql/printSent.ts",
    "if (!needTypename.has(set)) return undefined;",
    "if (needTypename.has(set)) return undefined;",
  ],
  [
    "the tag is asked for under a condition only",
    "graphql/typeSelections.ts",
    'sets.find(({ condition }) => condition === "")',
    "sets[0]",
  ],
  [
    "a fragment on another type counts too",
    "graphql/typeSelections.ts",
    "if (typeCondition !== undefined && !alwaysHolds(typeCondition, object, context)) continue;",
    "",
  ],
  [
    "a fragment on an interface is left out of objects",
    "graphql/typeSelections.ts",
    "if (wanted === type) return true;\n  return (",
    "if (wanted === type) return true;\n  return isAbstractType(type) && (",
  ],
  [
    "fields of an interface are looked up on the union",
    "graphql/typeSelections.ts",
    "isCompositeType(within) ? within : parent",
    "parent",
  ],
  ["constant conditions are ignored", "graphql/typeSelections.ts", 'if (own === "never") continue;', ""],
  [
    "of types that answer alike only the first is named",
    "graphql/typeSelections.ts",
    "if (group) group.names.push(object.name);\n    else groups.set",
    "if (!group) groups.set",
  ],
  [
    "a condition on a fragment is lost",
    "graphql/typeSelections.ts",
    "collectSet(inner, together,",
    "collectSet(inner, condition,",
  ],
  [
    "several conditions have an opposite",
    "graphql/typeSelections.ts",
    'if (others.length > 0) return "never";',
    "if (others.length > 99) return part;",
  ],
  [
    "a variable with a default has to be given",
    "graphql/typeOperation.ts",
    "!isNonNullType(type) || node.defaultValue !== undefined",
    "!isNonNullType(type)",
  ],
  ["a needed variable may be left out", "graphql/typeOperation.ts", "required: !optional,", "required: false,"],
  [
    "an input field with a default has to be given",
    "graphql/readGraphqlContract.ts",
    "!isNonNullType(field.type) || field.defaultValue !== undefined",
    "!isNonNullType(field.type)",
  ],
  ["one-of is ignored", "graphql/readGraphqlContract.ts", "...(type.isOneOf ? { oneOf: true } : {})", ""],
];

rmSync(folder, { recursive: true, force: true });
mkdirSync(folder, { recursive: true });
const runtimeFolder = "runtimes/typescript/wire";
const runtime = new Map(
  readdirSync(runtimeFolder).map((file) => [file, readFileSync(join(runtimeFolder, file), "utf8")]),
);

/** What is checked with, where its bugs are, and how many seeds a bug may take. */
const suites = [
  {
    what: "contracts",
    entry: "test/proof/random/checkContracts.ts",
    name: "checkContracts",
    below: printer,
    bugs,
    batch: 20,
    most: 100,
  },
  {
    what: "schemas with three queries",
    entry: "test/proof/random/graphql/checkQueries.ts",
    name: "checkQueries",
    below: "src/core/",
    bugs: queryBugs,
    batch: 20,
    most: 100,
  },
];

async function checkerWith({ entry, name, below }, bug, at) {
  const outfile = join(folder, `planted-${at}.mjs`);
  let planted = bug === undefined;
  await build({
    entryPoints: [entry],
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
          bundler.onLoad({ filter: /src\/core\/.*\.ts$/ }, ({ path }) => {
            const text = readFileSync(path, "utf8");
            if (bug === undefined || !path.endsWith(below + bug[1])) return { contents: text, loader: "ts" };
            planted = text.includes(bug[2]);
            return { contents: text.replace(bug[2], () => bug[3]), loader: "ts" };
          });
        },
      },
    ],
  });
  if (!planted) throw new Error(`The bug "${bug[0]}" has no place to stand: ${bug[2]}`);
  return (await import(pathToFileURL(join(root, outfile)).href))[name];
}

/** What a batch complains about; a server that cannot execute what is sent is a complaint too. */
function failuresOf(check, seed, { batch }) {
  try {
    return check(seed, batch, { runtime, lint: true }).failures;
  } catch (error) {
    return [`the executing server: ${error instanceof Error ? error.message : String(error)}`];
  }
}

/** How a complaint was raised. */
function finder(failure) {
  if (failure.includes("@typescript-eslint/")) return "lint";
  if (failure.startsWith("the executing server")) return "the server refuses what is sent";
  if (failure.includes("Unused '@ts-expect-error'")) return "a value that is refused by the contract is taken";
  return failure.startsWith("probes") ? "a value that the contract allows is not taken" : "the SDK does not compile";
}

let missed = 0;
let total = 0;
const words = process.argv[2];
let at = 0;
for (const suite of suites) {
  const chosen = suite.bugs.filter(([name]) => words === undefined || `${suite.what} ${name}`.includes(words));
  if (chosen.length === 0) continue;
  total += chosen.length;
  for (const bug of [undefined, ...chosen]) {
    const check = await checkerWith(suite, bug, at++);
    const found = new Map();
    let seed = 1;
    for (; seed <= suite.most && found.size === 0; seed += suite.batch) {
      for (const failure of failuresOf(check, seed, suite)) {
        found.set(finder(failure), (found.get(finder(failure)) ?? 0) + 1);
      }
    }
    const how = [...found].map(([name, times]) => `${name} (${times})`).join(", ");
    const isRight = bug === undefined ? found.size === 0 : found.size > 0;
    if (!isRight) missed++;
    const verdict = bug === undefined ? (isRight ? "no complaint" : `COMPLAINED: ${how}`) : isRight ? how : "MISSED";
    console.log(`${bug === undefined ? "no bug at all" : bug[0]} [${seed - 1} ${suite.what}]: ${verdict}`);
  }
}
rmSync(folder, { recursive: true, force: true });
console.log(`${total - missed} of ${total} planted bugs found`);
process.exitCode = missed > 0 ? 1 : 0;
