import type { ContractImpact, JudgedChange } from "../../core/change/judge/judgedChange.js";
import type { CompileError } from "../../core/use/compileError.js";
import { explainError } from "../../core/change/judge/explainErrors.js";
import { refusedOperations } from "../../core/change/judge/refusedOperations.js";
import type { SourceUse } from "../../core/use/sourceUse.js";
import { appsToCompile, type ComparedSides } from "./appsToCompile.js";
import { findSourceUses } from "../uses/findSourceUses.js";
import { checkedApps, configuredChecker } from "../languages/checkedApps.js";
import type { ProjectTexts } from "../generate/sdkInputs.js";

/** The result of compiling an app with SDKs of the new contracts. */
export interface Proof {
  /** The impacts, each change with the compile errors that it causes. */
  readonly impacts: readonly ContractImpact[];
  /** New errors that no change explains. */
  readonly unexplained: readonly CompileError[];
  /** Errors that the app has with the SDKs of the old contracts. */
  readonly before: readonly CompileError[];
  /** SDKs in a language without a compiler to run. */
  readonly unproved: readonly string[];
}

/**
 * Compiles the app with SDKs of the old contracts and of the new ones, and lists each new error under the change that
 * causes it. Nothing is written into the project.
 */
export async function prove(
  texts: ProjectTexts,
  sides: ComparedSides,
  impacts: readonly ContractImpact[],
): Promise<Proof> {
  const { project } = texts;
  const { apps, unproved } = await appsToCompile(texts, sides);
  const before: CompileError[] = [];
  const uses: SourceUse[] = [];
  for (const [, { before: old }] of sides) {
    const against = { side: old, isWritten: old.isPinned };
    for (const use of (await findSourceUses(project, against)).uses) uses.push(use);
  }
  const changes = impacts.flatMap((impact) => impact.changes);
  const refused = new Map(impacts.flatMap((impact) => [...refusedOperations(impact.changes, impact.brokenQueries)]));
  const errors = new Map<JudgedChange, CompileError[]>();
  const unexplained: CompileError[] = [];
  for (const { language: id, run, made, old } of apps) {
    const { language, tools } = await project.session.language(id);
    const compared = tools.proof
      ? await tools.proof.compare(project, made, { old, run })
      : await checkedApps({ project, checker: configuredChecker(run ?? "") }, made, old);
    for (const error of compared.before) before.push(error);
    for (const error of compared.fresh) {
      const change = explainError(error, { changes, uses, refused, namesOf: language.operationNames });
      if (change) errors.set(change, [...(errors.get(change) ?? []), error]);
      else unexplained.push(error);
    }
  }
  return {
    impacts: impacts.map((impact) => ({
      ...impact,
      changes: impact.changes.map((change) => withErrors(change, errors.get(change) ?? [])),
    })),
    unexplained,
    before,
    unproved,
  };
}

/** Code that does not compile breaks, whatever was expected. */
function withErrors(change: JudgedChange, errors: readonly CompileError[]): JudgedChange {
  if (errors.length === 0) return { ...change, errors };
  return { ...change, errors, use: "used", verdict: { ...change.verdict, code: "breaking" } };
}
