// Takes docs/screenshots/ from the demo: real commands in a real terminal window (xterm under Xvfb), 1280x800. Needs
// Xvfb, xterm, ImageMagick's import and Chromium, all in Debian. Nothing else in the project needs them.
import { execFileSync, spawn, spawnSync } from "node:child_process";
import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:http";
import { tmpdir } from "node:os";
import { extname, join } from "node:path";
import { fileURLToPath } from "node:url";
import WebSocket from "ws";
import { serveScreenStates } from "./screenStates.mjs";

const root = fileURLToPath(new URL("..", import.meta.url));
const program = join(root, "dist/cli/main.js");
const out = join(root, "docs/screenshots");
const display = ":77";
mkdirSync(out, { recursive: true });

const folder = mkdtempSync(join(tmpdir(), "rhema-shots-"));
cpSync(join(root, "demo/app"), folder, { recursive: true });
const contracts = (version) =>
  cpSync(join(root, "demo/contracts", version), join(folder, "contracts"), { recursive: true });
const rhema = (...args) => spawnSync(process.execPath, [program, ...args], { cwd: folder });
const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

const server = spawn("Xvfb", [display, "-screen", "0", "1280x800x24"], { stdio: "ignore" });
await pause(1500);

async function shoot(name, shown, command, waitMs = 3500, geometry = "114x41") {
  const script = join(folder, "shot.sh");
  writeFileSync(script, `cd ${folder}\nclear\nprintf '$ ${shown}\\n'\n${command}\nsleep 60\n`);
  const env = { ...process.env, DISPLAY: display, FORCE_COLOR: "1", TERM: "xterm-256color", RHEMA: program };
  const terminal = spawn(
    "xterm",
    [
      "-geometry",
      `${geometry}+0+0`,
      "-fa",
      "DejaVu Sans Mono",
      "-fs",
      "13",
      "-bg",
      "#14181d",
      "-fg",
      "#dfe5ea",
      "-b",
      "14",
      "-bc",
      "-e",
      "bash",
      script,
    ],
    { env, stdio: "ignore" },
  );
  await pause(waitMs);
  execFileSync("import", ["-display", display, "-window", "root", join(out, `${name}.png`)]);
  terminal.kill();
  await pause(300);
}

/** Takes a page in Debian's Chromium, in light (1) or dark (0). */
function browse(name, page, scheme) {
  const quiet = ["--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update"];
  const profile = mkdtempSync(join(tmpdir(), "rhema-browser-"));
  const shot = [`--screenshot=${join(out, `${name}.png`)}`, "--window-size=1280,800", "--hide-scrollbars"];
  const look = [`--blink-settings=preferredColorScheme=${scheme}`, `--user-data-dir=${profile}`];
  spawnSync("chromium", [
    "--headless=new",
    "--no-sandbox",
    "--disable-gpu",
    ...quiet,
    ...shot,
    ...look,
    `file://${page}`,
  ]);
  rmSync(profile, { recursive: true, force: true });
}

/** Takes the demo's page without a build step, with its SDK in JavaScript, from a file server. */
async function browsePlainPage(standin) {
  const site = mkdtempSync(join(tmpdir(), "rhema-page-"));
  cpSync(join(root, "demo/contracts"), join(site, "contracts"), { recursive: true });
  cpSync(join(root, "demo/page"), join(site, "page"), { recursive: true });
  spawnSync(process.execPath, [program, "generate", "--quiet"], { cwd: join(site, "page") });
  const types = { ".html": "text/html", ".js": "text/javascript" };
  const files = createServer(({ url }, response) => {
    const path = join(site, "page", url === "/" ? "index.html" : url);
    if (!existsSync(path)) return response.writeHead(404).end();
    const body = readFileSync(path, "utf8").replace("http://localhost:4020", standin);
    response.writeHead(200, { "content-type": types[extname(path)] ?? "text/plain" }).end(body);
  });
  await new Promise((resolve) => files.listen(0, "127.0.0.1", resolve));
  await browseLive("plain-page", `http://127.0.0.1:${files.address().port}/`, 1);
  files.closeAllConnections();
  files.close();
  rmSync(site, { recursive: true, force: true });
}

