import { cpSync, mkdirSync, readFileSync, readdirSync, renameSync, symlinkSync } from "node:fs";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import { execFile } from "node:child_process";
import { promisify } from "node:util";
import { expect, it } from "vitest";
import { packageRoot } from "../support/packageRoot.js";
import { runNode } from "../support/runNode.js";
import { plainEnvironment } from "../support/plainEnvironment.js";
import { TemporaryProject } from "../support/temporaryProject.js";
import { shownFiles } from "./support/shownFiles.js";

/** The first component of an app that is written as functions. */
const functions = `import { FreeBerths } from "./FreeBerths.tsx";
import { Notes } from "./Notes.tsx";

export default function App() {
  return (
    <>
      <FreeBerths status="free" />
      <Notes />
    </>
  );
}
`;

/** Angular's template, without the parts that need a network. */
const unasked = ["--ssr=false", "--skip-install", "--skip-git"];

/** The program inside Angular's package that writes the template. */
const angularCommand = join(packageRoot, "node_modules/@angular/cli/bin/ng.js");

interface Framework {
  /** Writes the template into the folder of a project. */
  readonly template: (project: TemporaryProject) => Promise<unknown>;
  /** The first component of the app, by its path in the template. */
  readonly first: readonly [path: string, text: string];
  /** The file for the unit test, and the command that runs it. */
  readonly unit: readonly [path: string, ...args: string[]];
  /** The template's scripts that check the project. */
  readonly scripts: readonly string[];
  /** The folder of the built scripts. */
  readonly built: string;
}

const ofVite = (name: string): Pick<Framework, "template" | "unit" | "built"> => ({
  template: (project) => {
    cpSync(join(packageRoot, "node_modules/create-vite", `template-${name}-ts`), project.folder, { recursive: true });
    renameSync(project.path("_gitignore"), project.path(".gitignore"));
    return Promise.resolve();
  },
  unit: ["src/berths.test.ts", "exec", "--", "vitest", "run", "--root", ".", "--environment", "node"],
  built: "dist/assets",
});

const frameworks: Readonly<Record<string, Framework>> = {
  angular: {
    template: (project) =>
      runNode(
        project.folder,
        [angularCommand, "new", "quay", "--directory=.", "--defaults", "--style=css", "--routing=false", ...unasked],
        { NG_CLI_ANALYTICS: "false", CI: "true" },
      ),
    first: [
      "src/app/app.ts",
      'import { Component } from "@angular/core";\nimport { FreeBerths } from "../freeBerths.js";\nimport { Notes } from "../notes.js";\n\n@Component({\n  selector: "app-root",\n  imports: [FreeBerths, Notes],\n  template: `<free-berths status="free" /><berth-notes />`,\n})\nexport class App {}\n',
    ],
    unit: ["src/app/app.spec.ts", "run", "test", "--", "--no-watch"],
    scripts: ["build"],
    built: "dist/quay/browser",
  },
  react: { ...ofVite("react"), first: ["src/App.tsx", functions], scripts: ["build", "lint"] },
  solid: { ...ofVite("solid"), first: ["src/App.tsx", functions], scripts: ["build"] },
  svelte: {
    ...ofVite("svelte"),
    first: [
      "src/App.svelte",
      '<script lang="ts">\n  import FreeBerths from "./FreeBerths.svelte";\n  import Notes from "./Notes.svelte";\n</script>\n\n<FreeBerths status="free" />\n<Notes />\n',
    ],
    scripts: ["check", "build"],
  },
  vue: {
    ...ofVite("vue"),
    first: [
      "src/App.vue",
      '<script setup lang="ts">\nimport FreeBerths from "./FreeBerths.vue";\nimport Notes from "./Notes.vue";\n</script>\n\n<template>\n  <FreeBerths status="free" />\n  <Notes />\n</template>\n',
    ],
    scripts: ["build"],
  },
};

