import { Randomness } from "../test/proof/random/randomness.js";
import type { ExercisingApp } from "./exercise.js";
import { refusedBy } from "./program.js";
import type { ProjectOnDisk } from "./projectOnDisk.js";
import { sparseApp, type SparseApp } from "./sparseApp.js";
import { isHeld, type AppCase } from "./truth.js";

/** A change of a contract, and the app that uses everything in it. */
export interface ChangedInUse {
  readonly everything: ExercisingApp;
  readonly project: ProjectOnDisk;
  /** The name of the contract in the project. */
  readonly name: string;
  /** The files of the SDK, before and after. */
  readonly before: ReadonlyMap<string, string>;
  readonly after: ReadonlyMap<string, string>;
  /** The changed files of the contract, by path. */
  readonly changed: Readonly<Record<string, string>>;
  /** The lines of the app that no longer compile. */
  readonly lines: readonly number[];
  readonly seed: number;
}

/**
 * Returns the program's prediction for an app that uses little, in half of the cases something that no longer compiles,
 * and the result of the compiler.
 *
 * @param broken returns what no longer works after the release; undefined if that is unknown
 */
export async function appInUse(
  { everything, project, name, before, after, changed, lines, seed }: ChangedInUse,
  broken: (app: SparseApp) => Promise<readonly string[] | undefined>,
): Promise<AppCase> {
  const random = new Randomness(seed * 13 + 7);
  const app = sparseApp(everything, {
    random,
    wanted: lines.length > 0 && random.chance(0.5) ? [random.pick(lines)] : [],
    index: `sdk/${name}/index.js`,
    compiles: (script) => refusedBy(before, script).size === 0,
  });
  const told = await project.impact(app.files, changed);
  const failed = await broken(app);
  const refused = refusedBy(after, app.script);
  return {
    said: { code: isHeld(told, "code"), apps: isHeld(told, "apps") },
    breaks: { code: refused.size > 0, ...(failed ? { apps: failed.length > 0 } : {}) },
    changes: told.changes,
    evidence: { code: [...refused.values()].flat(), apps: failed ?? [] },
    files: app.files,
  };
}
