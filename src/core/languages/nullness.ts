import type { Reference, Shape } from "../contract/model.js";
import type { PlannedType } from "../sdk/sdkPlan.js";

/** What decides whether null is among the values of a type, beside the contract. */
export interface NullContext {
  readonly types: ReadonlyMap<string, PlannedType>;
  /** Names for something that are types of their own. */
  readonly wrapped: ReadonlySet<string>;
  /** Whether what the contract leaves unsaid is a JSON value, which holds JSON's own null. */
  readonly isJson: (shape: Shape & { readonly kind: "any" }) => boolean;
}

/** Whether null is among the values of a use of a shape where the use says so, and nowhere else: of most shapes. */
export function isNullSaid({ kind }: Shape): boolean {
  return kind !== "named" && kind !== "any" && kind !== "union";
}

/** Whether null is among the values of a use of a shape, in languages that have a type for that. */
export function holdsNull({ shape, nullable }: Reference, context: NullContext): boolean {
  const inner = aliasTarget(shape, context);
  if (inner.kind === "any") return !context.isJson(inner) && nullable;
  if (nullable || inner.kind !== "union") return nullable;
  const unions = new Set([inner]);
  // A set that grows is walked to its end.
  for (const { members } of unions)
    for (const member of members) {
      const target = aliasTarget(member.shape, context);
      if (target.kind === "union" && !member.nullable) unions.add(target);
      else if (holdsNull(member, context)) return true;
    }
  return false;
}

/** What a name stands for that has no type of its own. */
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
