import {
  isAbstractType,
  Kind,
  type FragmentDefinitionNode,
  type GraphQLAbstractType,
  type GraphQLObjectType,
  type GraphQLSchema,
  type SelectionSetNode,
} from "graphql";

/** What a selection on an abstract type needs from the possible types of its value. */
export interface MemberNeeds {
  /** Whether it distinguishes types: it selects the type name, or has fragments for some types only. */
  readonly isTold: boolean;
  /** The ways to each key that every type has today. A way is the list of types that a value must have. */
  readonly keys: readonly Ways[];
}

/**
 * The ways to one key. A way is the conditions of the fragments around it, without those that always hold for the type
 * itself.
 */
export type Ways = readonly (readonly string[])[];

/**
 * Returns the needs of a selection on an abstract type.
 *
 * @param fragments the fragments with names
 */
export function memberNeeds(
  set: SelectionSetNode,
  type: GraphQLAbstractType,
  {
    schema,
    fragments,
  }: { readonly schema: GraphQLSchema; readonly fragments: ReadonlyMap<string, FragmentDefinitionNode> },
): MemberNeeds {
  const possible = schema.getPossibleTypes(type);
  const ways = new Map<string, (readonly string[])[]>();
  let isTold = false;
  // Read again under more conditions, a selection adds nothing.
  const seen = new Map<SelectionSetNode, (readonly string[])[]>();
  const look = (inside: SelectionSetNode, conditions: readonly string[]): void => {
    const earlier = seen.get(inside) ?? [];
    if (earlier.some((way) => way.every((condition) => conditions.includes(condition)))) return;
    seen.set(inside, [...earlier, conditions]);
    for (const selection of inside.selections) {
      if (selection.kind === Kind.FIELD) {
        if (selection.name.value === "__typename") isTold = true;
        else {
          const key = selection.alias?.value ?? selection.name.value;
          ways.set(key, [...(ways.get(key) ?? []), conditions]);
        }
        continue;
      }
      const inner = selection.kind === Kind.INLINE_FRAGMENT ? selection : fragments.get(selection.name.value);
      if (!inner) continue;
      const condition = inner.typeCondition?.name.value;
      const isOwn = condition === undefined || condition === type.name;
      if (!isOwn && !possible.every((each) => holds(schema, condition, each))) isTold = true;
      look(inner.selectionSet, isOwn || conditions.includes(condition) ? conditions : [...conditions, condition]);
    }
  };
  look(set, []);
  const keys = [...ways.values()].filter((each) =>
    possible.every((object) => each.some((way) => way.every((condition) => holds(schema, condition, object)))),
  );
  return { isTold, keys };
}

function holds(schema: GraphQLSchema, condition: string, object: GraphQLObjectType): boolean {
  const wanted = schema.getType(condition);
  return wanted === object || (isAbstractType(wanted) && schema.isSubType(wanted, object));
}
