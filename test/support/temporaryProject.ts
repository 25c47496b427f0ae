import { spawnSync } from "node:child_process";
import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  realpathSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { compilerComplaints, complaintLine, folderProgram, lintComplaints } from "./compiler.js";
import { packageRoot, programPath } from "./packageRoot.js";
import { RunningProgram, type Ran, type RunningHow } from "./runningProgram.js";
import { strictest } from "./strictest.js";
import { whenTestEnds } from "./whenTestEnds.js";
import { plainEnvironment } from "./plainEnvironment.js";

/** A folder of its own for one test, which is removed afterwards, with the built program. */
export class TemporaryProject {
  /** Languages besides those of the program. */
  languages: RunningHow["languages"];
  readonly folder = mkdtempSync(join(realpathSync(tmpdir()), "rhema-test-"));

  constructor(files: Readonly<Record<string, string>> = {}) {
    whenTestEnds(() => {
      rmSync(this.folder, { recursive: true, force: true });
    });
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

  /** Runs the built program in this folder, inside this process, to its end. */
  run(args: readonly string[], env: Readonly<Record<string, string>> = {}): Promise<Ran> {
    return new RunningProgram(this.folder, args, { env, ...(this.languages ? { languages: this.languages } : {}) })
      .ended;
  }

  /** Starts a command that continues to run, inside this process. It ends with the test. */
  start(args: readonly string[], env: Readonly<Record<string, string>> = {}): RunningProgram {
    const running = new RunningProgram(this.folder, args, {
      env,
      ...(this.languages ? { languages: this.languages } : {}),
    });
    whenTestEnds(async () => {
      await running.ends();
    });
    return running;
  }

  /** Like `run`, in a process of its own, for tests of how the process starts and ends. */
  runProcess(args: readonly string[], env: Readonly<Record<string, string>> = {}): Ran {
    const { status, stdout, stderr } = spawnSync(process.execPath, [programPath, ...args], {
      cwd: this.folder,
      encoding: "utf8",
      env: plainEnvironment(env),
    });
    return { code: status, out: stdout, err: stderr };
  }

  /** Type checks the folder with the strictest settings; "" if there are no errors. */
  compile(options: Readonly<Record<string, unknown>> = {}, include: readonly string[] = ["src"]): string {
    const program = folderProgram(this.folder, { compilerOptions: { ...strictest, ...options }, include });
    return compilerComplaints(program, this.folder).map(complaintLine).join("\n");
  }

  /** Type checks the folder, and lints its SDKs by the strict typed rules, with a line for each error. */
  compileAndLint(options: Readonly<Record<string, unknown>> = {}): string[] {
    const program = folderProgram(this.folder, { compilerOptions: { ...strictest, ...options }, include: ["src"] });
    const code = Object.entries(this.tree("src/sdk")).filter(([path]) => path.endsWith(".ts"));
    if (code.length === 0) throw new Error("Nothing was linted.");
    const files = new Map(code.map(([path, text]) => [`src/sdk/${path}`, text]));
    const complaints = [...compilerComplaints(program, this.folder), ...lintComplaints(program, this.folder, files)];
    return complaints.map(complaintLine);
  }

  /** Starts the stand-in server on a free port and returns its address. */
  async play(args: readonly string[] = []): Promise<string> {
    const running = this.start(["--json", "--quiet", "play", "--port", "0", ...args]);
    const said = await running.says(playedAt);
    return playedAt.exec(said)?.[1] ?? "";
  }
}

/** Returns the address that the stand-in server prints. */
export const playedAt = /"url": "(http:\/\/[^"/]+)/;

/** Returns the demo's app with a version of its contracts. */
export function demoProject(version: "v1" | "v2" = "v1"): TemporaryProject {
  const project = new TemporaryProject();
  cpSync(join(packageRoot, "demo/app"), project.folder, { recursive: true });
  cpSync(join(packageRoot, "demo/contracts", version), project.path("contracts"), { recursive: true });
  return project;
}

/** Returns a project with one REST contract given as data, and an SDK in src/sdk. */
export function restProject(contract: object | string, more: Readonly<Record<string, string>> = {}): TemporaryProject {
  return new TemporaryProject({
    "package.json": '{ "type": "module" }',
    "api.yaml": typeof contract === "string" ? contract : JSON.stringify(contract),
    "rhema.yaml":
      "contracts:\n  api:\n    from: api.yaml\nsdks:\n  app:\n    language: typescript\n    covers: [api]\n    into: src/sdk\n",
    ...more,
  });
}

/** Returns a project with one GraphQL schema and query documents, and an SDK in src/sdk. */
export function graphqlProject(schema: string, queries: Readonly<Record<string, string>>): TemporaryProject {
  return new TemporaryProject({
    "package.json": '{ "type": "module" }',
    "schema.graphql": schema,
    "rhema.yaml":
      'contracts:\n  fleet:\n    from: schema.graphql\n    queries: ["q/**/*.graphql"]\nsdks:\n  app:\n    language: typescript\n    covers: [fleet]\n    into: src/sdk\n',
    ...Object.fromEntries(Object.entries(queries).map(([name, text]) => [`q/${name}.graphql`, text])),
  });
}
