import { mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { Readable, Writable } from "node:stream";
import type { Host } from "../src/cli/process/host.js";
import { compilerSettings } from "./program.js";

/** A change in the program's output for other programs. */
export interface ToldChange {
  readonly code: string;
  readonly message: string;
  readonly use: "used" | "not used" | "cannot tell";
  readonly verdict: { readonly code: string; readonly apps: string };
  readonly hits: readonly {
    readonly owner: string;
    readonly how: string;
    readonly file: string;
    readonly line: number;
  }[];
}

export interface ToldImpact {
  readonly changes: readonly ToldChange[];
  /** The refused query documents. */
  readonly brokenQueries: readonly { readonly message: string }[];
}

export interface OnDisk {
  /** The folder of the repository, whose packages the app uses. */
  readonly root: string;
  readonly configuration: object;
  /** The file of the contract, and query documents, by path. */
  readonly files: Readonly<Record<string, string>>;
}

type Program = typeof import("../src/cli/program.js");

/** A project in a folder of its own, for which the built program reports the effect of a change. */
export class ProjectOnDisk {
  private readonly folder = mkdtempSync(join(tmpdir(), "rhema-truth-app-"));
  private readonly program: Program;
  private written: readonly string[] = [];

  constructor(private readonly project: OnDisk) {
    const { root, configuration, files } = project;
    this.program = createRequire(import.meta.url)(join(root, "dist/cli/program.cjs")) as Program;
    for (const [path, text] of Object.entries(files)) this.write(path, text);
    this.write("rhema.json", JSON.stringify(configuration));
    this.write("package.json", '{ "type": "module" }');
    this.write(
      "tsconfig.json",
      JSON.stringify({ compilerOptions: { ...compilerSettings, noEmit: true }, include: ["src"] }),
    );
    mkdirSync(join(this.folder, "node_modules"));
    for (const name of ["vue", "svelte", "typescript"])
      symlinkSync(join(root, "node_modules", name), join(this.folder, "node_modules", name));
    process.once("exit", () => {
      rmSync(this.folder, { recursive: true, force: true });
    });
  }

  /** Writes the SDK and the pin. */
  async generate(): Promise<void> {
    const { code, err } = await this.run(["generate"]);
    if (code !== 0) throw new Error(err);
  }

  /** Returns the effect of another contract on an app. @param app its files, by path in the source folder */
  async impact(app: ReadonlyMap<string, string>, contract: Readonly<Record<string, string>>): Promise<ToldImpact> {
    for (const path of this.written) rmSync(join(this.folder, path));
    this.written = [...app.keys()].map((path) => `src/${path}`);
    for (const [path, text] of app) this.write(`src/${path}`, text);
    for (const [path, text] of Object.entries(contract)) this.write(path, text);
    try {
      const { code, out, err } = await this.run(["impact", "--json"]);
      if (code !== 0 && code !== 1) throw new Error(`${String(code)}: ${err}`);
      const [told] = (JSON.parse(out) as { contracts: ToldImpact[] }).contracts;
      if (!told) throw new Error(out);
      return told;
    } finally {
      for (const path of Object.keys(contract)) this.write(path, this.project.files[path] ?? "");
    }
  }

  private write(path: string, text: string): void {
    const target = join(this.folder, path);
    mkdirSync(dirname(target), { recursive: true });
    writeFileSync(target, text);
  }

  private async run(args: readonly string[]): Promise<{ code: number; out: string; err: string }> {
    const printed = { out: "", err: "" };
    const collecting = (key: "out" | "err"): Writable =>
      new Writable({
        decodeStrings: false,
        write(chunk: string | Buffer, _encoding, done) {
          printed[key] += chunk.toString();
          done();
        },
      });
    const host: Host = {
      folder: this.folder,
      environment: { NO_COLOR: "1" },
      input: Readable.from([]),
      output: collecting("out"),
      errors: collecting("err"),
      importer: (url: string) => import(url) as Promise<unknown>,
      interrupted: () => new Promise<void>(() => undefined),
      onUncaught: () => undefined,
      exit: (code: number) => {
        throw new Error(`The program ended its process with ${String(code)}: ${printed.err}`);
      },
    };
    const code = await this.program.runProgram(args, host);
    return { code, ...printed };
  }
}
