// Prints how long `rhema watch` takes from the last byte saved to the files written, for a contract of 500 KB.
// Usage: node bench/watch.mjs [SAVES]
import { spawn } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { makeContract } from "./makeContract.mjs";

const root = fileURLToPath(new URL("..", import.meta.url));
const saves = Number(process.argv[2] ?? 15);
const aimMs = 150;
const folder = mkdtempSync(join(tmpdir(), "rhema-bench-watch-"));
const contract = makeContract(255, 190);
const save = (count) => {
  const schemas = contract.components.schemas;
  const [first] = Object.keys(schemas);
  schemas[first].properties[`saved${count}`] = { type: "string" };
  writeFileSync(join(folder, "api.json"), JSON.stringify(contract, null, 1));
};
save(0);
writeFileSync(
  join(folder, "rhema.yaml"),
  "contracts: { api: { from: api.json } }\nsdks: { app: { language: typescript, covers: [api], into: src/sdk } }\n",
);
const child = spawn(
  process.execPath,
  [...(process.env.BENCH_NODE ?? "").split(" ").filter(Boolean), join(root, "dist/cli/main.js"), "--json", "watch"],
  {
    cwd: folder,
    stdio: ["ignore", "pipe", "inherit"],
  },
);
const runs = [];
let wake = () => undefined;
let rest = "";
child.stdout.on("data", (part) => {
  rest += part;
  const lines = rest.split("\n");
  rest = lines.pop();
  for (const line of lines) {
    runs.push({ ...JSON.parse(line), at: performance.now() });
    wake();
  }
});
const next = async (count) => {
  while (runs.length < count) await new Promise((resolve) => (wake = resolve));
  return runs[count - 1];
};
await next(1);
await new Promise((resolve) => setTimeout(resolve, 3000));
const took = [];
const whole = [];
for (let count = 1; count <= saves; count++) {
  save(count);
  const savedAt = performance.now();
  const run = await next(count + 1);
  took.push(run.elapsedMs);
  whole.push(run.at - savedAt);
  await new Promise((resolve) => setTimeout(resolve, 400));
}
if (process.env.BENCH_EACH) console.log(took.join(" "));
const middle = (list) => list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)];
const size = (JSON.stringify(contract, null, 1).length / 1e3).toFixed(0);
const median = middle(took);
console.log(
  `${size} KB contract, ${saves} saves: ${median.toFixed(0)} ms to files written after the settle window (aim: at most ${aimMs})${median > aimMs ? "  MISSED" : ""}, slowest ${Math.max(...took).toFixed(0)} ms; with settling, file system and report ${middle(whole).toFixed(0)} ms`,
);
child.kill();
rmSync(folder, { recursive: true, force: true });
