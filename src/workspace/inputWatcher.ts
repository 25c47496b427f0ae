import { basename, join, relative, sep } from "node:path";
import { watch as watchFiles, type FSWatcher } from "chokidar";
import { Halt } from "./project/halt.js";
import { inputFiles, inputFilter, type InputFiles } from "./files/inputFiles.js";
import { displayPath, type Project } from "./project/project.js";

/** The name of a watched file or folder. */
interface RawDetails {
  readonly watchedPath?: unknown;
}

/** Reports which inputs of a project were saved, once nothing more is saved for a while. */
export class InputWatcher {
  private readonly saved = new Set<string>();
  private timer: NodeJS.Timeout | undefined;
  private files: FSWatcher | undefined;
  private inputs: InputFiles | undefined;
  private telling: Promise<void> = Promise.resolve();
  private isClosed = false;

  /**
   * @param settleMs the quiet time in milliseconds before saves are reported
   * @param onSettled receives the paths that were saved, removed or added, relative to the project, sorted. It is not
   * called again before its last result has ended
   */
  constructor(
    private readonly settleMs: number,
    private readonly onSettled: (saved: readonly string[]) => Promise<void>,
  ) {}

  /**
   * Starts to watch the current inputs of a project. Files that are watched already stay.
   *
   * @returns whether something else is watched than before
   * @throws Halt if the list of generated files cannot be read at the start; later, the watched files stay
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
    // For several saves within 50 ms, the event above fires for the first one only, also if the last was not read.
    files.on("raw", (_event, name, details) => {
      const { watchedPath } = details as RawDetails;
      if (typeof name !== "string" || typeof watchedPath !== "string") return;
      const path = basename(watchedPath) === name ? watchedPath : join(watchedPath, name);
      if (isInput(displayPath(project, path), false)) onSaved(path);
    });
    // A folder that cannot be read counts as missing. Reading its content reports that.
    files.on("error", () => undefined);
    await new Promise<void>((resolve) => files.once("ready", resolve));
    return true;
  }

  /** Reports these paths again after a while, or earlier with other saves. */
  again(paths: readonly string[], afterMs: number): void {
    for (const path of paths) this.saved.add(path);
    this.settleLater(afterMs);
  }

  /** Ends after the last report has ended. */
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
