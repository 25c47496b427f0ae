import { comparePlans } from "../../core/change/compare/comparePlans.js";
import { judgeByPlans, type SeenThroughSdk } from "../../core/change/judge/judgeByPlans.js";
import type { JudgedChange } from "../../core/change/judge/judgedChange.js";
import type { RefusedQuery } from "../../core/graphql/documents/refusedQueries.js";
import type { Side } from "../sources/side.js";
import { findSourceUses } from "../uses/findSourceUses.js";
import type { PlannedSides } from "./plannedSides.js";
import type { OpenedProject } from "../project/openProject.js";

/**
 * Searches source where a query uses a changed part, in languages without a compiler to run: the scan of source shows
 * what it does with the response.
 *
 * @param planned the current SDKs and the new ones
 * @param refused the errors of the query documents with the new schema
 */
export async function judgeBySource(
  changes: readonly JudgedChange[],
  before: Side,
  {
    project,
    planned,
    refused,
  }: {
    readonly project: OpenedProject;
    readonly planned: readonly PlannedSides[];
    readonly refused: readonly RefusedQuery[];
  },
): Promise<readonly JudgedChange[]> {
  if (!changes.some(({ use }) => use === "used")) return changes;
  const asked: PlannedSides[] = [];
  for (const each of planned) {
    const { tools } = await project.session.language(each.language);
    if (!tools.proof && tools.uses?.hasSources(project) === true) asked.push(each);
  }
  if (asked.length === 0) return changes;
  const sdks = new Set(asked.map(({ sdk }) => sdk));
  const { uses } = await findSourceUses(project, { side: before, isWritten: before.isPinned }, sdks);
  const seen = asked.map(({ sdk, before: old, after, facts }): SeenThroughSdk => ({
    sdk,
    differences: comparePlans(old, after, facts),
    uses: { source: uses.filter((use) => use.sdk === sdk) },
  }));
  return judgeByPlans(changes, seen, refused);
}
