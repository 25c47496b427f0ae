// Prints how long comparing two versions of a 13 MB contract takes next to reading both, and how long the first search
// of an app of 2,000 files for its uses of an SDK takes, and impact on an app that makes all 1,000 calls of a contract
// of 15 MB. Usage: node bench/impact.mjs [ROUNDS]
import { spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { makeConnected } from "./makeConnected.mjs";
import { makeContract } from "./makeContract.mjs";

const root = fileURLToPath(new URL("..", import.meta.url));
const program = join(root, "dist/cli/main.js");
const rounds = Number(process.argv[2] ?? 5);
const folder = mkdtempSync(join(tmpdir(), "rhema-bench-impact-"));
const middle = (list) => list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)];

function timed(args, cwd = folder, expected = [0, 1]) {
  const startedAt = performance.now();
  const { status, stdout, stderr } = spawnSync(process.execPath, args, { cwd, encoding: "utf8", maxBuffer: 1 << 28 });
  if (!expected.includes(status)) throw new Error(`${args.join(" ")} ended with ${status}: ${stderr.slice(0, 2000)}`);
  return { seconds: (performance.now() - startedAt) / 1000, stdout };
}

const before = makeContract(1200, 1000, 6);
const after = structuredClone(before);
Object.values(after.components.schemas).forEach((schema, at) => {
  const [first, second] = Object.keys(schema.properties);
  if (at % 5 === 0) Reflect.deleteProperty(schema.properties, first);
  if (at % 7 === 0) schema.properties[second] = { type: "boolean" };
});
writeFileSync(join(folder, "before.json"), JSON.stringify(before, null, 1));
writeFileSync(join(folder, "after.json"), JSON.stringify(after, null, 1));
const reading = `
  import { readFileSync } from "node:fs";
  import { readContract } from ${JSON.stringify(join(root, "dist/core/index.js"))};
  for (const document of ["before.json", "after.json"])
    if (!readContract("api", [{ document, text: readFileSync(document, "utf8") }]).contract) process.exit(9);
`;
writeFileSync(join(folder, "read.mjs"), reading);
writeFileSync(
  join(folder, "compare.mjs"),
  `import { readFileSync } from "node:fs";
import { compareContracts, readContract, loadLanguage } from ${JSON.stringify(join(root, "dist/core/index.js"))};
const [before, after] = ["before.json", "after.json"].map((document) => readContract("api", [{ document, text: readFileSync(document, "utf8") }]).contract);
const facts = (await loadLanguage("typescript")).facts({ settings: {}, rest: {}, scalars: new Map() });
console.log(compareContracts(before, after, facts).length);`,
);
const [read, compared, reported] = [[], [], []];
let changes = 0;
for (let round = 0; round < rounds; round++) {
  read.push(timed(["read.mjs"]).seconds);
  const { seconds, stdout } = timed(["compare.mjs"]);
  compared.push(seconds);
  changes = Number(stdout);
  reported.push(
    timed([program, "impact", "--before", "before.json", "--after", "after.json", "--report", "changelog"]).seconds,
  );
}
const comparing = (middle(compared) - middle(read)) / middle(read);
console.log(
  `two versions of ${(JSON.stringify(before, null, 1).length / 1e6).toFixed(1)} MB, ${changes} changes: reading both ${middle(read).toFixed(2)} s, comparing ${comparing.toFixed(2)} times that (aim: at most 1.5)${comparing > 1.5 ? "  MISSED" : ""}; the whole command with a changelog ${middle(reported).toFixed(2)} s`,
);

// An app of 2,000 files, of which a fifth use the SDK.
const app = join(folder, "app");
mkdirSync(join(app, "src"), { recursive: true });
const contract = makeContract(200, 150);
writeFileSync(join(app, "api.json"), JSON.stringify(contract));
writeFileSync(join(app, "package.json"), '{ "type": "module" }');
writeFileSync(
  join(app, "tsconfig.json"),
  '{ "compilerOptions": { "strict": true, "target": "es2022", "module": "nodenext", "types": [], "lib": ["es2022", "dom"] }, "include": ["src"] }',
);
writeFileSync(
  join(app, "rhema.yaml"),
  "contracts: { api: { from: api.json } }\nsdks: { app: { language: typescript, covers: [api], into: src/sdk } }\n",
);
timed([program, "generate", "--quiet"], app);
const calls = JSON.parse(timed([program, "outline", "--json"], app).stdout)
  .contracts[0].groups.flatMap(({ entries }) => entries)
  .map(({ name }) => name);
