// Prints how many requests a second the stand-in server handles, with the 99th percentile, for a contract of 1,000
// operations and a schema of 1,600 types; then its memory under continuous load, and whether it survives bytes that are
// not a request. Usage: node bench/play.mjs [SECONDS [SOAK_REQUESTS]]
import { spawn } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { Agent, request } from "node:http";
import { connect } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { makeContract } from "./makeContract.mjs";
import { makeDocument, makeSchema } from "./makeSchema.mjs";

const root = fileURLToPath(new URL("..", import.meta.url));
const seconds = Number(process.argv[2] ?? 10);
const soakRequests = Number(process.argv[3] ?? 150_000);
const aim = 1000;
const connections = 16;

const folder = mkdtempSync(join(tmpdir(), "rhema-bench-play-"));
const contract = makeContract(1000, 800);
writeFileSync(join(folder, "api.json"), JSON.stringify(contract));
writeFileSync(join(folder, "schema.graphql"), makeSchema(1600));
writeFileSync(
  join(folder, "rhema.yaml"),
  "contracts: { api: { from: api.json }, fleet: { from: schema.graphql, queries: ['*.graphql'] } }\nsdks: { app: { language: typescript, covers: [api, fleet], into: src/sdk } }\n",
);
const server = spawn(
  process.execPath,
  [
    ...(process.env.BENCH_NODE ?? "").split(" ").filter(Boolean),
    join(root, "dist/cli/main.js"),
    "--json",
    "--quiet",
    "play",
    "--port",
    "0",
  ],
  {
    cwd: folder,
    stdio: ["ignore", "pipe", "inherit"],
  },
);
process.on("exit", () => server.kill());
const base = await new Promise((resolve) => {
  let text = "";
  server.stdout.on("data", (part) => {
    text += part;
    const found = /"url": "(http:\/\/[^"/]+)/.exec(text)?.[1];
    if (found) resolve(found);
  });
});
const agent = new Agent({ keepAlive: true, maxSockets: connections });

function send({ method, path, headers, body }) {
  return new Promise((resolve, reject) => {
    const sent = request(`${base}${path}`, { method, headers, agent }, (response) => {
      let size = 0;
      response.on("data", (part) => (size += part.length));
      response.on("end", () => resolve({ status: response.statusCode, size }));
    });
    sent.on("error", reject);
    sent.end(body);
  });
}

/** Sends requests over a few connections for a while, or until there were enough. */
async function load(label, samples, until) {
  const took = [];
  const statuses = new Map();
  const startedAt = performance.now();
  let at = 0;
  const isOver = () => (until.requests ? at >= until.requests : performance.now() - startedAt > until.seconds * 1000);
  await Promise.all(
    Array.from({ length: connections }, async () => {
      while (!isOver()) {
        const sample = samples[at++ % samples.length];
        const before = performance.now();
        const { status } = await send(sample);
        took.push(performance.now() - before);
        statuses.set(status, (statuses.get(status) ?? 0) + 1);
      }
    }),
  );
  const rate = took.length / ((performance.now() - startedAt) / 1000);
  took.sort((a, b) => a - b);
  const p99 = took[Math.floor(took.length * 0.99)];
  const told = [...statuses].map(([status, count]) => `${status} x ${count}`).join(", ");
  const verdict = until.aim ? ` (aim: at least ${until.aim})${rate < until.aim ? "  MISSED" : ""}` : "";
  console.log(
    `${label.padEnd(44)} ${rate.toFixed(0).padStart(6)} requests/s${verdict}  p50 ${took[Math.floor(took.length / 2)].toFixed(1)} ms  p99 ${p99.toFixed(1)} ms  ${told}`,
  );
  return rate;
}

