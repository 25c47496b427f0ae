import type { Reference, UnionShape } from "../../../contract/model.js";
import { saysTag } from "../../../sdk/lower/values/sample.js";
import type { PlannedType } from "../../../sdk/sdkPlan.js";

/** The unions whose members are records that implement the union's interface. */
export interface DirectUnions {
  /** The ids of such unions. */
  readonly ids: ReadonlySet<string>;
  /** The ids of the unions that a record is a member of, by the record's id. */
  readonly of: ReadonlyMap<string, readonly string[]>;
}

/**
 * Returns the unions in which each member is a record with a name, occurs once, and can be written as itself.
 *
 * @param isReadOnly whether nothing is written, as in responses to queries
 */
export function directUnions(types: ReadonlyMap<string, PlannedType>, isReadOnly: boolean): DirectUnions {
  const ids = new Set<string>();
  const of = new Map<string, string[]>();
  for (const { id, shape } of types.values()) {
    if (shape.kind !== "union" || !isDirect(shape, types, isReadOnly)) continue;
    ids.add(id);
    for (const key of keysOf(shape)) of.set(key, [...(of.get(key) ?? []), id]);
  }
  return { ids, of };
}

function isDirect(union: UnionShape, types: ReadonlyMap<string, PlannedType>, isReadOnly: boolean): boolean {
  const keys = keysOf(union);
  if (keys.length === 0 || keys.length < union.members.length || new Set(keys).size < keys.length) return false;
  if (!keys.every((key) => types.get(key)?.shape.kind === "record")) return false;
  const { tag } = union;
  // A record without fields of its own is a member that the schema does not have yet.
  return (
    !tag ||
    isReadOnly ||
    union.members.every((member, at) => (tag.values[at] ?? []).length < 2 || saysTag(member, tag.field, types))
  );
}

function keysOf({ members }: UnionShape): string[] {
  return members.flatMap(({ shape }: Reference) => (shape.kind === "named" ? [shape.key] : []));
}
