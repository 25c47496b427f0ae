import type { PlannedType } from "../../../sdk/sdkPlan.js";
import { memberNameFrom, spelledTypeName } from "../../../sdk/nameScope.js";

/**
 * Returns whether a type of a GraphQL contract is part of a response or a fragment. Only those have no names in the
 * schema.
 */
export function isAnswer(id: string): boolean {
  return id.startsWith("inline ");
}

/**
 * Returns the names of keys in responses, the same in all responses of a contract, because a record has the properties
 * of the fragments that it spreads. A key keeps its name if it is already in camelCase.
 *
 * @returns names in camelCase by key
 */
export function answerKeys(types: Iterable<PlannedType>): Map<string, string> {
  const byName = new Map<string, Set<string>>();
  for (const { shape, id } of types) {
    if (shape.kind !== "record" || !isAnswer(id)) continue;
    for (const { name } of shape.fields) {
      const wanted = memberNameFrom(name);
      byName.set(wanted, (byName.get(wanted) ?? new Set<string>()).add(name));
    }
  }
  const names = new Map<string, string>();
  for (const [wanted, keys] of byName)
    for (const key of keys)
      names.set(key, keys.size === 1 || key === wanted ? wanted : memberNameFrom(spelledTypeName(key)));
  return names;
}
