import { spawnSync } from "node:child_process";
import { mkdirSync, readFileSync, symlinkSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { packageRoot, programPath } from "../support/packageRoot.js";
import { demoProject, TemporaryProject } from "../support/temporaryProject.js";
import { plainEnvironment } from "../support/plainEnvironment.js";

const modules = join(packageRoot, "node_modules");

/** Our packages next to the program, where a project would have installed them. */
function install(project: TemporaryProject, packages: readonly string[]): void {
  mkdirSync(project.path("node_modules/.bin"), { recursive: true });
  for (const name of packages) symlinkSync(join(modules, name), project.path(`node_modules/${name}`));
  symlinkSync(programPath, project.path("node_modules/.bin/rhema"));
  symlinkSync(join(modules, "typescript/bin/tsc"), project.path("node_modules/.bin/tsc"));
  symlinkSync(join(modules, "vite/bin/vite.js"), project.path("node_modules/.bin/vite"));
}

function npm(project: TemporaryProject, ...args: string[]): { code: number | null; said: string } {
  const { status, stdout, stderr } = spawnSync("npm", ["run", "--silent", ...args], {
    cwd: project.folder,
    encoding: "utf8",
    env: plainEnvironment(),
  });
  return { code: status, said: stdout + stderr };
}

const contract = (field: string): string =>
  `openapi: 3.1.0\ninfo: { title: Tides, version: "1" }\npaths:\n  /tide:\n    get:\n      operationId: currentTide\n      responses:\n        "200":\n          description: The tide\n          content: { application/json: { schema: { type: object, required: [${field}], properties: { ${field}: { type: number } } } } }\n`;
const app = (field: string): string =>
  `import { connectTides, currentTide } from "./sdk/tides/index.js";\nexport const shown = async (): Promise<number> => (await currentTide(connectTides({ baseUrl: "/tides" }))).${field};\nvoid shown();\n`;
const base = {
  "rhema.yaml":
    "contracts:\n  tides: { from: contracts/tides.yaml }\nsdks:\n  board: { language: typescript, covers: [tides], into: src/sdk }\n",
  "contracts/tides.yaml": contract("level"),
  "src/app.ts": app("level"),
  "tsconfig.json": JSON.stringify({
    compilerOptions: {
      target: "ES2022",
      module: "nodenext",
      strict: true,
      outDir: "built",
      rootDir: "src",
      skipLibCheck: true,
      types: [],
      lib: ["ES2022", "DOM", "DOM.Iterable"],
    },
    include: ["src"],
  }),
};
const scripts = (more: object): string =>
  JSON.stringify({ name: "board", private: true, type: "module", scripts: more });

describe("builds", () => {
  it("generate --files prints the files that are read and written, and does nothing else", async () => {
    const project = demoProject();
    const files = async (): Promise<{ inputs: string[]; watch: string[]; outputs: string[]; folders: string[] }> =>
      JSON.parse((await project.run(["generate", "--files"])).out) as never;
    expect(await files()).toMatchObject({
      outputs: [],
      folders: [".rhema", "src/sdk"],
      watch: ["queries/**/*.graphql"],
    });
    expect(project.exists("src/sdk")).toBe(false);
    await project.run(["generate"]);
    const { inputs, outputs } = await files();
    expect(inputs).toEqual(expect.arrayContaining(["rhema.yaml", "contracts/berths.yaml", "queries/fleet.graphql"]));
    expect(outputs).toEqual(expect.arrayContaining(["src/sdk/README.md", "src/sdk/berths/shapes.ts"]));
    expect(inputs.some((path) => path.startsWith("src/sdk"))).toBe(false);
  });

  it("package scripts: one build generates the SDK, and includes an edit of the contract", async () => {
    const project = new TemporaryProject({
      ...base,
      "package.json": scripts({ prebuild: "rhema generate --quiet", build: "tsc -p ." }),
    });
    install(project, ["typescript"]);
    expect(npm(project, "build")).toEqual({ code: 0, said: "" });
    project.remove("src/sdk");
    expect(npm(project, "build").code).toBe(0);
    project.write("contracts/tides.yaml", contract("height"));
    const broken = npm(project, "build");
    expect([broken.code === 0, broken.said.includes("Property 'level' does not exist")]).toEqual([false, true]);
    project.write("src/app.ts", app("height"));
    expect(npm(project, "build").code).toBe(0);
    expect((await project.run(["check"])).code).toBe(0);
  });

  it("Vite: the plugin in the docs generates before bundling", () => {
    const recipe = readFileSync(join(packageRoot, "docs/builds.md"), "utf8");
    const [, plugin = ""] = /```ts\n\/\/ vite\.config\.ts\n([^]*?)```/.exec(recipe) ?? [];
    const project = new TemporaryProject({
      ...base,
      "vite.config.ts": plugin,
      "index.html": '<script type="module" src="/src/app.ts"></script>',
      "package.json": scripts({ build: "vite build --logLevel error" }),
    });
    install(project, ["typescript", "vite"]);
    expect(npm(project, "build")).toEqual({ code: 0, said: "" });
    expect(project.exists("src/sdk/tides/index.ts")).toBe(true);
    project.write("contracts/tides.yaml", contract("level").replaceAll("/tide:", "/tide-now:"));
    expect(npm(project, "build").code).toBe(0);
    const bundle = Object.values(project.tree("dist")).join("\n");
    expect(bundle).toContain("/tide-now");
  });

  it("a contract that is built first: one build in the right order is enough, and check confirms it", async () => {
    const project = new TemporaryProject({
      ...base,
      "package.json": scripts({}),
      "backend/tides.txt": contract("level"),
    });
    const steps = {
      contract: () => {
        project.write("contracts/tides.yaml", project.read("backend/tides.txt"));
        return true;
      },
      sdk: async () => (await project.run(["generate", "--quiet"])).code === 0,
      app: () => project.compile() === "",
    };
    /** Runs scripts like `&&`. */
    const build = async (...order: (keyof typeof steps)[]): Promise<boolean> => {
      for (const step of order) if (!(await steps[step]())) return false;
      return true;
    };
    const change = (from: string, to: string): void => {
      for (const path of ["backend/tides.txt", "src/app.ts"])
        project.write(path, project.read(path).replaceAll(from, to));
    };
    expect(await build("contract", "sdk", "app")).toBe(true);
    change("currentTide", "tideNow");
    project.remove("src/sdk");
    project.remove("contracts");
    expect(await build("contract", "sdk", "app")).toBe(true);
    expect((await project.run(["check"])).code).toBe(0);
    // The trap: the SDK is made from yesterday's contract, and only check sees it at once.
    change("tideNow", "tideToday");
    expect(await build("sdk", "contract", "app")).toBe(false);
    expect((await project.run(["check"])).code).toBe(1);
  });
});
