import { readFileSync, symlinkSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { build, type BuildOptions } from "esbuild";
import { BrowserPage } from "../../support/chromium.js";
import { listening } from "../../support/listening.js";
import { packageRoot } from "../../support/packageRoot.js";
import { demoProject, type TemporaryProject } from "../../support/temporaryProject.js";
import { whenTestEnds } from "../../support/whenTestEnds.js";

/**
 * The demo's project with some source files, the packages of this one, and an SDK with some settings.
 *
 * @param configured other changes of its configuration
 */
export async function appProject(
  files: Readonly<Record<string, string>>,
  settings: string,
  configured = (config: string): string => config,
): Promise<TemporaryProject> {
  const project = demoProject();
  project.remove("src");
  for (const [path, text] of Object.entries(files)) project.write(path, text);
  project.write("rhema.yaml", configured(project.read("rhema.yaml").replace("{ dates: text }", settings)));
  symlinkSync(join(packageRoot, "node_modules"), project.path("node_modules"));
  const { code, err } = await project.run(["generate"]);
  if (code !== 0) throw new Error(err);
  return project;
}

/** A longer time means that it never comes. */
const longestMs = 20_000;

/** An app in a browser, with the stand-in server for its requests. */
export interface OpenedApp {
  readonly page: BrowserPage;
  /** Waits until an element, by its id, shows a text. */
  readonly says: (id: string, text: string | RegExp) => Promise<void>;
  readonly textOf: (id: string) => Promise<string>;
  readonly click: (id: string) => Promise<void>;
  /** The requests so far, as "GET /berths/berths"; one that the app cancelled has " given up" after it. */
  readonly requests: () => Promise<string[]>;
}

/** Renders the inside of a page on a server, for a request with some cookies. */
export type Render = (address: string, cookie: string) => Promise<string>;

/** Loads a module of an app like a server: packages stay outside of its bundle. */
export async function serverModule<Exports>(project: TemporaryProject, entry: string): Promise<Exports> {
  const outfile = project.path("server.mjs");
  await build({
    ...{ entryPoints: [project.path(entry)], outfile, bundle: true, format: "esm", logLevel: "error" },
    ...{ platform: "node", packages: "external", jsx: "automatic" },
  });
  return (await import(pathToFileURL(outfile).href)) as Exports;
}

/**
 * Bundles an app, serves it as a page with an element `app`, and opens it. The page's `address` is the stand-in
 * server's, by another name than a server has for it.
 *
 * @param render returns the page's content before its script runs
 * @param how further options of the bundler
 */
export async function openedApp(
  project: TemporaryProject,
  entry: string,
  { render, how }: { readonly render?: Render; readonly how?: BuildOptions } = {},
): Promise<OpenedApp> {
  const outfile = project.path("app.js");
  await build({
    ...{ entryPoints: [project.path(entry)], outfile, bundle: true, format: "esm", logLevel: "error" },
    jsx: "automatic",
    ...how,
    define: { "process.env.NODE_ENV": '"development"', __VUE_OPTIONS_API__: "true", __VUE_PROD_DEVTOOLS__: "false" },
  });
  const address = await project.play(["--seed", "7"]);
  const inBrowser = address.replace("127.0.0.1", "localhost");
  const inside = (await render?.(address, "visitor=skipper")) ?? '<div id="app"></div>';
  const html = `<!doctype html><meta charset="utf-8">${inside}<script>window.address = ${JSON.stringify(inBrowser)}; window.asked = [];
    const plain = window.fetch;
    window.fetch = (input, init) => {
      const at = new URL(input instanceof Request ? input.url : input);
      const number = window.asked.push((init?.method ?? "GET") + " " + at.pathname + at.search) - 1;
      init?.signal?.addEventListener("abort", () => { window.asked[number] += " given up"; });
      return plain(input, init);
    };
  </script><script type="module" src="/app.js"></script>`;
  const at = await listening((request, response) => {
    const isScript = request.url === "/app.js";
    response.writeHead(200, { "content-type": isScript ? "text/javascript" : "text/html" });
    response.end(isScript ? readFileSync(outfile) : html);
  });
  const page = await BrowserPage.open(`${at}/`);
  whenTestEnds(() => page.close());
  const textOf = async (id: string): Promise<string> =>
    String(await page.evaluate(`document.getElementById(${JSON.stringify(id)})?.innerText ?? "(none)"`));
  return {
    page,
    textOf,
    says: async (id, text) => {
      let said = "";
      for (const until = Date.now() + longestMs; Date.now() < until;) {
        said = await textOf(id);
        if (typeof text === "string" ? said.includes(text) : text.test(said)) return;
        await new Promise((resolve) => setTimeout(resolve, 20));
      }
      const shown = String(await page.evaluate("document.body.innerText"));
      throw new Error(`${id} never said ${String(text)}, but ${said}; the page: ${shown}`);
    },
    click: async (id) => {
      await page.evaluate(`document.getElementById(${JSON.stringify(id)}).click()`);
    },
    requests: async () => (await page.evaluate("window.asked")) as string[],
  };
}
