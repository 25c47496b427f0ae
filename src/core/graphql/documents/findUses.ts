import {
  getNamedType,
  isAbstractType,
  isCompositeType,
  isEnumType,
  isInputObjectType,
  isInterfaceType,
  isScalarType,
  isUnionType,
  Kind,
  TypeInfo,
  typeFromAST,
  visit,
  visitWithTypeInfo,
  type FragmentDefinitionNode,
  type GraphQLCompositeType,
  type GraphQLNamedType,
  type GraphQLObjectType,
  type GraphQLSchema,
  type OperationDefinitionNode,
  type SelectionSetNode,
  type ValueNode,
} from "graphql";
import type { Place } from "../../problem/place.js";
import { placeOfNode } from "../graphqlPlace.js";
import { memberNeeds } from "./memberNeeds.js";
import type { QueryUse, UseKind } from "./queryModel.js";

/** Every place where the definitions depend on something of the schema, in document order. */
export function findUses(
  schema: GraphQLSchema,
  nodes: readonly (OperationDefinitionNode | FragmentDefinitionNode)[],
): QueryUse[] {
  const maybeNull = nullableVariables(nodes);
  const fragments = new Map(
    nodes.flatMap((node) => (node.kind === Kind.FRAGMENT_DEFINITION ? [[node.name.value, node] as const] : [])),
  );
  return nodes.flatMap((node) => usesOf(schema, node, { maybeNull, fragments }));
}

/** Variables that may be null or left out; a fragment may be sent by any of the operations. */
function nullableVariables(nodes: readonly (OperationDefinitionNode | FragmentDefinitionNode)[]): Set<string> {
  return new Set(
    nodes.flatMap((node) =>
      node.kind === Kind.OPERATION_DEFINITION
        ? (node.variableDefinitions ?? [])
            .filter(({ type, defaultValue }) => type.kind !== Kind.NON_NULL_TYPE && !defaultValue)
            .map(({ variable }) => variable.name.value)
        : [],
    ),
  );
}

function usesOf(
  schema: GraphQLSchema,
  definition: OperationDefinitionNode | FragmentDefinitionNode,
  {
    maybeNull,
    fragments,
  }: { readonly maybeNull: ReadonlySet<string>; readonly fragments: ReadonlyMap<string, FragmentDefinitionNode> },
): QueryUse[] {
  const conditions = new Map([...fragments].map(([name, { typeCondition }]) => [name, typeCondition.name.value]));
  const uses: QueryUse[] = [];
  const info = new TypeInfo(schema);
  const owner = definition.name?.value ?? "";
  const add = (
    coordinate: string,
    kind: UseKind,
    { place, more }: { readonly place: Place; readonly more?: Pick<QueryUse, "keys" | "selected"> | undefined },
  ): void => {
    uses.push({ coordinate, kind, owner, operations: [], place, ...more });
  };
  visit(
    definition,
    visitWithTypeInfo(info, {
      [Kind.FIELD](node) {
        const parent = info.getParentType();
        const field = info.getFieldDef();
        const place = placeOfNode(node);
        if (parent && node.name.value === "__typename")
          for (const name of kindsOf(schema, parent)) add(`${name}~`, "matches", { place });
        if (!parent || !field || field.name.startsWith("__")) return;
        const type = getNamedType(field.type);
        const selected = node.selectionSet && selectedIn(node.selectionSet, fragments);
        add(`${parent.name}.${field.name}`, "selects", { place, more: selected && { selected } });
        if (isEnumType(type) || isScalarType(type) || isAbstractType(type)) add(type.name, "selects", { place });
        if (isAbstractType(type) && node.selectionSet) {
          const { isTold, keys } = memberNeeds(node.selectionSet, type, { schema, fragments });
          if (isTold) {
            add(`${type.name}*`, "matches", { place });
            for (const name of kindsOf(schema, type)) add(`${name}~`, "matches", { place });
          }
          const coordinate = `${type.name}${isTold ? "+" : "&"}`;
          if (keys.some((ways) => ways.every((way) => way.length > 0)))
            add(coordinate, "matches", { place, more: { keys } });
        }
        for (const argument of field.args) {
          const given = node.arguments?.find((each) => each.name.value === argument.name);
          const coordinate = `${parent.name}.${field.name}(${argument.name}:)`;
          if (given) {
            add(coordinate, "passes", { place: placeOfNode(given) });
            if (given.value.kind === Kind.VARIABLE) {
              add(`${coordinate}$`, "passes", { place: placeOfNode(given) });
            }
            if (mayBeNull(given.value, maybeNull)) add(`${coordinate}$?`, "passes", { place: placeOfNode(given) });
          } else add(`${parent.name}.${field.name}(${argument.name}:)?`, "passes", { place });
        }
      },
      [Kind.VARIABLE_DEFINITION](node) {
        const type = typeFromAST(schema, node.type);
        const place = placeOfNode(node.variable);
        if (type) add(`${getNamedType(type).name}$`, "sends", { place });
        if (type)
          sendsType(getNamedType(type), (coordinate) => {
            add(coordinate, "sends", { place });
          });
      },
      [Kind.OBJECT_FIELD](node) {
        const parent = getNamedType(info.getParentInputType());
        if (!isInputObjectType(parent)) return;
        const coordinate = `${parent.name}.${node.name.value}`;
        add(coordinate, "sends", { place: placeOfNode(node) });
        if (node.value.kind === Kind.VARIABLE) add(`${coordinate}$`, "sends", { place: placeOfNode(node) });
        if (mayBeNull(node.value, maybeNull)) add(`${coordinate}$?`, "sends", { place: placeOfNode(node) });
      },
      [Kind.ENUM](node) {
        const type = getNamedType(info.getInputType());
        if (isEnumType(type)) add(`${type.name}.${node.value}`, "sends", { place: placeOfNode(node) });
      },
      [Kind.OBJECT](node) {
        const type = getNamedType(info.getInputType());
        if (!isInputObjectType(type)) return;
        // Who writes an input out is hit by what it leaves out.
        for (const field of Object.values(type.getFields()))
          if (!node.fields.some(({ name }) => name.value === field.name))
            add(`${type.name}.${field.name}?`, "sends", { place: placeOfNode(node) });
        add(`${type.name}{}`, "sends", { place: placeOfNode(node) });
      },
      [Kind.DIRECTIVE](node) {
        const directive = schema.getDirective(node.name.value);
        const place = placeOfNode(node);
        add(`@${node.name.value}`, "names", { place });
        for (const argument of directive?.args ?? []) {
          const coordinate = `@${node.name.value}(${argument.name}:)`;
          const given = node.arguments?.find((each) => each.name.value === argument.name);
          if (!given) add(`${coordinate}?`, "passes", { place });
          else {
            add(coordinate, "passes", { place: placeOfNode(given) });
            if (given.value.kind === Kind.VARIABLE) add(`${coordinate}$`, "passes", { place: placeOfNode(given) });
            if (mayBeNull(given.value, maybeNull)) add(`${coordinate}$?`, "passes", { place: placeOfNode(given) });
          }
        }
      },
      [Kind.INLINE_FRAGMENT]: {
        enter(node) {
          if (node.typeCondition)
            add(node.typeCondition.name.value, "matches", { place: placeOfNode(node.typeCondition) });
        },
      },
      [Kind.SELECTION_SET](node) {
        const parent = info.getParentType();
        if (!parent) return;
        for (const selection of node.selections) {
          const condition =
            selection.kind === Kind.INLINE_FRAGMENT
              ? selection.typeCondition?.name.value
              : selection.kind === Kind.FRAGMENT_SPREAD
                ? conditions.get(selection.name.value)
                : undefined;
          const other = condition === undefined ? undefined : schema.getType(condition);
          if (other && isCompositeType(other) && other !== parent)
            for (const bridge of bridges(schema, parent, other))
              add(bridge, "matches", { place: placeOfNode(selection) });
        }
      },
      [Kind.FRAGMENT_DEFINITION](node) {
        add(node.typeCondition.name.value, "names", { place: placeOfNode(node.typeCondition) });
      },
    }),
  );
  return uses;
}

