// Prints how long comparing the two versions of the demo's contracts takes, in one process that is warm: `rhema impact`
// with changes, minus the same command without changes. The SDK is in a language without a compiler to run. Usage: node
// bench/comparing.mjs [ROUNDS]
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Readable, Writable } from "node:stream";
import { fileURLToPath } from "node:url";

const root = fileURLToPath(new URL("..", import.meta.url));
const { runProgram } = createRequire(import.meta.url)(join(root, "dist/cli/program.cjs"));
const rounds = Number(process.argv[2] ?? 60);
const warming = 15;
const aim = 1.2;

function project(changed) {
  const folder = mkdtempSync(join(tmpdir(), "rhema-bench-comparing-"));
  cpSync(join(root, "demo/app"), folder, { recursive: true });
  cpSync(join(root, "demo/contracts/v1"), join(folder, "contracts"), { recursive: true });
  const written = readFileSync(join(folder, "rhema.yaml"), "utf8");
  writeFileSync(
    join(folder, "rhema.yaml"),
    written
      .replace("language: typescript", "language: swift")
      .replace(/\n *settings:.*/, "")
      .replaceAll("typescript: string", "swift: String"),
  );
  return { folder, changed };
}

async function run({ folder }, args) {
  let said = "";
  const stream = () => new Writable({ write: (part, _, done) => ((said += part), done()) });
  const code = await runProgram(args, {
    ...{ folder, environment: { NO_COLOR: "1" }, input: Readable.from([]), output: stream(), errors: stream() },
    ...{ importer: (url) => import(url), interrupted: () => new Promise(() => undefined), onUncaught: () => undefined },
    exit: (status) => {
      throw new Error(`The program ended its process with ${status}: ${said}`);
    },
  });
  if (code > 1) throw new Error(`${args.join(" ")} ended with ${code}: ${said.slice(0, 2000)}`);
}

function processorMs() {
  const { user, system } = process.cpuUsage();
  return (user + system) / 1000;
}

const middle = (list) => list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)];
const projects = [project(false), project(true)];
const taken = new Map(projects.map((each) => [each, []]));
for (const each of projects) {
  await run(each, ["generate", "--quiet"]);
  if (each.changed) cpSync(join(root, "demo/contracts/v2"), join(each.folder, "contracts"), { recursive: true });
}
for (let round = 0; round < rounds + warming; round++)
  for (const each of projects) {
    const startedAt = processorMs();
    await run(each, ["impact", "--json"]);
    if (round >= warming) taken.get(each).push(processorMs() - startedAt);
  }
const [unchanged, changed] = projects.map((each) => middle(taken.get(each)));
const ratio = (changed - unchanged) / unchanged;
console.log(
  `the demo's contracts: ${unchanged.toFixed(1)} ms without a change, comparing their two versions ${(changed - unchanged).toFixed(1)} ms, ${ratio.toFixed(2)} times that (aim: at most ${aim})${ratio > aim ? "  MISSED" : ""}`,
);
for (const { folder } of projects) rmSync(folder, { recursive: true });
