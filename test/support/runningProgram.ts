import { createRequire } from "node:module";
import { join } from "node:path";
import { Readable, Writable } from "node:stream";
import type { Host } from "../../src/cli/process/host.js";
import { packageRoot } from "./packageRoot.js";
import { until } from "./until.js";
import { plainEnvironment } from "./plainEnvironment.js";

/** How a run of the program ended, and its output. */
export interface Ran {
  readonly code: number | null;
  readonly out: string;
  readonly err: string;
}

const load = createRequire(import.meta.url);
const program = (): typeof import("../../src/cli/program.js") =>
  load(join(packageRoot, "dist/cli/program.cjs")) as typeof import("../../src/cli/program.js");

/** What a run has besides its folder and its arguments. */
export interface RunningHow {
  readonly env?: Readonly<Record<string, string>>;
  readonly languages?: Host["languages"];
}

/** A run of the built program inside this process, in a folder and an environment of its own. */
export class RunningProgram {
  out = "";
  err = "";
  /** How it ended. */
  readonly ended: Promise<Ran>;
  private readonly interruption: Promise<void>;
  private interrupt: () => void = () => undefined;

  constructor(folder: string, args: readonly string[], { env = {}, languages }: RunningHow = {}) {
    this.interruption = new Promise((resolve) => (this.interrupt = resolve));
    const host: Host = {
      folder,
      environment: plainEnvironment(env),
      input: Readable.from([]),
      output: collecting((text) => (this.out += text)),
      errors: collecting((text) => (this.err += text)),
      importer: (url) => import(/* @vite-ignore */ url) as Promise<unknown>,
      interrupted: () => this.interruption,
      // An error that a command does not catch fails the test.
      onUncaught: () => undefined,
      ...(languages ? { languages } : {}),
      exit: (code) => {
        throw new Error(`The program ended its process with ${String(code)}: ${this.err}`);
      },
    };
    this.ended = program()
      .runProgram(args, host)
      .then((code) => ({ code, out: this.out, err: this.err }));
  }

  /** Waits for output on standard output, and returns all of it from an offset on. */
  async says(text: string | RegExp, from = 0): Promise<string> {
    let isOver = false;
    void this.ended.then(() => (isOver = true));
    const said = (): string => this.out.slice(from);
    const isSaid = (): boolean => (typeof text === "string" ? said().includes(text) : text.test(said()));
    await until(() => isOver || isSaid());
    if (!isSaid()) throw new Error(`It ended and never said ${String(text)}:\n${this.out}\n${this.err}`);
    return said();
  }

  /** Ends it like Ctrl-C. */
  async ends(): Promise<number | null> {
    this.interrupt();
    return (await this.ended).code;
  }
}

function collecting(take: (text: string) => void): Writable {
  return new Writable({
    decodeStrings: false,
    write(chunk: string | Buffer, _encoding, done) {
      take(chunk.toString());
      done();
    },
  });
}