/** Takes a page with continuous updates, which never finishes loading: after a while, over DevTools. */
async function browseLive(name, url, scheme) {
  const profile = mkdtempSync(join(tmpdir(), "rhema-browser-"));
  const flags = [
    "--headless=new",
    "--no-sandbox",
    "--disable-gpu",
    "--no-first-run",
    "--disable-background-networking",
    "--hide-scrollbars",
  ];
  const browser = spawn(
    "chromium",
    [
      ...flags,
      "--window-size=1280,800",
      "--remote-debugging-port=9333",
      `--user-data-dir=${profile}`,
      `--blink-settings=preferredColorScheme=${scheme}`,
      url,
    ],
    { stdio: "ignore" },
  );
  await pause(5000);
  const targets = await (await fetch("http://127.0.0.1:9333/json")).json();
  const socket = new WebSocket(targets.find(({ type }) => type === "page").webSocketDebuggerUrl);
  await new Promise((resolve) => socket.once("open", resolve));
  const ask = (id, method, params = {}) =>
    new Promise((resolve) => {
      socket.on("message", (data) => {
        const answer = JSON.parse(String(data));
        if (answer.id === id) resolve(answer.result);
      });
      socket.send(JSON.stringify({ id, method, params }));
    });
  const open =
    "for (const each of [document.querySelectorAll('#operations details')[3], document.querySelectorAll('#calls details')[2]]) if (each) each.open = true";
  await ask(1, "Runtime.evaluate", { expression: open });
  await pause(500);
  const { data } = await ask(2, "Page.captureScreenshot", { format: "png" });
  writeFileSync(join(out, `${name}.png`), Buffer.from(data, "base64"));
  socket.close();
  browser.kill("SIGKILL");
  await pause(500);
  rmSync(profile, { recursive: true, force: true, maxRetries: 20, retryDelay: 100 });
}

