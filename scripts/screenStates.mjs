// The screens of docs/screens/react.md in each of their states, next to each other, on one page.
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { spawnSync } from "node:child_process";
import { createServer } from "node:http";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { build } from "esbuild";

/** The name of each screen, its component, and the override for the stand-in server. */
const screens = [
  ["loading", "FreeBerths", "delay=60000"],
  ["failed", "FreeBerths", "status=401"],
  ["empty", "FreeBerths", "items=0"],
  ["ready", "FreeBerths", ""],
  ["predicted", "Notes", ""],
];

const harbour = (standin) => `import { cachedBerths } from "./sdk/berths/cached.js";
import { connectBerths } from "./sdk/berths/index.js";
import { cachedPassages } from "./sdk/passages/cached.js";
import { connectPassages } from "./sdk/passages/index.js";

window.override = new URLSearchParams(location.search).get("override") ?? "";
const headers = () => (window.override === "" ? {} : { "rhema-play": window.override });
export const harbour = connectBerths({ baseUrl: "${standin}/berths", auth: { harbourToken: "made-up" }, headers, init: { cache: "no-store" } });
export const berths = cachedBerths(harbour);
export const passages = cachedPassages(connectPassages({ baseUrl: "${standin}/passages" }));
`;

const main = `import { createRoot } from "react-dom/client";
import { FreeBerths } from "./FreeBerths.js";
import { Notes } from "./Notes.js";

const asked = new URLSearchParams(location.search);
const isNotes = asked.get("screen") === "Notes";
createRoot(document.body).render(isNotes ? <Notes /> : <FreeBerths status="free" />);
// A change that is pending: its expected effect on the list is shown.
if (isNotes)
  setTimeout(() => {
    window.override = "delay=60000";
    document.querySelector("button").click();
  }, 1500);
`;

const style = `body { margin: 1.2rem; font: 16px/1.5 system-ui, sans-serif; color: #1d2a35; }
main { display: grid; grid-template-columns: repeat(5, 1fr); gap: 0.8rem; }
h2 { margin: 0 0 0.3rem; font-size: 1rem; }
iframe { width: 100%; height: 600px; border: 1px solid #d5dde3; border-radius: 8px; }
button { display: block; margin: 0.3rem 0; font: inherit; }
ul { padding-left: 1.2rem; }`;

/**
 * Serves the page. @param standin the address of the stand-in server @returns the page's address, and a function that
 * ends it
 */
export async function serveScreenStates(root, standin) {
  const folder = mkdtempSync(join(tmpdir(), "rhema-screens-"));
  cpSync(join(root, "demo/app"), folder, { recursive: true });
  cpSync(join(root, "demo/contracts/v1"), join(folder, "contracts"), { recursive: true });
  symlinkSync(join(root, "node_modules"), join(folder, "node_modules"));
  const write = (path, text) => {
    mkdirSync(dirname(join(folder, path)), { recursive: true });
    writeFileSync(join(folder, path), text);
  };
  const shown = readFileSync(join(root, "docs/screens/react.md"), "utf8");
  for (const [, path, code] of shown.matchAll(/^```tsx?\n\/\/ (src\/\S+)\n([^]*?)^```$/gm)) write(path, code);
  write("src/harbour.ts", harbour(standin));
  write("src/screens.tsx", main);
  const configuration = readFileSync(join(folder, "rhema.yaml"), "utf8").replace("{ dates: text }", "{ views: react }");
  write("rhema.yaml", configuration);
  spawnSync(process.execPath, [join(root, "dist/cli/main.js"), "generate", "--quiet"], { cwd: folder });
  const entry = { entryPoints: [join(folder, "src/screens.tsx")], bundle: true, write: false, format: "esm" };
  const { outputFiles } = await build({
    ...entry,
    jsx: "automatic",
    define: { "process.env.NODE_ENV": '"production"' },
  });
  const frames = screens.map(
    ([name, screen, override]) =>
      `<section><h2>${name}</h2><iframe src="/screen?${new URLSearchParams({ screen, override })}"></iframe></section>`,
  );
  const head = `<!doctype html><meta charset="utf-8"><title>Screens</title><style>${style}</style>`;
  const pages = {
    "/": `${head}<main>${frames.join("")}</main>`,
    "/screen": `${head}<body><script type="module" src="/screens.js"></script>`,
    "/screens.js": outputFiles[0].text,
  };
  const server = createServer(({ url }, response) => {
    const path = new URL(url, "http://localhost").pathname;
    const type = path.endsWith(".js") ? "text/javascript" : "text/html";
    response.writeHead(path in pages ? 200 : 404, { "content-type": type }).end(pages[path]);
  });
  await new Promise((resolve) => server.listen(0, "127.0.0.1", resolve));
  return {
    address: `http://127.0.0.1:${server.address().port}/`,
    end: () => {
      server.closeAllConnections();
      server.close();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
