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
 * Loads CommonJS files as `require` does, with what V8 compiled of them in a run before: compiling is half of the start
 * of most commands, and the largest part of loading a compiler that is written in the same language (measured).
 */
export class CodeCache {
  private readonly loaded: Loaded[] = [];
  /** What files gave, by their paths: whoever requires one again gets the same, as `require` does it. */
  private readonly modules = new Map<string, { exports: unknown }>();

  /**
   * @param folder where compiled code is kept; nothing is kept without one
   * @param build of the program; what other builds kept is removed
   * @param use what the program is loaded for: only functions that were called are kept, so each command keeps its own
   */
  constructor(
    private readonly folder: string | undefined,
    private readonly build: string,
    private readonly use: string,
  ) {}

  /**
   * @param file absolute path of a CommonJS file that imports nothing itself: V8 forgets who would import for it
   * @param alike names of packages that it requires and that are loaded in the same way
   * @returns what the file exports
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
    // Read faster, and half the size in memory.
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
    // Several commands share what they load; V8 refuses code that it compiled under other flags.
    const shared = process.execArgv.length === 0 ? "all" : this.use;
    const require = (id: string): unknown =>
      alike.includes(id) ? this.loadFor(shared, plain.resolve(id), []) : plain(id);
    const run = script.runInThisContext() as (...given: unknown[]) => void;
    run(module.exports, Object.assign(require, plain), module, file, dirname(file));
    return module.exports;
  }

  /**
   * Keeps what is compiled by now, where nothing was kept, or where this run needed much more than the one that kept
   * it. Where nothing can be written, the next run compiles again.
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
      // A folder of somebody else, or a full disk.
    }
  }

  /** What other builds kept, and halves of what a run wrote that was killed. */
  private removeUseless(folder: string): void {
    for (const name of readdirSync(folder)) {
      const path = join(folder, name);
      const isHalf = /\.\d+$/.test(name) && Date.now() - statSync(path).mtimeMs > halfLifeMs;
      if (isHalf || !name.startsWith(`${this.build}-`)) rmSync(path, { force: true });
    }
  }
}

/** Nobody writes for so long. */
const halfLifeMs = 3_600_000;