/** A unit test as in an app: the screen's calls with a fake connection. */
const unitTest = `import { expect, it } from "vitest";
import { cachedBerths } from "./sdk/berths/cached";
import { fakeBerths, sampleBerthPage } from "./sdk/berths/testing";

it("asks for free berths", async () => {
  const { connection, requests } = fakeBerths({ listBerths: sampleBerthPage({ items: [] }) });
  const { queryFn } = cachedBerths(connection).listBerths({ status: ["free"] });
  expect((await queryFn({})).items).toEqual([]);
  expect(requests.map(({ url }) => url.search)).toEqual(["?status=free"]);
});
`;

/** A folder of packages for this project, in which programs may cache files. */
function linkPackages(project: TemporaryProject): void {
  const link = (from: string, to: string): void => {
    symlinkSync(join(packageRoot, from), project.path(`node_modules/${to}`));
  };
  const names = (folder: string): string[] => readdirSync(join(packageRoot, folder));
  mkdirSync(project.path("node_modules/.bin"), { recursive: true });
  for (const name of names("node_modules")) if (!name.startsWith(".")) link(`node_modules/${name}`, name);
  for (const name of names("node_modules/.bin")) link(`node_modules/.bin/${name}`, `.bin/${name}`);
  link("", "rhema");
  link("dist/cli/main.js", ".bin/rhema");
}

async function npm(project: TemporaryProject, ...args: string[]): Promise<string> {
  const env = plainEnvironment({ CI: "true" });
  const said = await promisify(execFile)("npm", args, { cwd: project.folder, env }).catch(
    (error: unknown) => error as { stdout: string; stderr: string },
  );
  return "message" in said ? `failed: ${said.stdout}\n${said.stderr}` : said.stdout;
}

it.each(Object.entries(frameworks))(
  "a fresh project with %s builds from its template without an error or warning",
  async (framework, { template, first: [path, text], unit: [test, ...testing], scripts, built }) => {
    const project = new TemporaryProject();
    await template(project);
    cpSync(join(packageRoot, "demo/contracts/v1"), project.path("contracts"), { recursive: true });
    for (const name of ["live-arrivals", "voyage-line"])
      cpSync(join(packageRoot, `demo/app/queries/${name}.graphql`), project.path(`src/queries/${name}.graphql`));
    linkPackages(project);
    expect((await project.run(["init", "--yes"])).code).toBe(0);
    const configuration = project.read("rhema.yaml");
    expect(configuration).toContain("into: src/");
    const into = /into: (\S+)/.exec(configuration)?.[1] ?? "";
    project.write(
      "rhema.yaml",
      configuration
        .replace(/^ +# settings: .*$/m, `    settings: { views: ${framework}, fragments: sealed, testing: true }`)
        .replace(/queries: \[.*\]/, 'queries: ["src/**/*.{graphql,ts,tsx,vue,svelte}"]')
        .replace(`into: ${into}`, "into: src/sdk"),
    );
    for (const [shown, code] of Object.entries(shownFiles(framework))) project.write(shown, code);
    project.write(path, text);
    project.write(test, unitTest.replaceAll("./sdk", test.startsWith("src/app/") ? "../sdk" : "./sdk"));
    const { code, err } = await project.run(["generate"]);
    expect([code, code === 0 ? "" : err]).toEqual([0, ""]);
    for (const script of scripts)
      expect(await npm(project, "run", script)).not.toMatch(/^failed|(?<!\b0 )(?:warning|error)/im);
    expect(await npm(project, ...testing)).toMatch(/Tests +1 passed/);
    const assets = readdirSync(project.path(built)).filter((name) => name.endsWith(".js"));
    const size = assets.reduce((sum, name) => sum + gzipSync(readFileSync(project.path(`${built}/${name}`))).length, 0);
    process.stdout.write(`${framework}: ${(size / 1024).toFixed(1)} KB of script, gzipped\n`);
    expect(assets.length).toBeGreaterThan(0);
  },
);
