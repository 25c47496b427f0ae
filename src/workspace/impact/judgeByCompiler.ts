import { isInside } from "../../core/use/coordinate.js";
import { inReportOrder } from "../../core/change/judge/impact.js";
import type { Hit, JudgedChange } from "../../core/change/judge/judgedChange.js";
import { goneQueries, hitsAny, refusedOperations } from "../../core/change/judge/refusedOperations.js";
import { heavier, type Level, type Verdict } from "../../core/change/verdict.js";
import type { RefusedQuery } from "../../core/graphql/documents/refusedQueries.js";
import type { CompileError } from "../../core/use/compileError.js";
import { explainError } from "../../core/change/judge/explainErrors.js";
import type { SourceUse } from "../../core/use/sourceUse.js";
import { appsToCompile, type ComparedSides } from "./appsToCompile.js";
import type { CompiledInMemory } from "../languages/languageTools.js";
import type { ProjectTexts } from "../generate/sdkInputs.js";

/** The changes of one contract, and the known facts about their use. */
export interface ToJudge {
  readonly changes: readonly JudgedChange[];
  /** The uses in the app's source. */
  readonly uses: readonly SourceUse[];
  /** Searches source for uses, if that was skipped so far. */
  readonly search?: () => Promise<readonly SourceUse[]>;
  /** The queries that the new contract refuses. */
  readonly refused: readonly RefusedQuery[];
  /** Whether source may have been adapted already, so that its uses may not break. */
  readonly mayBeAdapted: boolean;
}

/**
 * Lets the compiler decide where a verdict on source depends on the way of use: whether a match is exhaustive, or
 * whether a value is compared with an impossible one. Code that does not compile breaks, and code that compiles is
 * compatible. If the compiler does not check the uses of a change, its verdict stays.
 *
 * @returns the changes with their new verdicts
 */
export async function judgeByCompiler(
  texts: ProjectTexts,
  sides: ComparedSides,
  { changes, uses: known, search, refused, mayBeAdapted }: ToJudge,
): Promise<readonly JudgedChange[]> {
  const isAsked = (change: JudgedChange): boolean => isOpen(change, mayBeAdapted);
  if (!changes.some(isAsked)) return changes;
  const { project } = texts;
  const { apps } = await appsToCompile(texts, sides);
  const asked: AskedApp[] = [];
  let uses = known;
  const blamed = refusedOperations(
    changes,
    refused.map(({ problem }) => problem),
  );
  const gone = goneQueries(changes, refused);
  for (const { language: id, sdks, made, old } of apps) {
    const { language, tools } = await project.session.language(id);
    if (!tools.proof) continue;
    const compiled = await tools.proof.inMemory(project, made, old);
    const errors = new Map<JudgedChange, CompileError[]>();
    const explained = (error: CompileError): JudgedChange | undefined =>
      explainError(error, { changes, uses, refused: blamed, namesOf: language.operationNames });
    if (search && uses === known && compiled.fresh.some((error) => !explained(error))) uses = await search();
    for (const error of compiled.fresh) {
      const change = explained(error);
      if (change) errors.set(change, [...(errors.get(change) ?? []), error]);
    }
    asked.push({ sdks, compiled, errors });
  }
  return inReportOrder(
    changes.map((change) => {
      if (isAsked(change) && !hitsAny(change, gone)) return judged(change, asked);
      return change.use === "not used" ? foundByCompiler(change, asked) : change;
    }),
  );
}

/**
 * Whether only the compiler knows the effect: a query that uses the changed part does not show what source does with
 * the response.
 */
function isOpen(change: JudgedChange, mayBeAdapted: boolean): boolean {
  const { verdict, use, sdks, hits } = change;
  if (use !== "used") return false;
  if (verdict.code !== "compatible" && isOfOneKind(change)) return true;
  const codes = [verdict.code, ...(sdks ?? []).map(({ code }) => code)];
  if (codes.includes("risky")) return true;
  return codes.includes("breaking") && (mayBeAdapted || !hits.some(({ isInSource }) => isInSource === true));
}

/** Whether one of several values, or types of values, was removed, and no place shows that it is used there. */
function isOfOneKind({ at, isOneOfSeveral, coordinates, hits }: JudgedChange): boolean {
  if (isOneOfSeveral !== true) return false;
  if (at === "member") return true;
  const isSaid = hits.some(({ owner }) => coordinates.some((coordinate) => isInside(owner, coordinate)));
  return !isSaid;
}

/** The result of one language's compiler. */
interface AskedApp {
  readonly sdks: readonly string[];
  readonly compiled: CompiledInMemory;
  readonly errors: ReadonlyMap<JudgedChange, readonly CompileError[]>;
}

function judged(change: JudgedChange, asked: readonly AskedApp[]): JudgedChange {
  const levelFor = (sdk: string | undefined, code: Level): Level => {
    const app = asked.find(({ sdks }) => sdk === undefined || sdks.includes(sdk));
    if (!app || code === "compatible") return code;
    if (app.errors.has(change)) return "breaking";
    // An error may be listed for another change than its cause. Without an error, nothing breaks.
    const isSafe = code === "risky" || !app.compiled.fresh.some((error) => mayBeOf(change, error));
    return isSafe && isChecked(change, app.compiled) ? "compatible" : code;
  };
  const errors = asked.flatMap((app) => app.errors.get(change) ?? []);
  const sdks = change.sdks?.map((each) =>
    each.use === "used" ? { ...each, code: levelFor(each.sdk, each.code) } : each,
  );
  const used = sdks?.filter(({ use }) => use !== "not used").map(({ code }) => code) ?? [];
  const code =
    used.length > 0 ? used.reduce((one, other) => heavier(one, other)) : levelFor(undefined, change.verdict.code);
  return {
    ...change,
    verdict: { ...change.verdict, code },
    ...(sdks ? { sdks } : {}),
    ...(errors.length > 0 ? { errors } : {}),
  };
}

/** A change without a known use that causes compile errors is in use at those places. */
function foundByCompiler(change: JudgedChange, asked: readonly AskedApp[]): JudgedChange {
  const errors = asked.flatMap((app) => app.errors.get(change) ?? []);
  if (errors.length === 0) return change;
  const owner = change.word ?? change.subject;
  const hits = errors.map(({ place }): Hit => ({ owner, operations: [], place, kind: "names", isInSource: true }));
  const verdict: Verdict = { ...change.verdict, code: "breaking" };
  return { ...change, use: "used", verdict, hits, errors };
}

/** Whether an error may come from a change: it is close to a use, or the places in source are unknown. */
function mayBeOf({ hits }: JudgedChange, { place, ranges }: CompileError): boolean {
  const inSource = hits.filter(({ isInSource }) => isInSource === true);
  const [start, end] = ranges.at(-1) ?? [place.offset, place.offset + place.length];
  return (
    inSource.length === 0 ||
    inSource.some(
      (hit) =>
        hit.place.document === place.document &&
        "offset" in hit.place &&
        start <= hit.place.offset &&
        hit.place.offset < end,
    )
  );
}

/** Whether the compiler checks all uses of a change, and knows what they are. */
function isChecked({ hits }: JudgedChange, { checked, unchecked, knows }: CompiledInMemory): boolean {
  const inSource = hits.filter(({ isInSource }) => isInSource === true);
  if (inSource.length > 0) return inSource.every(({ place }) => checked.has(place.document) && knows(place));
  // A query can be used by every part of the app.
  return checked.size > 0 && unchecked.size === 0;
}
