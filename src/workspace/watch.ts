import { setImmediate } from "node:timers/promises";
import type { GenerateOptions, GenerateOutcome } from "./generate/generateOutcome.js";
import { generate } from "./generate/generate.js";
import { buildSdk } from "./generate/buildSdk.js";
import { ContractReader } from "./sources/contractReader.js";
import { Halt } from "./project/halt.js";
import { savedSince } from "./files/inputFiles.js";
import { InputWatcher } from "./inputWatcher.js";

import { openProject, type OpenedProject } from "./project/openProject.js";
import { ProjectTexts } from "./generate/sdkInputs.js";
import { contractTexts } from "./sources/sources.js";
import type { Whereabouts } from "./project/whereabouts.js";

/** The result of a watcher's run. */
export interface WatchRun {
  /** Paths that changed since the run before, relative to the project, sorted; empty in the first run. */
  readonly saved: readonly string[];
  readonly project: OpenedProject | undefined;
  /** Undefined if the configuration or a contract could not be read. Then nothing was written. */
  readonly outcome: GenerateOutcome | undefined;
  readonly halt: Halt | undefined;
  /** Milliseconds from the end of the quiet time until everything was written. */
  readonly elapsedMs: number;
}

export interface WatchOptions {
  readonly sdks: readonly string[];
  readonly partial: boolean;
  /** The quiet time in milliseconds before a run begins. */
  readonly settleMs: number;
  /** Called after every run. The next one waits for it. */
  readonly onRun: (run: WatchRun) => void | Promise<void>;
}

/** Milliseconds until a text that is the beginning of the one before counts as complete. */
const halfWrittenMs = 800;

/**
 * Keeps the SDKs of a project up to date until it is closed. If a saved file cannot be read, the last good output
 * stays.
 *
 * @throws Halt if the configuration cannot be read at the start
 */
export class Watcher {
  private readonly texts = new Map<string, string>();
  private readonly files: InputWatcher;
  private isClosed = false;
  private heldSince: number | undefined;

  private constructor(
    private readonly where: Whereabouts,
    private readonly configFlag: string | undefined,
    private readonly options: WatchOptions,
  ) {
    this.files = new InputWatcher(options.settleMs, (saved) => this.run(saved));
  }

  /** Brings everything up to date, warms up, and starts to watch. */
  static async start(where: Whereabouts, configFlag: string | undefined, options: WatchOptions): Promise<Watcher> {
    const watcher = new Watcher(where, configFlag, options);
    const project = await openProject(where, configFlag);
    await watcher.files.observe(project);
    await watcher.run([]);
    await warmUp(project);
    return watcher;
  }

  async close(): Promise<void> {
    this.isClosed = true;
    await this.files.close();
  }

  /** @param isEcho whether the run is reported only if it has something to do */
  private async run(saved: readonly string[], isEcho = false): Promise<void> {
    const begunAt = Date.now();
    const startedAt = performance.now();
    let project: OpenedProject | undefined;
    let outcome: GenerateOutcome | undefined;
    let halt: Halt | undefined;
    try {
      project = await openProject(this.where, this.configFlag);
      if (this.isHalfWritten(project, saved)) return;
      outcome = await generate(project, generateOptions(this.options));
    } catch (error) {
      if (!(error instanceof Halt)) throw error;
      halt = error;
    }
    const elapsedMs = performance.now() - startedAt;
    const isIdle = outcome?.sdks.every(({ state }) => state === "unchanged") === true;
    if (!isEcho || !isIdle) await this.options.onRun({ saved, project, outcome, halt, elapsedMs });
    if (!project || isEcho || this.isClosed || !(await this.files.observe(project))) return;
    // Saves that were missed before the new places were watched are handled now.
    const missed = savedSince(project, begunAt);
    await this.run(missed.length > 0 ? missed : saved, true);
  }

  /**
   * Whether a contract contains only the beginning of its old text, because somebody is still writing it. Truncated
   * YAML is usually valid. It is checked again after a while.
   */
  private isHalfWritten(project: OpenedProject, saved: readonly string[]): boolean {
    let isHalf = false;
    const found: [string, string][] = [];
    for (const name of Object.keys(project.configuration.contracts)) {
      for (const { document, text } of textsOf(project, name)) {
        const before = this.texts.get(document);
        if (before !== undefined && before.length > text.length && before.startsWith(text)) isHalf = true;
        found.push([document, text]);
      }
    }
    const now = Date.now();
    this.heldSince = isHalf ? (this.heldSince ?? now) : undefined;
    if (this.heldSince !== undefined && now - this.heldSince < halfWrittenMs) {
      this.files.again(saved, halfWrittenMs);
      return true;
    }
    this.heldSince = undefined;
    for (const [document, text] of found) this.texts.set(document, text);
    return false;
  }
}

function textsOf(project: OpenedProject, contract: string): { document: string; text: string }[] {
  try {
    return contractTexts(project, contract);
  } catch (error) {
    if (error instanceof Halt) return [];
    throw error;
  }
}

function generateOptions({ sdks, partial }: WatchOptions): GenerateOptions {
  return {
    sdks,
    partial,
    dryRun: false,
    force: false,
    fresh: false,
    strict: false,
    gate: { level: "off", judge: "both" },
    comparing: "after",
  };
}

/** After this many rounds, the next one is hardly faster (measured). */
const mostWarmRounds = 12;
/** Milliseconds after which warming up ends, so that a large contract does not delay the first save. */
const longestWarmUpMs = 1_500;

/** Builds every SDK in memory, so that the first save finds everything loaded and compiled. */
async function warmUp(project: OpenedProject): Promise<void> {
  try {
    const until = performance.now() + longestWarmUpMs;
    for (let round = 0; round < mostWarmRounds && performance.now() < until; round++) {
      const texts = new ProjectTexts(project);
      await texts.readHosts(Object.keys(project.configuration.contracts));
      const reader = new ContractReader(texts);
      for (const name of Object.keys(project.configuration.sdks)) await buildSdk(project, name, reader);
      // A stand-in server in the same process responds in between.
      await setImmediate();
    }
  } catch (error) {
    // The run before reported what cannot be read.
    if (!(error instanceof Halt)) throw error;
  }
}
