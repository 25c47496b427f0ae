// Prints what one call costs an app: its size in a bundle, and the time of 10,000 calls against a local server, each next
// to hand-written code. Usage: node bench/calls.mjs [ROUNDS]
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { spawnSync } from "node:child_process";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";
import { gzipSync } from "node:zlib";
import { buildSync } from "esbuild";
import { startReservations } from "./reservations.mjs";

const root = fileURLToPath(new URL("..", import.meta.url));
const rounds = Number(process.argv[2] ?? 5);
const work = mkdtempSync(join(tmpdir(), "rhema-calls-"));
cpSync(join(root, "demo/app"), work, { recursive: true });
cpSync(join(root, "demo/contracts/v1"), join(work, "contracts"), { recursive: true });
const ran = spawnSync(process.execPath, [join(root, "dist/cli/main.js"), "generate"], { cwd: work, encoding: "utf8" });
if (ran.status !== 0) throw new Error(ran.stderr);

const generated = `import { connectBerths } from "./src/sdk/berths/connect.js";
import { reserveBerth } from "./src/sdk/berths/calls/reservations.js";
export const connect = (baseUrl) => connectBerths({ baseUrl, auth: { harbourToken: () => "token" } });
export const reserve = (connection, berthId, body) => reserveBerth(connection, { berthId, body });
`;
/** The code of a careful developer: with an error of its own for other statuses, and for a missing network. */
const byHand = `class HarbourError extends Error {
  constructor(status, body, cause) { super("harbour " + status, { cause }); this.status = status; this.body = body; }
}
export const connect = (baseUrl) => ({ baseUrl, token: () => "token" });
export async function reserve({ baseUrl, token }, berthId, body) {
  let response;
  try {
    response = await fetch(baseUrl + "/berths/" + encodeURIComponent(berthId) + "/reservations", {
      method: "POST",
      headers: { accept: "application/json", "content-type": "application/json", authorization: "Bearer " + token() },
      body: JSON.stringify(body),
    });
  } catch (error) {
    throw new HarbourError("unreachable", undefined, error);
  }
  const text = await response.text();
  let value;
  try {
    value = text === "" ? undefined : JSON.parse(text);
  } catch (error) {
    throw new HarbourError("malformed", text, error);
  }
  if (response.status === 201) return value;
  throw new HarbourError(response.status, value);
}
`;

function bundle(name, text) {
  writeFileSync(join(work, `${name}.ts`), text);
  const outfile = join(work, `${name}.mjs`);
  const options = { bundle: true, minify: true, format: "esm", target: "es2022", logLevel: "error" };
  buildSync({ entryPoints: [join(work, `${name}.ts`)], outfile, ...options });
  return { outfile, size: gzipSync(readFileSync(outfile), { level: 9 }).length };
}

const bundles = { generated: bundle("generated", generated), "by hand": bundle("by-hand", byHand) };
for (const [name, { size }] of Object.entries(bundles))
  console.log(`one call, bundled, minified, gzip: ${name.padEnd(10)} ${(size / 1024).toFixed(2)} KB`);
if (bundles.generated.size > 2.5 * 1024) console.log("  more than 2.5 KB  MISSED");

const server = await startReservations();
const baseUrl = server.address;
const calls = 10_000;
const atOnce = 20;
const body = { vesselId: "v-1", arrival: "2026-05-01", departure: "2026-05-02" };

async function timed({ connect, reserve }) {
  const connection = connect(baseUrl);
  let left = calls;
  const startedAt = process.hrtime.bigint();
  await Promise.all(
    Array.from({ length: atOnce }, async () => {
      while (left-- > 0) await reserve(connection, "N-07", body);
    }),
  );
  return Number(process.hrtime.bigint() - startedAt) / 1e9;
}

const modules = Object.fromEntries(
  await Promise.all(
    Object.entries(bundles).map(async ([name, { outfile }]) => [name, await import(pathToFileURL(outfile).href)]),
  ),
);
const seconds = { generated: [], "by hand": [] };
for (const name of Object.keys(modules)) await timed(modules[name]);
for (let round = 0; round < rounds; round++)
  for (const name of round % 2 === 0 ? ["generated", "by hand"] : ["by hand", "generated"])
    seconds[name].push(await timed(modules[name]));
const median = (list) => list.sort((a, b) => a - b)[Math.floor(list.length / 2)];
for (const [name, list] of Object.entries(seconds))
  console.log(`10,000 calls against a local server:  ${name.padEnd(10)} ${median(list).toFixed(2)} s`);
const ratio = median(seconds.generated) / median(seconds["by hand"]);
console.log(`${ratio.toFixed(2)} times (aim: at most 1.3)${ratio > 1.3 ? "  MISSED" : ""}`);
server.end();
rmSync(work, { recursive: true, force: true });