/** Returns the resident memory of the server, in MB. */
function memory() {
  // The command runs itself again with more memory. That process is measured.
  const children = readFileSync(`/proc/${server.pid}/task/${server.pid}/children`, "utf8").trim().split(" ");
  const [, kilobytes = "0"] =
    /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${children[0] || server.pid}/status`, "utf8")) ?? [];
  return Math.round(Number(kilobytes) / 1024);
}

const state = await (await fetch(`${base}/.play/state`)).json();
const [api, fleet] = ["api", "fleet"].map((name) => state.contracts.find((each) => each.name === name));
const fits = async (samples) => {
  const checked = [];
  for (const each of samples) if ((await send(each)).status < 300) checked.push(each);
  return checked;
};
const asRequest = ({ method, path, headers, body, mediaType }) => ({
  method,
  path,
  headers: { ...headers, ...(body ? { "content-type": mediaType } : {}) },
  body,
});
const posts = await fits(
  api.operations
    .filter(
      ({ method, mediaType, body }) => method === "POST" && mediaType === "application/json" && body.length < 1000,
    )
    .slice(0, 40)
    .map(asRequest),
);
const query = {
  method: "POST",
  path: "/fleet",
  headers: { "content-type": "application/json" },
  body: JSON.stringify({ query: makeDocument(3), variables: { id: "1" } }),
};
const queries = await fits([query, ...fleet.operations.slice(0, 40).map(asRequest)]);
console.log(
  `${api.operations.length} operations, ${fleet.operations.length} root fields; ${posts.length} kinds of POST, ${queries.length} of queries`,
);
await load("warming up", [...posts, ...queries], { seconds: 3 });
await load("validated POST, one operation", posts.slice(0, 1), { seconds, aim });
await load("validated POST, many operations", posts, { seconds, aim });
await load("validated GraphQL query, one document", queries.slice(0, 1), { seconds, aim });
await load("validated GraphQL query, many documents", queries, { seconds, aim });

// The requests that create items are as many as an app sends in an hour or more.
const figures = [];
for (let part = 0; part < 6; part++) {
  await load(`soak ${part + 1} of 6`, [...posts, ...queries], { requests: soakRequests / 6 });
  figures.push(memory());
}
const grown = figures.at(-1) - figures[1];
console.log(
  `memory after each part: ${figures.join(", ")} MB; since the second: ${grown} MB${grown > 60 ? "  MISSED" : ""}`,
);

/** Sends bytes that are not a request, each on a connection of its own. */
async function raw(bytes) {
  return new Promise((resolve) => {
    const socket = connect(Number(new URL(base).port), "127.0.0.1", () => {
      socket.write(bytes);
      setTimeout(() => socket.destroy(), 200);
    });
    socket.on("error", () => undefined);
    socket.on("close", resolve);
  });
}
const [post] = posts;
const bad = [
  "\u0000\u0001\u0002",
  "GET / HTTP/1.1\r\n",
  "GET /api/%ZZ%00 HTTP/1.1\r\nhost: x\r\n\r\n",
  `POST ${post.path} HTTP/1.1\r\nhost: x\r\ncontent-length: 99\r\ncontent-type: application/json\r\n\r\n{`,
  `POST ${post.path} HTTP/1.1\r\nhost: x\r\ntransfer-encoding: chunked\r\ncontent-type: application/json\r\n\r\nZZ\r\n`,
  `POST /fleet HTTP/1.1\r\nhost: x\r\ncontent-length: 3\r\ncontent-type: application/json\r\n\r\n{{{`,
  `GET /api/${"a".repeat(20_000)} HTTP/1.1\r\nhost: x\r\n\r\n`,
  `TRACE /api HTTP/1.1\r\nhost: x\r\n\r\n`,
  `GET /api HTTP/1.1\r\nhost: x\r\nupgrade: websocket\r\nconnection: upgrade\r\n\r\n`,
];
for (const bytes of bad) await raw(bytes);
const nested = `${"[".repeat(100_000)}${"]".repeat(100_000)}`;
for (const body of [
  "null",
  '"',
  nested,
  '{"__proto__":{"x":1}}',
  JSON.stringify({ query: `{ ${"a{".repeat(5000)} }` }),
])
  for (const path of [post.path, "/fleet"])
    await send({ method: "POST", path, headers: { "content-type": "application/json" }, body });
await load("after requests of every broken kind", posts.slice(0, 1), { seconds: 2 });
server.kill("SIGINT");
agent.destroy();
rmSync(folder, { recursive: true, force: true });
