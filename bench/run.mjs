// Prints the median seconds and the peak memory of the main commands, and their ratio to the floor. Usage: npm run
// bench [-- ROUNDS [WORDS]]; with words, only the projects whose name contains them
import { spawnSync } from "node:child_process";
import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { dump } from "js-yaml";
import { makeContract } from "./makeContract.mjs";
import { makeDocument, makeSchema } from "./makeSchema.mjs";

const root = fileURLToPath(new URL("..", import.meta.url));
const program = join(root, "dist/cli/main.js");
const rounds = Number(process.argv[2] ?? 9);
const words = process.argv[3] ?? "";
const work = mkdtempSync(join(tmpdir(), "rhema-bench-"));
const usageFile = join(work, "usage");

/** Runs every command once a round, one after the other, so that a busy machine slows all of them down alike. */
function measureTogether(commands) {
  const found = commands.map(() => ({ seconds: [], cpu: [], memory: [] }));
  for (let round = 0; round < rounds; round++) {
    commands.forEach(({ args, cwd, before }, at) => {
      before?.();
      const startedAt = process.hrtime.bigint();
      const { status, stderr } = spawnSync(process.execPath, ["--import", join(root, "bench/usage.mjs"), ...args], {
        cwd,
        env: { ...process.env, BENCH_USAGE: usageFile, NO_COLOR: "1" },
        encoding: "utf8",
      });
      found[at].seconds.push(Number(process.hrtime.bigint() - startedAt) / 1e9);
      if (status !== 0) throw new Error(`${args.join(" ")} ended with ${status}: ${stderr}`);
      const { memory, cpu } = JSON.parse(readFileSync(usageFile, "utf8"));
      found[at].memory.push(memory / 1024);
      found[at].cpu.push(cpu / 1e6);
    });
  }
  return found.map(({ seconds, cpu, memory }) => ({
    ...{ seconds: median(seconds), megabytes: median(memory) },
    each: { seconds, cpu },
  }));
}

function median(list) {
  return list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)];
}

/** The median of the ratios in each round, because a machine that is slow for a moment slows both commands down. */
function ratioOf(found, against, of = "seconds") {
  return median(found.each[of].map((value, round) => value / against.each[of][round]));
}

function sizeOf(folder) {
  return readdirSync(folder, { recursive: true }).reduce((total, name) => {
    const found = statSync(join(folder, name));
    return total + (found.isFile() ? found.size : 0);
  }, 0);
}

function row(label, found, against, aim) {
  const ratio = against ? ratioOf(found, against) : undefined;
  const verdict =
    ratio === undefined
      ? ""
      : `${ratio.toFixed(2)} times${Number.isFinite(aim) ? ` (aim: at most ${aim})` : ""}${ratio > (aim ?? Infinity) ? "  MISSED" : ""}`;
  console.log(
    `${label.padEnd(44)} ${found.seconds.toFixed(3)} s  ${found.megabytes.toFixed(0).padStart(4)} MB  ${verdict}`,
  );
  return found;
}

const [bare, versionRun, completed] = measureTogether([
  { args: ["-e", "0"], cwd: work },
  { args: [program, "--version"], cwd: work },
  { args: [program, "completion", "--at", "2", "--", "rhema", "explain", "q"], cwd: work },
]);
row("node -e 0", bare);
row("rhema --version", versionRun, bare, 2);
row("completing a word", completed, bare, 2.5);

function project(name, prepare, inputs, aim = 6, aimMegabytes = undefined, aimUnchanged = 3) {
  if (!name.includes(words)) return undefined;
  const folder = join(work, name);
  mkdirSync(folder);
  prepare(folder);
  let cleaned = 0;
  // Files are moved away, because some disks are slow to create files for a minute after many were removed.
  const clean = () => {
    const away = join(work, "away", `${name}${String(cleaned++)}`.replace(/[^a-z0-9]/gi, "-"));
    mkdirSync(away, { recursive: true });
    for (const part of [".rhema", "src"])
      if (existsSync(join(folder, part))) renameSync(join(folder, part), join(away, part.replace(".", "")));
  };
  const run = spawnSync(process.execPath, [program, "generate"], { cwd: folder, encoding: "utf8" });
  if (run.status !== 0) throw new Error(run.stderr);
  const bytes = sizeOf(join(folder, "src/sdk"));
  const files = inputs(folder);
  const floorArgs = [join(root, "bench/floor.mjs"), join(folder, "floor"), String(bytes), ...files];
  const clearFloor = () => rmSync(join(folder, "floor"), { recursive: true, force: true });
  const [start, floor, cold, unchanged] = measureTogether([
    { args: ["-e", "0"], cwd: folder },
    { args: floorArgs, cwd: folder, before: clearFloor },
    { args: [program, "generate"], cwd: folder, before: clean },
    { args: [program, "generate"], cwd: folder },
  ]);
  row(`${name}: floor (${(bytes / 1024).toFixed(0)} KB out)`, floor);
  row(`${name}: cold generate`, cold, floor, aim);
  if (aimMegabytes !== undefined && cold.megabytes > aimMegabytes)
    console.log(`  more than ${aimMegabytes} MB  MISSED`);
  row(`${name}: unchanged generate`, unchanged, start, aimUnchanged);
  rmSync(join(folder, "floor"), { recursive: true, force: true });
  return { bytes, cold, cwd: folder, before: clean };
}

