import { isAscii } from "node:buffer";
import { readFileSync, readdirSync, rmSync, statSync } from "node:fs";
import { createRequire } from "node:module";
import { basename, dirname, join } from "node:path";
import { Script } from "node:vm";
import { readKeptCode, writeKeptCode, type KeptCode } from "./keptCode.js";

interface Loaded {
  readonly script: Script;
  readonly path: string;
  readonly about: string;
  readonly kept: KeptCode | undefined;
}

/**
 * Loads CommonJS files like `require`, with the code that V8 compiled in an earlier run. Compiling takes half of the
 * start of most commands, and most of the time to load a compiler written in the same language (measured).
 */
export class CodeCache {
  private readonly loaded: Loaded[] = [];
  /** The exports of files, by path: a second call returns the same, as `require` does. */
  private readonly modules = new Map<string, { exports: unknown }>();

  /**
   * @param folder the folder for compiled code; without one, nothing is stored
   * @param build the build of the program; code of other builds is removed
   * @param use what the program is loaded for. Only functions that were called are stored, so each command stores its
   * own
   */
  constructor(
    private readonly folder: string | undefined,
    private readonly build: string,
    private readonly use: string,
  ) {}

  /**
   * Loads a file.
   *
   * @param file the absolute path of a CommonJS file that imports nothing itself, because V8 forgets who would import
   * for it
   * @param alike the names of packages that it requires and that are loaded in the same way
   * @returns the exports of the file
   */
  load(file: string, alike: readonly string[] = []): unknown {
    return this.loadFor(this.use, file, alike);
  }

  private loadFor(use: string, file: string, alike: readonly string[]): unknown {
    const plain = createRequire(file);
    if (this.folder === undefined) return plain(file);
    const known = this.modules.get(file);
    if (known) return known.exports;
    const bytes = readFileSync(file);
    // This is read faster, and takes half the memory.
    const text = isAscii(bytes) ? bytes.toString("latin1") : bytes.toString("utf8");
    const name = `${this.build}-${process.version}-${process.arch}-${use}-${basename(file).replace(/\W+/g, "-")}`;
    const path = join(this.folder, name);
    const { size, ctimeMs } = statSync(file);
    const about = JSON.stringify([file, size, ctimeMs]);
    const kept = readKeptCode(path, about);
    const script = new Script(`(function (exports, require, module, __filename, __dirname) {${text}\n})`, {
      filename: file,
      ...(kept ? { cachedData: kept.code } : {}),
    });
    this.loaded.push({ script, path, about, kept: script.cachedDataRejected === true ? undefined : kept });
    const module = { exports: {} as unknown };
    this.modules.set(file, module);
    // Several commands share the code that they load. V8 refuses code that was compiled with other flags.
    const shared = process.execArgv.length === 0 ? "all" : this.use;
    const require = (id: string): unknown =>
      alike.includes(id) ? this.loadFor(shared, plain.resolve(id), []) : plain(id);
    const run = script.runInThisContext() as (...given: unknown[]) => void;
    run(module.exports, Object.assign(require, plain), module, file, dirname(file));
    return module.exports;
  }

  /**
   * Stores the compiled code, if nothing was stored or if this run compiled much more than the stored one. If nothing
   * can be written, the next run compiles again.
   */
  save(): void {
    const elapsedMs = performance.now();
    try {
      for (const { script, path, about, kept } of this.loaded) {
        if (kept && elapsedMs < 2 * kept.elapsedMs + 250) continue;
        writeKeptCode(path, about, () => ({ code: script.createCachedData(), elapsedMs }));
        this.removeUseless(dirname(path));
      }
    } catch {
      // The folder belongs to somebody else, or the disk is full.
    }
  }

  /** Removes code of other builds, and incomplete files of killed runs. */
  private removeUseless(folder: string): void {
    for (const name of readdirSync(folder)) {
      const path = join(folder, name);
      const isHalf = /\.\d+$/.test(name) && Date.now() - statSync(path).mtimeMs > halfLifeMs;
      if (isHalf || !name.startsWith(`${this.build}-`)) rmSync(path, { force: true });
    }
  }
}

/** No write takes this long. */
const halfLifeMs = 3_600_000;