/** Whether null is sent where a value stands, or may be. */
function mayBeNull(value: ValueNode, maybeNull: ReadonlySet<string>): boolean {
  return value.kind === Kind.NULL || (value.kind === Kind.VARIABLE && maybeNull.has(value.name.value));
}

/** Types a value of a type can be. */
function possibleTypes(schema: GraphQLSchema, type: GraphQLCompositeType): readonly GraphQLObjectType[] {
  return isAbstractType(type) ? schema.getPossibleTypes(type) : [type];
}

function kindsOf(schema: GraphQLSchema, type: GraphQLCompositeType): string[] {
  return possibleTypes(schema, type).map(({ name }) => name);
}

/** What a fragment on one type inside another depends on: that the types both can be implement those that are interfaces. */
function bridges(schema: GraphQLSchema, outer: GraphQLCompositeType, inner: GraphQLCompositeType): string[] {
  const inside = new Set(possibleTypes(schema, inner));
  const shared = possibleTypes(schema, outer).filter((type) => inside.has(type));
  const interfaces = [outer, inner].filter(isInterfaceType);
  const unions = [outer, inner].filter(isUnionType);
  const pairs = [...shared, ...interfaces];
  const ofUnions = unions.flatMap((union) => shared.map((type) => `${type.name}:${union.name}`));
  const ofInterfaces = pairs.flatMap((type) =>
    interfaces
      .filter((each) => each !== type && type.getInterfaces().includes(each))
      .map((each) => `${type.name}:${each.name}`),
  );
  return [...ofUnions, ...ofInterfaces];
}

/** What a selection asks of a value: names of fields, and the types that fragments are on, all of them looked into. */
function selectedIn(
  set: SelectionSetNode,
  fragments: ReadonlyMap<string, FragmentDefinitionNode>,
  {
    found = new Set<string>(),
    seen = new Set<SelectionSetNode>(),
  }: { readonly found?: Set<string> | undefined; readonly seen?: Set<SelectionSetNode> | undefined } = {},
): string[] {
  if (seen.has(set)) return [...found];
  seen.add(set);
  for (const selection of set.selections) {
    if (selection.kind === Kind.FIELD) {
      found.add(selection.name.value);
      continue;
    }
    const inner = selection.kind === Kind.INLINE_FRAGMENT ? selection : fragments.get(selection.name.value);
    if (!inner) continue;
    if (inner.typeCondition) found.add(`on ${inner.typeCondition.name.value}`);
    selectedIn(inner.selectionSet, fragments, { found, seen });
  }
  return [...found];
}

/** A variable of an input type may carry every field the type reaches. */
function sendsType(type: GraphQLNamedType, add: (coordinate: string) => void, seen = new Set<string>()): void {
  if (seen.has(type.name)) return;
  seen.add(type.name);
  add(type.name);
  if (!isInputObjectType(type)) return;
  for (const field of Object.values(type.getFields())) {
    add(`${type.name}.${field.name}`);
    sendsType(getNamedType(field.type), add, seen);
  }
}
