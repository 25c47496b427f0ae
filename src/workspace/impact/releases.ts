import type { ReleasedImpact } from "../../core/change/judge/releasedUsers.js";
import type { Release } from "../../core/change/judge/release.js";
import { judgeUse } from "../../core/change/judge/impact.js";
import { compareForSdks } from "./compareForSdks.js";
import { applyPolicy } from "../../core/change/judge/policy.js";
import { unacceptedRefusals } from "../../core/change/judge/unacceptedRefusals.js";
import { withoutTaken } from "../../core/change/compare/withoutTaken.js";
import { today } from "./acceptances.js";
import { readSide, refusedOf } from "./compareWithPin.js";
import type { Side } from "../sources/side.js";
import type { OpenedProject } from "../project/openProject.js";
import { sideTexts } from "./sides.js";

/** The effect of the current contract on a released app. Its code is not rated, because it is already released. */
export interface ReleaseImpact extends ReleasedImpact {
  readonly texts: ReadonlyMap<string, string>;
}

/**
 * Compares a contract with every configured release, by the verdict for released apps. For GraphQL, a release's own
 * query documents show its uses. For REST, they are unknown.
 *
 * @throws Halt if a release names a revision or file that does not exist
 */
export async function releaseImpacts(
  project: OpenedProject,
  contract: string,
  { now, releases }: { readonly now: Side; readonly releases: readonly Release[] },
): Promise<ReleaseImpact[]> {
  const found: ReleaseImpact[] = [];
  for (const release of releases) {
    const side = await sideTexts(project, contract, { spec: release.name, cwd: project.root });
    if (!side) continue;
    const before = readSide(contract, side.texts, { label: release.name });
    const { protocol } = before.reading.contract;
    if (protocol !== now.reading.contract.protocol) continue;
    const compared = await compareForSdks([before.reading.contract, now.reading.contract], project, project.session);
    // The source of released apps is not available.
    const changes = compared
      .map(({ sdks: _sdks, ...change }) => ({
        ...change,
        verdict: { code: "compatible", apps: change.verdict.apps } as const,
      }))
      .filter(({ verdict }) => verdict.apps !== "compatible");
    const documents = side.operations ? [side.operations] : [];
    const queries = side.operations && before.checkedQueries(documents)?.uses;
    const uses = { queries: queries ?? [], searched: queries !== undefined };
    const refused = refusedOf([before, now], documents);
    const scanned = withoutTaken(judgeUse(changes, protocol, uses), refused);
    const judged = applyPolicy(scanned, project.configuration.guard ?? {}, { contract, today: today() });
    const texts = [...side.texts, ...(side.operations ? [side.operations] : [])];
    found.push({
      release,
      impact: {
        contract,
        from: `release ${release.name}`,
        to: now.label,
        isReleased: true,
        contracts: { before: before.reading.contract, after: now.reading.contract },
        changes: judged,
        brokenQueries: unacceptedRefusals(refused, judged),
      },
      texts: new Map(texts.map(({ document, text }) => [document, text])),
    });
  }
  return found;
}
