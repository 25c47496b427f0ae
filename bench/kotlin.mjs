// Prints what an SDK in Kotlin costs an app, next to code by hand: reading an answer of 5 MB, against the serializers that
// the compiler plug-in of kotlinx-serialization makes, and 10,000 small calls, against bare OkHttp, in CPU time.
// Needs the Kotlin toolchain (node scripts/toolchains.mjs). Usage: node bench/kotlin.mjs [ROUNDS]
import { spawn, spawnSync } from "node:child_process";
import { cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { delimiter, join } from "node:path";
import { fileURLToPath } from "node:url";
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

const text = { type: "string" };
const record = (required, properties) => ({ type: "object", required, properties });
const contract = {
  openapi: "3.1.0",
  info: { title: "Quays", version: "1.0.0" },
  servers: [{ url: "http://localhost" }],
  paths: {
    "/berths": {
      get: {
        operationId: "listBerths",
        responses: {
          200: {
            description: "fine",
            content: { "application/json": { schema: { $ref: "#/components/schemas/Page" } } },
          },
        },
      },
    },
    "/berths/{berthId}/reservations": {
      post: {
        operationId: "reserve",
        parameters: [{ name: "berthId", in: "path", required: true, schema: text }],
        requestBody: {
          required: true,
          content: { "application/json": { schema: { $ref: "#/components/schemas/Request" } } },
        },
        responses: {
          201: {
            description: "done",
            content: { "application/json": { schema: { $ref: "#/components/schemas/Reservation" } } },
          },
        },
      },
    },
  },
  components: {
    schemas: {
      Page: record(["items"], { items: { type: "array", items: { $ref: "#/components/schemas/Berth" } } }),
      Berth: record(["id", "quay", "length", "places", "status", "tags"], {
        id: text,
        quay: text,
        length: { type: "number" },
        places: { type: "integer" },
        status: { type: "string", enum: ["free", "reserved", "occupied"] },
        shorePower: { type: "boolean" },
        note: { type: ["string", "null"] },
        tags: { type: "array", items: text },
        size: record(["width", "depth"], { width: { type: "number" }, depth: { type: "number" } }),
      }),
      Request: record(["vesselId", "arrival", "departure"], { vesselId: text, arrival: text, departure: text }),
      Reservation: record(["id", "berthId", "state", "arrival", "departure"], {
        id: text,
        berthId: text,
        state: text,
        arrival: text,
        departure: text,
      }),
    },
  },
};
writeFileSync(join(work, "api.json"), JSON.stringify(contract));
writeFileSync(
  join(work, "rhema.yaml"),
  "contracts: { quays: { from: api.json } }\nsdks: { app: { language: kotlin, covers: [quays], into: source, settings: { namespace: bench } } }\n",
);
run(process.execPath, [join(root, "dist/cli/main.js"), "generate"]);
cpSync(join(root, "bench/kotlin"), join(work, "source"), { recursive: true });

const items = Array.from({ length: 26_000 }, (_, at) => ({
  id: `N-${at}`,
  quay: "north",
  length: 12.5 + (at % 7),
  places: at % 40,
  status: ["free", "reserved", "occupied"][at % 3],
  shorePower: at % 2 === 0,
  note: at % 5 === 0 ? null : `Beside the "old" crane, number ${at}`,
  tags: ["quiet", "deep"],
  size: { width: 4.25, depth: 3 },
}));
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
