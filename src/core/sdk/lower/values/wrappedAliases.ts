import type { Shape } from "../../../contract/model.js";
import { eachChild } from "../../../contract/childReferences.js";
import type { PlannedType } from "../../sdkPlan.js";

/**
 * Returns the ids of types that are only another name for a list, a map or a tuple, but need a class. These are the
 * types that contain themselves through such names only, for which the language has no alias, and those whose alias
 * would be too long for the compiler.
 */
export function wrappedAliases(types: ReadonlyMap<string, PlannedType>): Set<string> {
  const aliases = [...types.values()].filter(({ shape }) => isAlias(shape));
  const wrapped = new Set(aliases.filter((type) => holdsItself(type, types)).map(({ id }) => id));
  const sizes = new Map<string, number>();
  const sizeOf = (shape: Shape): number => {
    const type = shape.kind === "named" ? types.get(shape.key) : undefined;
    if (type) return isAlias(type.shape) && !wrapped.has(type.id) ? aliasSize(type) : 1;
    let size = 1;
    eachChild(shape, (child) => (size += sizeOf(child.shape)));
    return size;
  };
  const aliasSize = ({ id, shape }: PlannedType): number => {
    const found = sizes.get(id) ?? sizeOf(shape);
    sizes.set(id, found);
    if (found > longestAlias) wrapped.add(id);
    return wrapped.has(id) ? 1 : found;
  };
  for (const alias of aliases) aliasSize(alias);
  return wrapped;
}

/** The largest number of names in a type. */
const longestAlias = 100;

/** Returns whether a type has no class of its own. */
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
