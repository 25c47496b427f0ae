// Takes docs/screenshots/ from the demo: real commands in a real terminal window (xterm under Xvfb), 1280x800.
// Needs Xvfb, xterm, ImageMagick's import and Chromium, all in Debian; nothing else of the project does.
import { execFileSync, spawn, spawnSync } from "node:child_process";
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";

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

/** A page in Debian's Chromium, by day (1) or by night (0). */
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
  // Queries where people write them, with the mistakes they make.
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
  for (const [name, scheme] of [
    ["impact-page", 1],
    ["impact-page-dark", 0],
  ])
    browse(name, page, scheme);
  await shoot("held-back", "rhema generate", `${node} generate`, 9000);
  cpSync(join(root, "demo/app-v2"), folder, { recursive: true });
  rhema("generate");
  // A contract with the slips that real ones have.
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
} finally {
  server.kill();
}
console.log("screenshots: wrote docs/screenshots/");
