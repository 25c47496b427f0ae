import { execFileSync, spawnSync } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync, symlinkSync } from "node:fs";
import { dirname, join } from "node:path";
import { beforeAll, describe, expect, it } from "vitest";
import { packageRoot } from "../support/packageRoot.js";
import { runNode } from "../support/runNode.js";
import { TemporaryProject } from "../support/temporaryProject.js";
import { plainEnvironment } from "../support/plainEnvironment.js";

/** Packs the package, and unpacks it where a project has it installed, with only the packages it depends on. */
function installed(project: TemporaryProject, others: readonly string[] = []): string {
  const folder = project.path("node_modules/rhema");
  mkdirSync(folder, { recursive: true });
  execFileSync("tar", ["-xzf", join(packageRoot, packed), "-C", folder, "--strip-components=1"]);
  const { dependencies } = JSON.parse(readFileSync(join(folder, "package.json"), "utf8")) as { dependencies: object };
  for (const name of [...Object.keys(dependencies), ...others])
    symlinkSync(join(packageRoot, "node_modules", name), project.path(`node_modules/${name}`));
  return folder;
}

/** The folder of the packed package, in the project. */
const packed = "node_modules/.cache/rhema-packed.tgz";
let paths: readonly string[] = [];

beforeAll(() => {
  const to = join(packageRoot, dirname(packed));
  mkdirSync(to, { recursive: true });
  const args = ["pack", "--json", "--ignore-scripts", "--pack-destination", to];
  const [listed] = JSON.parse(execFileSync("npm", args, { cwd: packageRoot, encoding: "utf8" })) as {
    filename: string;
    files: { path: string }[];
  }[];
  execFileSync("mv", [join(to, listed?.filename ?? ""), join(packageRoot, packed)]);
  paths = listed?.files.map(({ path }) => path) ?? [];
});

describe("the package", () => {
  it("contains what it needs, what its README links to, and no sources or tests", () => {
    for (const path of [
      "LICENSE",
      "dist/THIRD-PARTY-LICENCES.txt",
      "dist/cli/main.js",
      "dist/cli/program.cjs.map",
      "dist/core/index.js",
      "dist/types/core/index.d.ts",
      "runtimes/typescript/wire/send.ts",
      "schema/rhema.schema.json",
      "demo/app/rhema.yaml",
      "demo/contracts/v2/berths.yaml",
    ])
      expect(paths).toContain(path);
    expect(paths.filter((path) => /^(test|src|bench|scripts|truth)\//.test(path))).toEqual([]);
    for (const page of ["README.md", ...paths.filter((path) => path.startsWith("docs/") && path.endsWith(".md"))])
      for (const [, target = ""] of readFileSync(join(packageRoot, page), "utf8").matchAll(
        /\]\((?!https?:)([^)#]+)[^)]*\)/g,
      ))
        expect(paths, page).toContain(join(dirname(page), target));
  });

  it("has the licence of every bundled package", () => {
    const notices = readFileSync(join(packageRoot, "dist/THIRD-PARTY-LICENCES.txt"), "utf8");
    const maps = ["cli/program.cjs.map", "core/index.js.map"].map((file) => join(packageRoot, "dist", file));
    const sources = maps.flatMap((file) => (JSON.parse(readFileSync(file, "utf8")) as { sources: string[] }).sources);
    const names = new Set(sources.flatMap((path) => /node_modules\/((?:@[^/]+\/)?[^/]+)/.exec(path)?.[1] ?? []));
    expect(names.size).toBeGreaterThan(15);
    // Source maps of packages that were made from several name files that are not installed.
    const isInstalled = (name: string): boolean => existsSync(join(packageRoot, "node_modules", name, "package.json"));
    for (const name of [...names].filter(isInstalled)) expect(notices).toMatch(new RegExp(`^${name} \\d`, "m"));
    expect(sources.filter((path) => path.includes("core/index") && path.includes("node_modules/graphql/"))).toEqual([]);
  });

  it("runs the whole demo with nothing else installed", () => {
    const project = new TemporaryProject();
    const folder = installed(project);
    expect(readdirSync(project.path("node_modules")).sort()).toEqual(["rhema", "typescript"]);
    const options = { cwd: project.folder, encoding: "utf8", env: plainEnvironment() } as const;
    const { status, stdout, stderr } = spawnSync(process.execPath, [join(folder, "dist/cli/main.js"), "demo"], options);
    expect([status, stderr]).toEqual([0, ""]);
    for (const text of [
      "generate: quay-board written",
      "already up to date",
      "impact: ",
      "not written, see the 4 errors above",
      "check: 1 SDK up to date",
      "ARRIVALS",
      "reserved N-07",
    ])
      expect(stdout).toContain(text);
    const made = /cd (\S+)\s*$/.exec(stdout)?.[1] ?? "";
    expect(existsSync(join(made, "src/sdk/README.md"))).toBe(true);
    rmSync(made, { recursive: true });
  });

  it("has a demo that fails if one of its commands fails", () => {
    const project = new TemporaryProject();
    const folder = installed(project);
    project.write("node_modules/rhema/demo/contracts/v1/berths.yaml", "openapi: 3.1.0\npaths: {");
    const broken = spawnSync(process.execPath, [join(folder, "dist/cli/main.js"), "demo"], { encoding: "utf8" });
    expect([broken.status, broken.stderr]).toEqual([
      1,
      expect.stringContaining("`rhema generate` ended with 3. The demo expected 0."),
    ]);
  });
});

describe("the core as a library", () => {
  const page = readFileSync(join(packageRoot, "docs/library.md"), "utf8");
  const examples = [...page.matchAll(/## ([^\n]+)\n[^#]*?```js\n([^]*?)```\n\n```text\n([^]*?)```/g)];

  it("has examples", () => {
    expect(examples).toHaveLength(4);
  });

  it.each(examples.map(([, title = "", code = "", printed = ""]) => [title, code, printed] as const))(
    "%s",
    async (_title, code, printed) => {
      const project = new TemporaryProject({ "package.json": '{ "type": "module" }', "example.js": code });
      installed(project, ["graphql"]);
      expect(await runNode(project.folder, ["example.js"])).toBe(printed);
    },
  );
});
