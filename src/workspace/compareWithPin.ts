import type { Change } from "../core/change/change.js";
import { compareGraphqlNames, type PlannedSide } from "../core/change/compareGraphqlNames.js";
import { typescriptSdkFacts } from "../core/languages/typescript/sdkFacts.js";
import { planContract } from "./buildSdk.js";
import type { Contract } from "../core/contract/model.js";
import { type ContractImpact } from "../core/change/judgedChange.js";
import { worst } from "../core/change/verdict.js";
import { judgeUse, type ProjectUses } from "../core/change/impact.js";
import { applyPolicy } from "../core/change/policy.js";
import { today } from "./acceptances.js";
import { readQueryDocuments } from "../core/graphql/readQueryDocuments.js";
import type { SourceText } from "../core/problem/place.js";
import type { Problem } from "../core/problem/problem.js";
import { readContract, type ContractReading } from "../core/readContract.js";
import { compareForSdks } from "./compareForSdks.js";
import { findCallUses } from "./findCallUses.js";
import { findSourceUses } from "./findSourceUses.js";
import { exitCodes, Halt } from "./halt.js";
import type { Project } from "./project.js";
import type { ProjectTexts } from "./sdkInputs.js";

/** One side of a comparison. */
export interface Side {
  readonly reading: ContractReading & { readonly contract: Contract };
  /** How the report calls it: a version, or where it came from. */
  readonly label: string;
  /** It is the pin, so that the SDK that is written was made from it. */
  readonly isPinned?: boolean;
}

/** Reads one side from its texts. @throws Halt (unreadable) */
export function readSide(name: string, texts: readonly SourceText[], fallbackLabel: string): Side {
  const reading = readContract(name, texts);
  const { contract } = reading;
  if (!contract)
    throw new Halt(
      reading.problems,
      exitCodes.unreadable,
      new Map(texts.map(({ document, text }) => [document, text])),
    );
  return { reading: { ...reading, contract }, label: contract.version === "" ? fallbackLabel : contract.version };
}

/**
 * Compares two sides of one contract and says what the differences do to the project; without a project, nothing is
 * known of use.
 *
 * @param searching "notable": source is looked into only when something is risky or breaking, because that takes long
 */
export async function compareSides(
  name: string,
  before: Side,
  after: Side,
  texts: ProjectTexts | undefined,
  searching: "all" | "notable" = "all",
): Promise<ContractImpact> {
  const from = before.reading.contract;
  const to = after.reading.contract;
  const changes = compareForSdks(from, to, texts?.project);
  if (texts && changes.length > 0) changes.push(...graphqlNames(name, before, after, texts));
  // A team's own levels can make anything count.
  const isPlain =
    texts?.project.configuration.guard?.rules === undefined &&
    changes.every(({ verdict }) => worst(verdict) === "compatible");
  const isSearched = searching === "all" ? changes.length > 0 : !isPlain;
  const uses = !isSearched || !texts ? unknownUses : await projectUses(texts.project, texts, name, before, changes);
  return {
    contract: name,
    from: before.label,
    to: after.label,
    contracts: { before: from, after: to },
    changes: applyPolicy(
      judgeUse(changes, from.protocol, uses),
      texts?.project.configuration.guard ?? {},
      name,
      today(),
    ),
    brokenQueries: texts && changes.length > 0 ? brokenQueries(name, before, after, texts) : [],
  };
}

const unknownUses: ProjectUses = { queries: [], calls: new Map(), named: () => [], searched: false };

async function projectUses(
  project: Project,
  texts: ProjectTexts,
  name: string,
  { reading, isPinned }: Side,
  changes: readonly Change[],
): Promise<ProjectUses> {
  if (reading.schema)
    return {
      queries: readQueryDocuments(reading.schema, texts.queries(name).texts).uses,
      calls: new Map(),
      named: () => [],
      ...(changes.some(({ code }) => code.startsWith("type.name."))
        ? { source: (await findSourceUses(project, name, isPinned === true ? undefined : reading)) ?? [] }
        : {}),
      searched: true,
    };
  if (reading.contract.protocol !== "rest") return unknownUses;
  const source = await findSourceUses(project, name, isPinned === true ? undefined : reading);
  if (source) return { ...unknownUses, source, searched: true };
  return {
    queries: [],
    ...findCallUses(project, reading.contract, project.configuration.contracts[name] ?? { from: [] }),
    searched: true,
  };
}

/** Types of the schema that source can name, and that the same query documents no longer bring into the SDK. */
function graphqlNames(name: string, before: Side, after: Side, texts: ProjectTexts): Change[] {
  const settings = texts.project.configuration.contracts[name];
  const sdk = Object.values(texts.project.configuration.sdks).find(({ covers }) => covers.includes(name));
  const planned = ({ reading }: Side): PlannedSide | undefined => {
    const { contract, schema } = reading;
    if (contract.protocol !== "graphql" || !schema || !settings) return undefined;
    const queries = readQueryDocuments(schema, texts.queries(name).texts);
    const plan = planContract(contract, queries, settings, sdk?.settings ?? {});
    return plan.protocol === "graphql" ? { contract, plan } : undefined;
  };
  const sides = [planned(before), planned(after)] as const;
  return sides[0] && sides[1] ? compareGraphqlNames(sides[0], sides[1], typescriptSdkFacts(sdk?.settings)) : [];
}

/** Errors that the query documents have against the new schema and did not have against the old one. */
function brokenQueries(name: string, before: Side, after: Side, texts: ProjectTexts): Problem[] {
  if (!before.reading.schema || !after.reading.schema) return [];
  const documents = texts.queries(name).texts;
  const key = (problem: Problem): string => JSON.stringify([problem.message, problem.places]);
  const known = new Set(readQueryDocuments(before.reading.schema, documents).problems.map(key));
  return readQueryDocuments(after.reading.schema, documents).problems.filter(
    (problem) => problem.level === "error" && !known.has(key(problem)),
  );
}