project(
  "demo",
  (folder) => {
    cpSync(join(root, "demo/app"), folder, { recursive: true });
    cpSync(join(root, "demo/contracts/v1"), join(folder, "contracts"), { recursive: true });
  },
  (folder) => [
    join(folder, "contracts/berths.yaml"),
    join(folder, "contracts/passages.graphql"),
    ...readdirSync(join(folder, "queries")).map((file) => join(folder, "queries", file)),
  ],
);
project(
  "1,000 operations, 800 types",
  (folder) => {
    writeFileSync(join(folder, "api.json"), JSON.stringify(makeContract(1000, 800), null, 1));
    writeFileSync(
      join(folder, "rhema.yaml"),
      "contracts: { api: { from: api.json } }\nsdks: { app: { language: typescript, covers: [api], into: src/sdk } }\n",
    );
  },
  (folder) => [join(folder, "api.json")],
);
const single =
  (text, file, language = "typescript") =>
  (folder) => {
    writeFileSync(join(folder, file), text);
    writeFileSync(
      join(folder, "rhema.yaml"),
      `contracts: { api: { from: ${file} } }\nsdks: { app: { language: ${language}, covers: [api], into: src/sdk } }\n`,
    );
  };
const large = JSON.stringify(makeContract(1200, 1000, 6), null, 1);
const yaml = dump(makeContract(300, 220), { noRefs: true });
const megabytes = (text) => `${(text.length / 1e6).toFixed(1)} MB`;
const inScript = project(
  `${megabytes(large)} JSON, 1,200 operations`,
  single(large, "api.json"),
  (folder) => [join(folder, "api.json")],
  4,
  600,
);
const inOthers = [
  ["Kotlin", "kotlin"],
  ["Swift", "swift"],
].flatMap(([name, language]) => {
  const found = project(
    `${megabytes(large)} JSON, 1,200 operations, in ${name}`,
    single(large, "api.json", language),
    (folder) => [join(folder, "api.json")],
    Infinity,
    600,
  );
  return found ? [{ name, ...found }] : [];
});
if (inScript && inOthers.length > 0) {
  // In turns, so that a slow machine slows all languages down alike.
  const [script, ...others] = measureTogether(
    [inScript, ...inOthers].map(({ cwd, before }) => ({ args: [program, "generate"], cwd, before })),
  );
  others.forEach((found, at) => {
    row(`in ${inOthers[at].name}, against TypeScript`, found, script, 1.5);
    // Creating a thousand files takes a time that depends on the disk. CPU time shows the work of the program alone.
    console.log(`  in CPU time ${ratioOf(found, script, "cpu").toFixed(2)} times`);
  });
}
project(`${megabytes(yaml)} YAML`, single(yaml, "api.yaml"), (folder) => [join(folder, "api.yaml")], 4);

const queries = 200;
const withSchema = (types) => (folder) => {
  writeFileSync(join(folder, "schema.graphql"), makeSchema(types));
  mkdirSync(join(folder, "q"));
  for (let at = 0; at < queries; at++) writeFileSync(join(folder, `q/q${at}.graphql`), makeDocument(at));
  writeFileSync(
    join(folder, "rhema.yaml"),
    "contracts: { api: { from: schema.graphql, queries: [q/*.graphql] } }\nsdks: { app: { language: typescript, covers: [api], into: src/sdk } }\n",
  );
};
const documents = (folder) => [
  join(folder, "schema.graphql"),
  ...readdirSync(join(folder, "q")).map((file) => join(folder, "q", file)),
];
const size = `${megabytes(makeSchema(1600))} GraphQL`;
const usual = project(`${size}, 1,600 types, 200 queries`, withSchema(1600), documents, 5, 500);
const double = project(`${size} twice, the same 200 queries`, withSchema(3200), documents, 5);
if (usual && double)
  console.log(
    `the SDK of twice the schema: ${(double.bytes / usual.bytes).toFixed(3)} times as large${double.bytes > usual.bytes * 1.01 ? "  MISSED" : ""}`,
  );

const sources = 5000;
const scanned = project(
  "5,000 source files, 200 with queries (GraphQL)",
  (folder) => {
    withSchema(1600)(folder);
    for (let at = 0; at < sources; at++) {
      const query = at % 25 === 0 ? `export const query = gql\`\n${makeDocument(at / 25)}\`;\n` : "";
      const code = Array.from(
        { length: 40 },
        (_, line) => `export const value${line} = (text: string): number => text.length + ${line};\n`,
      );
      mkdirSync(join(folder, `app/part${at % 50}`), { recursive: true });
      writeFileSync(
        join(folder, `app/part${at % 50}/file${at}.ts`),
        `import { gql } from "somewhere";\n${query}${code.join("")}`,
      );
    }
    rmSync(join(folder, "q"), { recursive: true });
    const config = readFileSync(join(folder, "rhema.yaml"), "utf8");
    writeFileSync(join(folder, "rhema.yaml"), config.replace("q/*.graphql", '"app/**/*.ts"'));
  },
  (folder) => [join(folder, "schema.graphql")],
  undefined,
  undefined,
  undefined,
);
if (scanned && usual) {
  const scan = scanned.cold.seconds - usual.cold.seconds;
  console.log(`the scan of 5,000 files: ${scan.toFixed(2)} s (aim: at most 1.5)${scan > 1.5 ? "  MISSED" : ""}`);
}
rmSync(work, { recursive: true, force: true });
