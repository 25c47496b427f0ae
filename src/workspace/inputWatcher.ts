import { basename, join, relative, sep } from "node:path";
import { watch as watchFiles, type FSWatcher } from "chokidar";
import { Halt } from "./project/halt.js";
import { inputFiles, inputFilter, type InputFiles } from "./files/inputFiles.js";
import { displayPath, type Project } from "./project/project.js";

/** What a watched file or folder is called. */
interface RawDetails {
  readonly watchedPath?: unknown;
}

/** Tells which inputs of a project were saved, once nothing more is saved for a while. */
export class InputWatcher {
  private readonly saved = new Set<string>();
  private timer: NodeJS.Timeout | undefined;
  private files: FSWatcher | undefined;
  private inputs: InputFiles | undefined;
  private telling: Promise<void> = Promise.resolve();
  private isClosed = false;

  /**
   * @param settleMs how long nothing may be saved before it is told, in milliseconds
   * @param onSettled takes the paths that were saved, removed or added, below the project, sorted; it is not told again
   *   before what it returned has ended
   */
  constructor(
    private readonly settleMs: number,
    private readonly onSettled: (saved: readonly string[]) => Promise<void>,
  ) {}

  /**
   * Begins to watch what a project is made from now; what is watched already stays.
   *
   * @returns whether something else is watched than before
   * @throws Halt when the ledger cannot be read at the start; later on, what is watched stays
   */
  async observe(project: Project): Promise<boolean> {
    const inputs = this.inputsNow(project);
    if (this.isClosed || JSON.stringify(inputs) === JSON.stringify(this.inputs)) return false;
    this.inputs = inputs;
    const isInput = inputFilter(inputs);
    await this.files?.close();
    const files = watchFiles(project.root, {
      ignoreInitial: true,
      ignored: (path, stats) => {
        if (stats === undefined) return false;
        const below = relative(project.root, path).split(sep).join("/");
        return !isInput(below, stats.isDirectory());
      },
    });
    this.files = files;
    const onSaved = (path: string): void => {
      this.saved.add(displayPath(project, path));
      this.settleLater(this.settleMs);
    };
    files.on("all", (_event, path) => {
      onSaved(path);
    });
    // Of several saves within 50 ms the event above is told for the first one only, also when the last was not read.
    files.on("raw", (_event, name, details) => {
      const { watchedPath } = details as RawDetails;
      if (typeof name !== "string" || typeof watchedPath !== "string") return;
      const path = basename(watchedPath) === name ? watchedPath : join(watchedPath, name);
      if (isInput(displayPath(project, path), false)) onSaved(path);
    });
    // A folder that may not be read is as good as none; what is in it is missed when it is read.
    files.on("error", () => undefined);
    await new Promise<void>((resolve) => files.once("ready", resolve));
    return true;
  }

  /** Tells these paths again after a while, or sooner when more is saved. */
  again(paths: readonly string[], afterMs: number): void {
    for (const path of paths) this.saved.add(path);
    this.settleLater(afterMs);
  }

  /** Ends when what was told last has ended. */
  async close(): Promise<void> {
    this.isClosed = true;
    // It may be about to watch something else.
    await this.telling;
    clearTimeout(this.timer);
    await this.files?.close();
  }

  private inputsNow(project: Project): InputFiles {
    try {
      return inputFiles(project);
    } catch (error) {
      if (!(error instanceof Halt) || !this.inputs) throw error;
      return this.inputs;
    }
  }

  private settleLater(ms: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => {
      const saved = [...this.saved].sort();
      this.saved.clear();
      if (saved.length === 0) return;
      this.telling = this.telling.then(async () => {
        if (!this.isClosed) await this.onSettled(saved);
      });
    }, ms);
  }
}
