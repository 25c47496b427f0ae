// Prints what an SDK in Kotlin costs an app, next to hand-written code: reading a response of 5 MB, compared with the
// serializers of kotlinx-serialization's compiler plug-in, and 10,000 small calls, compared with bare OkHttp, in CPU
// time. Needs the Kotlin toolchain (node scripts/toolchains.mjs). Usage: node bench/kotlin.mjs [ROUNDS]
import { spawn, spawnSync } from "node:child_process";
import { cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { delimiter, join } from "node:path";
import { fileURLToPath } from "node:url";
import { contract, items } from "./quays.mjs";
import { startReservations } from "./reservations.mjs";

const root = fileURLToPath(new URL("..", import.meta.url));
const rounds = process.argv[2] ?? "7";
const toolchain = join(root, ".toolchains/kotlin");
const libraries = join(toolchain, "node_modules/kotlin-compiler/lib");
if (!existsSync(libraries)) {
  console.log("There is no Kotlin compiler: node scripts/toolchains.mjs gets it.");
  process.exit(0);
}
const jars = readdirSync(join(toolchain, "current/jars")).map((name) => join(toolchain, "current/jars", name));
const work = mkdtempSync(join(tmpdir(), "rhema-kotlin-"));

function run(command, args, cwd = work) {
  const { status, stdout, stderr } = spawnSync(command, args, { cwd, encoding: "utf8" });
  if (status !== 0) throw new Error(`${command} ended with ${status}: ${stdout}${stderr}`);
}

writeFileSync(join(work, "api.json"), JSON.stringify(contract));
writeFileSync(
  join(work, "rhema.yaml"),
  "contracts: { quays: { from: api.json } }\nsdks: { app: { language: kotlin, covers: [quays], into: source, settings: { namespace: bench } } }\n",
);
run(process.execPath, [join(root, "dist/cli/main.js"), "generate"]);
cpSync(join(root, "bench/kotlin"), join(work, "source"), { recursive: true });

writeFileSync(join(work, "page.json"), JSON.stringify({ items }));

mkdirSync(join(work, "classes"));
run("java", [
  ...["-Xmx2g", "-Xss8m", "-cp", join(libraries, "kotlin-compiler.jar"), "org.jetbrains.kotlin.cli.jvm.K2JVMCompiler"],
  ...["-no-stdlib", "-no-reflect", `-Xplugin=${join(libraries, "kotlinx-serialization-compiler-plugin.jar")}`],
  ...["-cp", jars.join(delimiter), "-d", join(work, "classes"), join(work, "source")],
]);

const server = await startReservations();
const given = [join(work, "page.json"), server.address, rounds];
const program = spawn(
  "java",
  ["-Xmx2g", "-cp", [...jars, join(work, "classes")].join(delimiter), "bench.program.BenchKt", ...given],
  {
    stdio: "inherit",
  },
);
const status = await new Promise((resolve) => program.on("exit", resolve));
server.end();
rmSync(work, { recursive: true, force: true });
process.exitCode = status;
