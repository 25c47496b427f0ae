// Prints what an SDK in Swift costs an app, next to hand-written code: reading a response of 5 MB, compared with
// JSONDecoder, and 10,000 small calls, compared with bare URLSession, in CPU time. Needs the Swift toolchain (node
// scripts/toolchains.mjs). Usage: node bench/swift.mjs [ROUNDS]
import { spawn } from "node:child_process";
import { mkdtempSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";
import { build } from "esbuild";
import { contract, items } from "./quays.mjs";
import { startReservations } from "./reservations.mjs";

const root = fileURLToPath(new URL("..", import.meta.url));
const rounds = process.argv[2] ?? "7";
const work = mkdtempSync(join(tmpdir(), "rhema-swift-"));
process.on("exit", () => rmSync(work, { recursive: true, force: true }));

await build({
  entryPoints: [join(root, "src/workspace/languages/swift/toolchain.ts")],
  outfile: join(root, "node_modules/.bench/toolchain.mjs"),
  bundle: true,
  platform: "node",
  format: "esm",
  logLevel: "error",
});
const { swiftToolchain } = await import(pathToFileURL(join(root, "node_modules/.bench/toolchain.mjs")).href);
const toolchain = swiftToolchain();
if (!toolchain) {
  console.log("There is no Swift compiler: node scripts/toolchains.mjs gets it.");
  process.exit(0);
}

/** Runs a command that may need the compiler's folder, while this process is the server. */
async function run(command) {
  const { command: name, args } = toolchain(command, [work, root]);
  const running = spawn(name, args, { cwd: work, stdio: "inherit" });
  const status = await new Promise((resolve) => running.on("exit", resolve));
  if (status !== 0) throw new Error(`${command[0]} ended with ${status}`);
}

writeFileSync(join(work, "api.json"), JSON.stringify(contract));
writeFileSync(join(work, "page.json"), JSON.stringify({ items }));
writeFileSync(
  join(work, "rhema.yaml"),
  "contracts: { quays: { from: api.json } }\nsdks: { app: { language: swift, covers: [quays], into: source } }\n",
);
const generated = spawn(process.execPath, [join(root, "dist/cli/main.js"), "generate"], { cwd: work, stdio: "ignore" });
if ((await new Promise((resolve) => generated.on("exit", resolve))) !== 0) throw new Error("generate failed");
const sources = readdirSync(join(work, "source"), { recursive: true })
  .filter((path) => path.endsWith(".swift"))
  .map((path) => join(work, "source", path));
const program = join(work, "program");
await run([
  "swiftc",
  "-swift-version",
  "6",
  "-O",
  "-wmo",
  ...sources,
  join(root, "bench/swift/main.swift"),
  "-lm",
  "-o",
  program,
]);
const server = await startReservations();
await run([program, join(work, "page.json"), server.address, rounds]);
server.end();