for (let at = 0; at < 2000; at++) {
  const call = calls[at % calls.length];
  const uses =
    at % 5 === 0
      ? `import { connectApi, ${call} } from "../sdk/api/index.js";\nexport const asked${at} = async () => {\n  const answer = await ${call}(connectApi({ baseUrl: "/" }), {} as never);\n  return JSON.stringify(answer);\n};\n`
      : `import { value${at - (at % 5)} as other } from "./file${at - (at % 5)}.js";\nexport const twice = other * 2;\n`;
  const rest = Array.from(
    { length: 40 },
    (_, line) => `export const line${line} = (text: string): number => text.length + ${line};\n`,
  );
  mkdirSync(join(app, "src/part"), { recursive: true });
  writeFileSync(join(app, `src/part/file${at}.ts`), `${uses}export const value${at} = ${at};\n${rest.join("")}`);
}
const [first] = Object.values(contract.components.schemas);
Reflect.deleteProperty(first.properties, Object.keys(first.properties)[0]);
contract.paths[Object.keys(contract.paths)[3]] = {};
writeFileSync(join(app, "api.json"), JSON.stringify(contract));
const scan = timed([program, "impact", "--json"], app);
const hits = JSON.parse(scan.stdout).contracts.flatMap(({ changes: all }) =>
  all.flatMap(({ hits: places = [] }) => places),
);
console.log(
  `an app of 2,000 files, searched for the first time: ${scan.seconds.toFixed(1)} s for the whole of impact (aim: under 10)${scan.seconds > 10 ? "  MISSED" : ""}, ${hits.length} places`,
);

// An app that makes every call of a large contract, of which 118 types change.
const large = join(folder, "large");
mkdirSync(join(large, "src"), { recursive: true });
const whole = makeConnected(1000, 900);
for (const name of ["package.json", "tsconfig.json", "rhema.yaml"])
  writeFileSync(join(large, name), readFileSync(join(app, name)));
writeFileSync(join(large, "api.json"), JSON.stringify(whole, null, 1));
timed([program, "generate", "--quiet"], large);
const all = JSON.parse(timed([program, "outline", "--json"], large).stdout)
  .contracts[0].groups.flatMap(({ entries }) => entries)
  .map(({ name }) => name);
writeFileSync(
  join(large, "src/app.ts"),
  `import * as sdk from "./sdk/api/index.js";\nconst api = sdk.connectApi({ baseUrl: "/" });\n${all
    .map(
      (name, at) =>
        `export async function asked${at}(args: Parameters<typeof sdk.${name}>[1]) {\n  const answer = await sdk.${name}(api, args);\n  console.log(answer);\n  return answer;\n}\n`,
    )
    .join("")}`,
);
Object.values(whole.components.schemas)
  .slice(0, 118)
  .forEach((schema, at) => {
    const [first, second] = Object.keys(schema.properties);
    if (at % 3 === 0) Reflect.deleteProperty(schema.properties, first);
    else if (at % 3 === 1) schema.properties[second] = { type: "boolean" };
    else schema.properties.more = { type: "string" };
  });
writeFileSync(join(large, "api.json"), JSON.stringify(whole, null, 1));
const [compiled, judged] = [[], []];
const compiler = join(root, "node_modules/typescript/lib/tsc.js");
for (let round = 0; round < rounds; round++) {
  compiled.push(timed([compiler, "-p", "."], large).seconds);
  judged.push(timed([program, "impact", "--json"], large).seconds);
}
const ratio = middle(judged) / middle(compiled);
console.log(
  `an app that makes all ${all.length} calls of ${(JSON.stringify(whole, null, 1).length / 1e6).toFixed(1)} MB, 118 types changed: impact ${middle(judged).toFixed(1)} s, ${ratio.toFixed(2)} times what compiling the app takes (aim: at most 1)${ratio > 1 ? "  MISSED" : ""}`,
);
rmSync(folder, { recursive: true, force: true });
