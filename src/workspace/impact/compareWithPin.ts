import { Side, type SideOptions } from "../sources/side.js";
import type { Change } from "../../core/change/change.js";
import { compareGraphqlNames } from "../../core/change/compare/compareGraphqlNames.js";
import { mergedForSdks } from "../../core/change/judge/mergedForSdks.js";

import type { ContractImpact } from "../../core/change/judge/judgedChange.js";
import { withoutTaken } from "../../core/change/compare/withoutTaken.js";
import { unacceptedRefusals } from "../../core/change/judge/unacceptedRefusals.js";
import { worst } from "../../core/change/verdict.js";
import { judgeUse, type ProjectUses } from "../../core/change/judge/impact.js";
import { applyPolicy } from "../../core/change/judge/policy.js";
import { today } from "./acceptances.js";
import { refusedQueries, type RefusedQuery } from "../../core/graphql/documents/refusedQueries.js";
import type { SourceText } from "../../core/problem/place.js";
import { readContract } from "../../core/readContract.js";

import type { SourceUse } from "../../core/use/sourceUse.js";
import { compareForSdks } from "./compareForSdks.js";
import { findSourceUses, type FoundSourceUses } from "../uses/findSourceUses.js";
import { judgeByCompiler } from "./judgeByCompiler.js";
import { judgeBySource } from "./judgeBySource.js";
import { planSides, type PlannedSides } from "./plannedSides.js";
import { exitCodes, Halt } from "../project/halt.js";
import type { Session } from "../project/session.js";
import type { ProjectTexts } from "../generate/sdkInputs.js";

/** Reads one side from its texts. @throws Halt (unreadable) */
export function readSide(name: string, texts: readonly SourceText[], options: SideOptions): Side {
  const reading = readContract(name, texts);
  const { contract } = reading;
  if (!contract)
    throw new Halt(
      reading.problems,
      exitCodes.unreadable,
      new Map(texts.map(({ document, text }) => [document, text])),
    );
  return new Side({ ...reading, contract }, options);
}

/** The input of a comparison besides its sides. */
export interface Comparing {
  readonly session: Session;
  /** The texts of the project. Without them, uses are unknown. */
  readonly texts: ProjectTexts | undefined;
  /** "notable": source is searched only if something is risky or breaking, because that takes long. */
  readonly searching?: "all" | "notable";
  /** Whether source may have been adapted already, as after an old revision. */
  readonly mayBeAdapted?: boolean;
}

/** Compares two sides of one contract and adds the effect on the project. Without a project, uses are unknown. */
export async function compareSides(
  name: string,
  [before, after]: readonly [Side, Side],
  { session, texts, searching = "all", mayBeAdapted = false }: Comparing,
): Promise<ContractImpact> {
  const { contract: from } = before;
  const { contract: to } = after;
  const project = texts?.project;
  const changes = await compareForSdks([from, to], project, session);
  const planned = texts && changes.length > 0 ? await planSides(name, [before, after], texts) : [];
  changes.push(...graphqlNames(planned));
  // A team's own levels can make any change count.
  const isPlain =
    project?.configuration.guard?.rules === undefined &&
    changes.every(({ verdict }) => worst(verdict) === "compatible");
  const isSearched = searching === "all" ? changes.length > 0 : !isPlain;
  const uses = !isSearched || !texts ? unknownUses : await projectUses(name, before, { texts, changes });
  const documents = texts && changes.length > 0 ? texts.queries(name).texts : [];
  const refused = refusedOf([before, after], documents);
  const inUse = withoutTaken(judgeUse(changes, from.protocol, uses), refused);
  const scanned = project ? await judgeBySource(inUse, before, { project, planned, refused }) : inUse;
  const search = async (): Promise<readonly SourceUse[]> =>
    (texts ? await sourceUsesOf(before, texts) : { uses: [] }).uses;
  const known = {
    changes: scanned,
    uses: uses.source ?? [],
    ...(from.protocol === "graphql" ? { search } : {}),
    refused,
    mayBeAdapted,
  };
  const told =
    texts && isSearched ? await judgeByCompiler(texts, new Map([[name, { before, after }]]), known) : scanned;
  const judged = applyPolicy(told, project?.configuration.guard ?? {}, { contract: name, today: today() });
  return {
    contract: name,
    from: before.label,
    to: after.label,
    contracts: { before: from, after: to },
    changes: judged,
    brokenQueries: unacceptedRefusals(refused, judged),
  };
}

const unknownUses: ProjectUses = { queries: [], searched: false };

function sourceUsesOf(side: Side, { project }: ProjectTexts): Promise<FoundSourceUses> {
  return findSourceUses(project, { side, isWritten: side.isPinned });
}

async function projectUses(
  name: string,
  before: Side,
  { texts, changes }: { readonly texts: ProjectTexts; readonly changes: readonly Change[] },
): Promise<ProjectUses> {
  const { reading } = before;
  if (reading.schema) {
    const queries = before.checkedQueries(texts.queries(name).texts)?.uses ?? [];
    const isNamed = changes.some(({ at }) => at === "name");
    const found = isNamed ? await sourceUsesOf(before, texts) : { uses: [], unknown: [] };
    return { queries, source: found.uses, unknown: found.unknown, searched: true };
  }
  if (reading.contract.protocol !== "rest") return unknownUses;
  const { uses, unknown } = await sourceUsesOf(before, texts);
  return { queries: [], source: uses, unknown, searched: true };
}

/** Types of the schema that source can name, and that the same query documents no longer bring into an SDK. */
function graphqlNames(planned: readonly PlannedSides[]): Change[] {
  return mergedForSdks(
    planned.map(({ sdk, before, after, facts }) => ({ sdk, changes: compareGraphqlNames(before, after, facts) })),
  );
}

/** Returns the errors that query documents have with the new schema and did not have with the old one. */
export function refusedOf([before, after]: readonly [Side, Side], documents: readonly SourceText[]): RefusedQuery[] {
  const [from, to] = [before.checkedQueries(documents), after.checkedQueries(documents)];
  return from && to ? refusedQueries(from.problems, to.problems, documents) : [];
}
