import { printCoordinate } from "../../use/coordinate.js";
import type { GraphqlContract } from "../../contract/model.js";
import type { GraphqlPlan } from "../../sdk/sdkPlan.js";
import type { Change } from "../change.js";
import { applyRules } from "../changeContext.js";
import { renamedTypes } from "./renamedTypes.js";
import type { SdkFacts } from "../sdkFacts.js";

/** One version of a schema, with the SDK for it and the same query documents. */
export interface PlannedSide {
  readonly contract: GraphqlContract;
  readonly plan: GraphqlPlan;
}

/** Returns the types that an SDK no longer has, of those that source can import by the schema's name. */
export function compareGraphqlNames(before: PlannedSide, after: PlannedSide, facts: SdkFacts): Change[] {
  const changes: Change[] = [];
  const names = ({ contract, plan }: PlannedSide): Set<string> =>
    new Set([...plan.types.values()].map(({ name }) => name).filter((name) => contract.types.has(name)));
  changes.push(...madeUpNames(before, after, facts));
  const renames = renamedTypes(before.contract, after.contract);
  const kept = names(after);
  for (const name of names(before)) {
    if (kept.has(name)) continue;
    const renamed = renames.get(name);
    const successor = renamed !== undefined && kept.has(renamed) ? renamed : undefined;
    const source = facts.typeName(name);
    applyRules(changes, "name", {
      point: {
        subject: name,
        face: "operation",
        coordinates: [printCoordinate(source), printCoordinate(source, "built")],
        word: name,
        before: name,
        successor,
        placeBefore: before.contract.types.get(name)?.place,
        placeAfter: successor === undefined ? undefined : after.contract.types.get(successor)?.place,
      },
      facts,
    });
  }
  return changes;
}

/** The names of types in responses, as long as their query exists. A removed query is a change of its own. */
function madeUpNames(before: PlannedSide, after: PlannedSide, facts: SdkFacts): Change[] {
  const changes: Change[] = [];
  const { types } = facts.names(before.plan);
  const kept = new Set([...after.plan.types.values()].map(({ name }) => name));
  const there = new Set(queriesOf(after));
  const gone = queriesOf(before).filter((name) => !there.has(name));
  for (const { id, name } of before.plan.types.values()) {
    if (kept.has(name) || before.contract.types.has(name) || gone.some((query) => name.startsWith(query))) continue;
    const coordinates = [printCoordinate(types.get(id) ?? facts.typeName(name))];
    const point = { subject: name, face: "operation", coordinates, word: name, before: name } as const;
    applyRules(changes, "name", { point: { ...point, isMadeUp: true }, facts });
  }
  return changes;
}

/** The names of operations and fragments, which are the beginnings of type names. */
function queriesOf({ plan }: PlannedSide): string[] {
  return [...plan.calls, ...plan.fragments].map(({ name }) => name);
}
