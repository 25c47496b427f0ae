import { NameScope } from "../sdk/nameScope.js";
import type { ContractPlan, PlannedType } from "../sdk/sdkPlan.js";

/** Names of the types of a plan in a language that nests types. */
export interface NestedTypeNames {
  /** As source spells them: "Berth", or "BerthAnswer.Boat" where one stands in another. */
  readonly types: ReadonlyMap<string, string>;
  /** In one word. */
  readonly flat: ReadonlyMap<string, string>;
  /** Ids of the types that stand in another one, by that one's id, in the plan's order. */
  readonly nested: ReadonlyMap<string, readonly string[]>;
}

/** How a language spells types. */
export interface TypeSpelling {
  readonly identifier: (name: string) => string;
  /** Names that nothing nested may have. */
  readonly reserved: readonly string[];
  /** As long as the whole name of a nested type may be. */
  readonly longestPath: number;
}

/**
 * Names the types of a plan. What stands inside an answer or a fragment is nested there, under a short name.
 *
 * @param scope of the names that stand alone
 */
export function nestedTypeNames(
  plan: ContractPlan,
  scope: NameScope,
  { identifier, reserved, longestPath }: TypeSpelling,
): NestedTypeNames {
  const types = new Map<string, string>();
  const flat = new Map<string, string>();
  const nested = new Map<string, string[]>();
  const scopes = new Map<string, NameScope>();
  const claimType = (type: PlannedType): void => {
    const name = scope.claim(identifier(type.name), type.id, type.name);
    types.set(type.id, name);
    flat.set(type.id, name);
  };
  const claimNested = (type: PlannedType, outer: string, wanted: string): void => {
    const path = types.get(outer) ?? "";
    if (path.length + wanted.length >= longestPath) {
      claimType(type);
      return;
    }
    const inside = scopes.get(outer) ?? new NameScope(reserved);
    scopes.set(outer, inside);
    types.set(type.id, `${path}.${inside.claim(wanted, type.id)}`);
    flat.set(type.id, scope.claim(identifier(type.name), type.id));
    nested.set(outer, [...(nested.get(outer) ?? []), type.id]);
  };
  const all = [...plan.types.values()];
  const isNested = ({ inside }: PlannedType): boolean => plan.protocol === "graphql" && inside !== undefined;
  const alone = all.filter((type) => !isNested(type));
  // What is called as the plan says comes first, so that what is moved out of the way moves no other.
  for (const type of alone) if (identifier(type.name) === type.name && !scope.isTaken(type.name)) claimType(type);
  for (const type of alone) if (!types.has(type.id)) claimType(type);
  // A type comes before those that stand in it.
  for (const type of all)
    if (type.inside && isNested(type)) claimNested(type, type.inside.type, identifier(type.inside.name));
  return { types, flat, nested };
}
