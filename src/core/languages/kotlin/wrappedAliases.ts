import type { Shape } from "../../contract/model.js";
import { eachChild } from "../../contract/childReferences.js";
import type { PlannedType } from "../../sdk/sdkPlan.js";

/**
 * Ids of the types that are only another name for a list, a map or a tuple, and hold themselves through nothing but such
 * names: the language has no alias of that kind.
 */
export function wrappedAliases(types: ReadonlyMap<string, PlannedType>): Set<string> {
  return new Set(
    [...types.values()].filter((type) => isAlias(type.shape) && holdsItself(type, types)).map(({ id }) => id),
  );
}

/** Whether a type has no class of its own. */
export function isAlias({ kind }: Shape): boolean {
  return kind !== "record" && kind !== "choice" && kind !== "union";
}

function holdsItself({ id, shape }: PlannedType, types: ReadonlyMap<string, PlannedType>): boolean {
  const seen = new Set<string>();
  const open: Shape[] = [shape];
  for (let next = open.pop(); next; next = open.pop()) {
    if (next.kind !== "named") {
      if (isAlias(next)) eachChild(next, (child) => open.push(child.shape));
      continue;
    }
    if (next.key === id) return true;
    const type = types.get(next.key);
    if (!type || seen.has(next.key) || !isAlias(type.shape)) continue;
    seen.add(next.key);
    open.push(type.shape);
  }
  return false;
}
