import type { GraphqlContract } from "../contract/model.js";
import type { GraphqlPlan } from "../sdk/sdkPlan.js";
import type { Change } from "./change.js";
import { applyRules } from "./changeContext.js";
import { renamedTypes } from "./renamedTypes.js";
import type { SdkFacts } from "./sdkFacts.js";

/** One side of a schema, with the SDK that the same query documents get from it. */
export interface PlannedSide {
  readonly contract: GraphqlContract;
  readonly plan: GraphqlPlan;
}

/** Types that source can import by the name the schema gives them, and that an SDK no longer has. */
export function compareGraphqlNames(before: PlannedSide, after: PlannedSide, facts: SdkFacts): Change[] {
  const changes: Change[] = [];
  const names = ({ contract, plan }: PlannedSide): Set<string> =>
    new Set([...plan.types.values()].map(({ name }) => name).filter((name) => contract.types.has(name)));
  compareMadeUp(before, after, facts, changes);
  const renames = renamedTypes(before.contract, after.contract);
  const kept = names(after);
  for (const name of names(before)) {
    if (kept.has(name)) continue;
    const renamed = renames.get(name);
    const successor = renamed !== undefined && kept.has(renamed) ? renamed : undefined;
    const source = facts.typeName(name);
    applyRules(
      changes,
      "name",
      {
        subject: name,
        face: "operation",
        coordinates: [source, `${source}{}`],
        word: name,
        before: name,
        successor,
        placeBefore: before.contract.types.get(name)?.place,
        placeAfter: successor === undefined ? undefined : after.contract.types.get(successor)?.place,
      },
      facts,
    );
  }
  return changes;
}

/** Names of what operations answer, as long as the operation is there: what becomes of others is told of the operation. */
function compareMadeUp(before: PlannedSide, after: PlannedSide, facts: SdkFacts, changes: Change[]): void {
  const kept = new Set([...after.plan.types.values()].map(({ name }) => name));
  const there = new Set(after.plan.calls.map(({ operation }) => operation.name));
  const gone = before.plan.calls.map(({ operation }) => operation.name).filter((name) => !there.has(name));
  for (const { name } of before.plan.types.values()) {
    if (kept.has(name) || before.contract.types.has(name)) continue;
    const belongs = gone.some((operation) => name.startsWith(facts.typeName(operation)));
    if (belongs) continue;
    const coordinates = [facts.typeName(name)];
    const point = { subject: name, face: "operation", coordinates, word: name, before: name } as const;
    applyRules(changes, "name", { ...point, isMadeUp: true }, facts);
  }
}
