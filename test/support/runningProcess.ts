import { spawn } from "node:child_process";
import { programPath } from "./packageRoot.js";
import type { Ran } from "./runningProgram.js";
import type { TemporaryProject } from "./temporaryProject.js";
import { until } from "./until.js";
import { whenTestEnds } from "./whenTestEnds.js";
import { plainEnvironment } from "./plainEnvironment.js";

/** A process of its own with the built program, for tests that need one: signals, and a sudden end. */
export class RunningProcess {
  out = "";
  err = "";
  readonly ended: Promise<Ran>;
  private readonly child: ReturnType<typeof spawn>;
  private isOver = false;

  constructor(project: TemporaryProject, args: readonly string[]) {
    this.child = spawn(process.execPath, [programPath, ...args], {
      cwd: project.folder,
      env: plainEnvironment(),
      stdio: ["ignore", "pipe", "pipe"],
    });
    this.child.stdout?.setEncoding("utf8").on("data", (part: string) => (this.out += part));
    this.child.stderr?.setEncoding("utf8").on("data", (part: string) => (this.err += part));
    this.ended = new Promise((resolve) =>
      this.child.on("close", (code) => {
        this.isOver = true;
        resolve({ code, out: this.out, err: this.err });
      }),
    );
    // The folder is removed afterwards, so nothing may write into it any more.
    whenTestEnds(() => this.kill());
  }

  /** Waits for output on standard output, and returns all of it from an offset on. */
  async says(text: string | RegExp, from = 0): Promise<string> {
    const said = (): string => this.out.slice(from);
    const isSaid = (): boolean => (typeof text === "string" ? said().includes(text) : text.test(said()));
    await until(() => this.isOver || isSaid());
    if (!isSaid()) throw new Error(`It ended and never said ${String(text)}:\n${this.out}\n${this.err}`);
    return said();
  }

  /** Ends it like Ctrl-C, and returns its exit code. */
  async ends(): Promise<number | null> {
    this.child.kill("SIGINT");
    return (await this.ended).code;
  }

  /** Ends it at once, with all processes it has started. */
  async kill(): Promise<void> {
    this.child.kill("SIGKILL");
    await this.ended;
  }
}
