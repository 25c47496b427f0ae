import { spawn, spawnSync, type ChildProcess } from "node:child_process";
import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { afterEach } from "vitest";
import { strictest } from "./strictest.js";

export const packageRoot = fileURLToPath(new URL("../..", import.meta.url));
export const programPath = join(packageRoot, "dist/cli/main.js");

export interface Ran {
  readonly code: number | null;
  readonly out: string;
  readonly err: string;
}

const folders: string[] = [];
const children: ChildProcess[] = [];
afterEach(() => {
  for (const child of children.splice(0)) child.kill("SIGKILL");
  for (const folder of folders.splice(0)) rmSync(folder, { recursive: true, force: true });
});

/** A folder of its own for one test, removed afterwards, with the built program at hand. */
export class TemporaryProject {
  readonly folder = mkdtempSync(join(tmpdir(), "rhema-test-"));

  constructor(files: Readonly<Record<string, string>> = {}) {
    folders.push(this.folder);
    for (const [path, text] of Object.entries(files)) this.write(path, text);
  }

  path(path: string): string {
    return join(this.folder, path);
  }

  write(path: string, text: string): void {
    mkdirSync(dirname(this.path(path)), { recursive: true });
    writeFileSync(this.path(path), text);
  }

  read(path: string): string {
    return readFileSync(this.path(path), "utf8");
  }

  remove(path: string): void {
    rmSync(this.path(path), { recursive: true, force: true });
  }

  exists(path: string): boolean {
    return existsSync(this.path(path));
  }

  /** All files below a folder, path and text, sorted. */
  tree(below: string): Record<string, string> {
    const found: Record<string, string> = {};
    if (!this.exists(below)) return found;
    for (const name of (readdirSync(this.path(below), { recursive: true }) as string[]).sort()) {
      if (statSync(join(this.path(below), name)).isFile())
        found[name] = readFileSync(join(this.path(below), name), "utf8");
    }
    return found;
  }

  run(args: readonly string[], env: Readonly<Record<string, string>> = {}): Ran {
    const { FORCE_COLOR: _colour, ...rest } = process.env;
    const { status, stdout, stderr } = spawnSync(process.execPath, [programPath, ...args], {
      cwd: this.folder,
      encoding: "utf8",
      env: { ...rest, NO_COLOR: "1", ...env },
    });
    return { code: status, out: stdout, err: stderr };
  }

  /** Like `run`, while this process goes on answering. */
  async runBeside(args: readonly string[], env: Readonly<Record<string, string>> = {}): Promise<Ran> {
    const { FORCE_COLOR: _colour, ...rest } = process.env;
    const child = spawn(process.execPath, [programPath, ...args], {
      cwd: this.folder,
      env: { ...rest, NO_COLOR: "1", ...env },
    });
    let [out, err] = ["", ""];
    child.stdout.setEncoding("utf8").on("data", (part: string) => (out += part));
    child.stderr.setEncoding("utf8").on("data", (part: string) => (err += part));
    const code = await new Promise<number | null>((resolve) => child.on("close", resolve));
    return { code, out, err };
  }

  /** Type checks the folder with the settings the SDK promises to hold under; "" when it is clean. */
  compile(options: Readonly<Record<string, unknown>> = {}, include: readonly string[] = ["src"]): string {
    const compilerOptions = { ...strictest, ...options };
    this.write("tsconfig.test.json", JSON.stringify({ compilerOptions, include }));
    const { stdout } = spawnSync(
      process.execPath,
      [join(packageRoot, "node_modules/typescript/lib/tsc.js"), "-p", "tsconfig.test.json"],
      { cwd: this.folder, encoding: "utf8" },
    );
    return stdout;
  }

  /** Starts the stand-in on a free port and gives its address. */
  async play(args: readonly string[] = []): Promise<string> {
    const child = spawn(process.execPath, [programPath, "--json", "--quiet", "play", "--port", "0", ...args], {
      cwd: this.folder,
      stdio: ["ignore", "pipe", "inherit"],
    });
    children.push(child);
    return new Promise((resolve, reject) => {
      let text = "";
      child.stdout.setEncoding("utf8").on("data", (part: string) => {
        text += part;
        const found = /"url": "(http:\/\/[^"/]+)/.exec(text)?.[1];
        if (found !== undefined) resolve(found);
      });
      child.on("exit", (code) => {
        reject(new Error(`play ended with ${String(code)}: ${text}`));
      });
    });
  }
}

/** The demo's app with a version of its contracts. */
export function demoProject(version: "v1" | "v2" = "v1"): TemporaryProject {
  const project = new TemporaryProject();
  cpSync(join(packageRoot, "demo/app"), project.folder, { recursive: true });
  cpSync(join(packageRoot, "demo/contracts", version), project.path("contracts"), { recursive: true });
  return project;
}

/** A project with one REST contract given as data, and an SDK in src/sdk. */
export function restProject(contract: object | string, more: Readonly<Record<string, string>> = {}): TemporaryProject {
  return new TemporaryProject({
    "package.json": '{ "type": "module" }',
    "api.yaml": typeof contract === "string" ? contract : JSON.stringify(contract),
    "rhema.yaml":
      "contracts:\n  api:\n    from: api.yaml\nsdks:\n  app:\n    language: typescript\n    covers: [api]\n    into: src/sdk\n",
    ...more,
  });
}

/** A project with one GraphQL schema and query documents, and an SDK in src/sdk. */
export function graphqlProject(schema: string, queries: Readonly<Record<string, string>>): TemporaryProject {
  return new TemporaryProject({
    "package.json": '{ "type": "module" }',
    "schema.graphql": schema,
    "rhema.yaml":
      'contracts:\n  fleet:\n    from: schema.graphql\n    queries: ["q/**/*.graphql"]\nsdks:\n  app:\n    language: typescript\n    covers: [fleet]\n    into: src/sdk\n',
    ...Object.fromEntries(Object.entries(queries).map(([name, text]) => [`q/${name}.graphql`, text])),
  });
}
