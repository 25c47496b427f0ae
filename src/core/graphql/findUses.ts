import {
  getNamedType,
  isAbstractType,
  isEnumType,
  isInputObjectType,
  isScalarType,
  Kind,
  TypeInfo,
  typeFromAST,
  visit,
  visitWithTypeInfo,
  type FragmentDefinitionNode,
  type GraphQLNamedType,
  type GraphQLSchema,
  type OperationDefinitionNode,
} from "graphql";
import type { Place } from "../problem/place.js";
import { placeOfNode } from "./graphqlPlace.js";
import type { QueryUse, UseKind } from "./queryModel.js";

/** Every place where the definitions depend on something of the schema, in document order. */
export function findUses(
  schema: GraphQLSchema,
  nodes: readonly (OperationDefinitionNode | FragmentDefinitionNode)[],
): QueryUse[] {
  return nodes.flatMap((node) => usesOf(schema, node));
}

function usesOf(schema: GraphQLSchema, definition: OperationDefinitionNode | FragmentDefinitionNode): QueryUse[] {
  const uses: QueryUse[] = [];
  const info = new TypeInfo(schema);
  const owner = definition.name?.value ?? "";
  const add = (coordinate: string, kind: UseKind, place: Place): void => {
    uses.push({ coordinate, kind, owner, operations: [], place });
  };
  visit(
    definition,
    visitWithTypeInfo(info, {
      [Kind.FIELD](node) {
        const parent = info.getParentType();
        const field = info.getFieldDef();
        if (!parent || !field || field.name.startsWith("__")) return;
        const place = placeOfNode(node);
        add(`${parent.name}.${field.name}`, "selects", place);
        const type = getNamedType(field.type);
        if (isEnumType(type) || isScalarType(type) || isAbstractType(type)) add(type.name, "selects", place);
        for (const argument of field.args) {
          const given = node.arguments?.find((each) => each.name.value === argument.name);
          if (given) add(`${parent.name}.${field.name}(${argument.name}:)`, "passes", placeOfNode(given));
          else add(`${parent.name}.${field.name}(${argument.name}:)?`, "passes", place);
        }
      },
      [Kind.VARIABLE_DEFINITION](node) {
        const type = typeFromAST(schema, node.type);
        const place = placeOfNode(node.variable);
        if (type)
          sendsType(getNamedType(type), (coordinate) => {
            add(coordinate, "sends", place);
          });
      },
      [Kind.OBJECT_FIELD](node) {
        const parent = getNamedType(info.getParentInputType());
        if (isInputObjectType(parent)) add(`${parent.name}.${node.name.value}`, "sends", placeOfNode(node));
      },
      [Kind.ENUM](node) {
        const type = getNamedType(info.getInputType());
        if (isEnumType(type)) add(`${type.name}.${node.value}`, "sends", placeOfNode(node));
      },
      [Kind.INLINE_FRAGMENT](node) {
        if (node.typeCondition) add(node.typeCondition.name.value, "matches", placeOfNode(node.typeCondition));
      },
      [Kind.FRAGMENT_DEFINITION](node) {
        add(node.typeCondition.name.value, "names", placeOfNode(node.typeCondition));
      },
    }),
  );
  return uses;
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
