import { NameScope } from "../sdk/nameScope.js";
import type { ContractPlan, PlannedType } from "../sdk/sdkPlan.js";

/** The names of a plan's types in a language with nested types. */
export interface NestedTypeNames {
  /** As in source: "Berth", or "BerthAnswer.Boat" for a nested type. */
  readonly types: ReadonlyMap<string, string>;
  /** As one word. */
  readonly flat: ReadonlyMap<string, string>;
  /** The ids of the types inside another one, by that one's id, in the plan's order. */
  readonly nested: ReadonlyMap<string, readonly string[]>;
}

/** How a language spells types. */
export interface TypeSpelling {
  readonly identifier: (name: string) => string;
  /** Names that nested types must not have. */
  readonly reserved: readonly string[];
  /** The largest length of a nested type's full name. */
  readonly longestPath: number;
}

/**
 * Names the types of a plan. Types inside a response or a fragment are nested there, under a short name.
 *
 * @param scope the names of top-level declarations
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
  // Types that keep the plan's name come first, so that a renamed type does not affect others.
  for (const type of alone) if (identifier(type.name) === type.name && !scope.isTaken(type.name)) claimType(type);
  for (const type of alone) if (!types.has(type.id)) claimType(type);
  // A type comes before those inside it.
  for (const type of all)
    if (type.inside && isNested(type)) claimNested(type, type.inside.type, identifier(type.inside.name));
  return { types, flat, nested };
}
