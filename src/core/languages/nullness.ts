import type { Reference, Shape } from "../contract/model.js";
import type { PlannedType } from "../sdk/sdkPlan.js";

/** What decides whether a type includes null, besides the contract. */
export interface NullContext {
  readonly types: ReadonlyMap<string, PlannedType>;
  /** Type names that have a type of their own. */
  readonly wrapped: ReadonlySet<string>;
  /** Whether a value without a type in the contract is a JSON value, which includes JSON's null. */
  readonly isJson: (shape: Shape & { readonly kind: "any" }) => boolean;
}

/** Returns whether, for a shape, only the use decides if null is a value. This is so for most shapes. */
export function isNullSaid({ kind }: Shape): boolean {
  return kind !== "named" && kind !== "any" && kind !== "union";
}

/** Returns whether null is a value of a use of a shape, for languages with nullable types. */
export function holdsNull({ shape, nullable }: Reference, context: NullContext): boolean {
  const inner = aliasTarget(shape, context);
  if (inner.kind === "any") return !context.isJson(inner) && nullable;
  if (nullable || inner.kind !== "union") return nullable;
  const unions = new Set([inner]);
  // A set that grows during the loop is read to its end.
  for (const { members } of unions)
    for (const member of members) {
      const target = aliasTarget(member.shape, context);
      if (target.kind === "union" && !member.nullable) unions.add(target);
      else if (holdsNull(member, context)) return true;
    }
  return false;
}

/** The definition of a name without a type of its own. */
function aliasTarget(shape: Shape, { types, wrapped }: NullContext): Shape {
  let found = shape;
  // A name that leads back to itself has a type.
  while (found.kind === "named" && !wrapped.has(found.key)) {
    const next = types.get(found.key);
    if (!next) break;
    found = next.shape;
  }
  return found;
}