try {
  const node = `${process.execPath} $RHEMA`;
  contracts("v1");
  await shoot("generate", "rhema generate", `${node} generate`);
  await shoot("check", "rhema check", `${node} check`);
  await shoot(
    "play",
    "rhema play",
    `${node} play --port 4020 &\nsleep 2\ncurl -s 'http://127.0.0.1:4020/berths/berths/N-07' | head -c 300; echo\ncurl -s 'http://127.0.0.1:4020/berths/berths?pageSize=900' | head -c 320; echo\ncurl -s -X POST http://127.0.0.1:4020/passages -H 'content-type: application/json' -d '{"query":"{ ports { id name country } }"}' | head -c 300; echo`,
    6000,
  );
  const fresh = mkdtempSync(join(tmpdir(), "rhema-fresh-"));
  cpSync(join(root, "demo/contracts/v1"), join(fresh, "contracts"), { recursive: true });
  mkdirSync(join(fresh, "src"));
  writeFileSync(
    join(fresh, "package.json"),
    '{ "name": "quay-board", "scripts": { "dev": "vite", "build": "tsc && vite build" }, "dependencies": { "vue": "^3.5.0" } }\n',
  );
  await shoot("init", "rhema init --yes", `cd ${fresh} && ${node} init --yes; echo; cat rhema.yaml`);
  rmSync(fresh, { recursive: true, force: true });
  await shoot(
    "outline",
    "rhema outline berths | head -14; rhema outline --about reserveBerth | head -21",
    `${node} outline berths | head -14; ${node} outline --about reserveBerth | head -21`,
    7000,
  );
  await shoot(
    "try",
    "rhema try reserveBerth berthId=N-07 body.crew=3",
    `${node} try reserveBerth berthId=N-07 body.crew=3`,
    5000,
  );
  await shoot("explain", "rhema explain answer.field.renamed", `${node} explain answer.field.renamed`);
  await shoot(
    "watch",
    "rhema watch",
    `cp contracts/berths.yaml /tmp/berths.kept; ${node} watch & sleep 4; sed -i 's/        note: { type: string,/        notes: { type: string,/' contracts/berths.yaml; sleep 4; printf '{' > contracts/passages.graphql.new; cp contracts/passages.graphql /tmp/passages.kept; printf 'type Query {' > contracts/passages.graphql; sleep 3; cp /tmp/berths.kept contracts/berths.yaml; cp /tmp/passages.kept contracts/passages.graphql; rm -f contracts/passages.graphql.new`,
    14_000,
  );
  contracts("v1");
  await shoot(
    "observe",
    "rhema observe http://localhost:4020/berths --contract berths",
    `${node} play --quiet --no-auth --port 4020 & sleep 2; ${node} observe http://127.0.0.1:4020/berths --contract berths --for 6 & sleep 2; at=http://127.0.0.1:4021; curl -s "$at/berths?pageSize=900" >/dev/null; curl -s "$at/berths/N-07" -H 'authorization: Bearer x' >/dev/null; curl -s "$at/berth/N-07" >/dev/null; curl -s -X POST "$at/berths/N-07/reservations" -H 'content-type: application/json' -H 'authorization: Bearer x' -d '{"vesselId":"v-12"}' >/dev/null; wait %2`,
    12_000,
  );
  const player = spawn(process.execPath, [program, "--quiet", "play", "--port", "4022"], {
    cwd: folder,
    stdio: "ignore",
  });
  try {
    await pause(2500);
    const at = "http://127.0.0.1:4022";
    const headers = { authorization: "Bearer any", "content-type": "application/json" };
    const send = (path, body) =>
      fetch(at + path, { method: body ? "POST" : "GET", headers, ...(body ? { body: JSON.stringify(body) } : {}) });
    await send("/berths/berths/N-07");
    await send("/berths/berths?pageSize=900");
    await send("/berths/berths/N-07/reservations", {
      vesselId: "v-12",
      arrival: "2031-05-01",
      departure: "2031-05-03",
    });
    await send("/passages", { query: "{ ports { id name } }" });
    await send("/passages", { query: "{ ports { id nmae } }" });
    await browseLive("play-page", `${at}/`, 1);
    await browsePlainPage(at);
    const screens = await serveScreenStates(root, at);
    await browseLive("screen-states", screens.address, 1);
    screens.end();
  } finally {
    player.kill();
  }
  // Queries in source files, with typical errors.
  const queries = join(folder, "queries");
  const fragment = readFileSync(join(queries, "voyage-line.graphql"), "utf8");
  writeFileSync(join(queries, "voyage-line.graphql"), fragment.replace("status", "state"));
  writeFileSync(
    join(folder, "src/Crew.vue"),
    '<script setup lang="ts">\nimport { gql } from "./graphql.js";\nconst crew = gql`\n  query CrewList {\n    crew(role: SKIPER) { ${fields} }\n  }`;\n</script>\n',
  );
  writeFileSync(join(queries, "ports.graphql"), "query Ports {\n  ports { id name\n}\n");
  const configuration = readFileSync(join(folder, "rhema.yaml"), "utf8");
  writeFileSync(
    join(folder, "rhema.yaml"),
    configuration.replace('["queries/**/*.graphql"]', '["queries/**/*.graphql", "src/**/*.vue"]'),
  );
  await shoot("faulty-queries", "rhema check", `${node} check`, 3500, "80x44");
  writeFileSync(join(queries, "voyage-line.graphql"), fragment);
  writeFileSync(join(folder, "rhema.yaml"), configuration);
  for (const path of ["queries/ports.graphql", "src/Crew.vue"]) rmSync(join(folder, path));
  contracts("v2");
  await shoot("impact", "rhema impact | head -38", `${node} impact 2>&1 | head -38`, 7000);
  await shoot(
    "proved",
    "rhema impact berths --prove | head -38",
    `${node} impact berths --prove 2>&1 | head -38`,
    7000,
  );
  const page = join(folder, "impact.html");
  writeFileSync(page, rhema("impact", "--prove", "--report", "html").stdout);
  browse("impact-page", page, 1);
  cpSync(join(root, "demo/app-v2"), folder, { recursive: true });
  rhema("generate");
  // A contract with typical errors.
  contracts("v1");
  cpSync(join(root, "demo/app"), folder, { recursive: true });
  rhema("generate");
  const broken = readFileSync(join(root, "demo/contracts/v1/berths.yaml"), "utf8")
    .replace('"#/components/schemas/Tariff"', '"#/components/schemas/Tarif"')
    .replace("in: query", "in: Query")
    .replace("type: number", "type: Number")
    .replace("\n  /tides/", "\n  tides/");
  writeFileSync(join(folder, "contracts/berths.yaml"), broken);
  await shoot("broken-contract", "rhema generate", `${node} generate`, 9000);
  // The apps in Kotlin and Swift, with the second version of their contracts.
  for (const [name, app, skipped] of [
    ["impact-kotlin", "demo/skipper", 12],
    ["impact-swift", "demo/skipper-swift", 40],
  ]) {
    const skipper = mkdtempSync(join(tmpdir(), "rhema-skipper-"));
    const into = (version) =>
      cpSync(join(root, "demo/contracts", version), join(skipper, "contracts"), { recursive: true });
    cpSync(join(root, app), skipper, { recursive: true });
    into("v1");
    spawnSync(process.execPath, [program, "generate", "--quiet"], { cwd: skipper });
    into("v2");
    const command = `impact berths 2>&1 | tail -n +${skipped} | head -38`;
    await shoot(name, `rhema ${command.replace(" 2>&1", "")}`, `cd ${skipper} && ${node} ${command}`, 7000);
    rmSync(skipper, { recursive: true, force: true });
  }
} finally {
  server.kill();
}
console.log("screenshots: wrote docs/screenshots/");
