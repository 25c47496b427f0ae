import type { PlannedType } from "../../../sdk/sdkPlan.js";
import { memberNameFrom, spelledTypeName } from "../../../sdk/nameScope.js";

/** Whether a type of a GraphQL contract is part of an answer or a fragment, which alone have no names in the schema. */
export function isAnswer(id: string): boolean {
  return id.startsWith("inline ");
}

/**
 * What the keys of answers are called, the same in all of a contract's answers: a record has the properties of the
 * fragments that it spreads. A key that is called so already keeps its name.
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
