import type { ContractImpact } from "../../core/change/judge/judgedChange.js";
import type { ShownTexts } from "../../core/problem/shownTexts.js";
import { placeJson, problemJson } from "./problemJson.js";

/**
 * Returns the impact on one contract for `--json`.
 *
 * @param before the texts of the old contract and of the project
 * @param after the texts of the new contract
 */
export function impactJson(impact: ContractImpact, before: ShownTexts, after: ShownTexts): object {
  return {
    contract: impact.contract,
    from: impact.from,
    to: impact.to,
    changes: impact.changes.map((change) => ({
      code: change.code,
      face: change.face,
      subject: change.subject,
      message: change.message,
      verdict: change.verdict,
      sdks: change.sdks?.map(({ sdk, code, use }) => ({ sdk, code, use })),
      use: change.use,
      operations: change.operations,
      before: change.before && placeJson(change.before, before),
      after: change.after && placeJson(change.after, after),
      hits: change.hits.map((hit) => ({
        owner: hit.owner,
        operations: hit.operations,
        how: hit.kind,
        ...placeJson(hit.place, before),
      })),
      errors: change.errors?.map(({ place, code, message }) => ({ code, message, ...placeJson(place, before) })),
      users: change.users,
      leveled: change.leveled,
      accepted: change.accepted,
      hint: change.hint,
    })),
    brokenQueries: impact.brokenQueries.map((problem) => problemJson(problem, before)),
  };
}
