import {
  isNonNullType,
  TokenKind,
  typeFromAST,
  valueFromASTUntyped,
  type FragmentDefinitionNode,
  type GraphQLSchema,
  type OperationDefinitionNode,
  type SelectionSetNode,
  type VariableDefinitionNode,
} from "graphql";
import type { Field, Shape } from "../../contract/model.js";
import { sortedBy } from "../../text/sortedBy.js";
import { placeOfNode } from "../graphqlPlace.js";
import { printSent } from "./printSent.js";
import type { QueryFragment, QueryOperation } from "./queryModel.js";
import { toReference } from "../readGraphqlContract.js";
import { spreadFragments } from "./spreadFragments.js";
import { mostFields, typeSelections, type SelectionContext } from "./typeSelections.js";
import type { TypingContext } from "./typingContext.js";

/**
 * Types one valid, named operation.
 *
 * @throws TooManyFields if it selects more fields than are typed
 */
export function typeOperation(node: OperationDefinitionNode, context: TypingContext): QueryOperation {
  const needTypename = new Set<SelectionSetNode>();
  const room = (): SelectionContext["room"] => ({ left: mostFields });
  const rootType = context.schema.getRootType(node.operation);
  if (!rootType) throw new Error(`The schema has no ${node.operation} type. Validation should have reported it.`);
  const answer = typeSelections([{ set: node.selectionSet, condition: "" }], rootType, {
    ...context,
    needTypename,
    room: room(),
  });
  const whole = context.isSealed
    ? typeSelections([{ set: node.selectionSet, condition: "" }], rootType, {
        ...context,
        isSealed: false,
        needTypename,
        room: room(),
      })
    : undefined;
  const fragments = [...spreadFragments(node, context.fragments)].sort();
  // The fields that a sealed fragment needs to distinguish types are not visible from outside.
  if (context.isSealed)
    for (const name of fragments) {
      const fragment = context.fragments.get(name);
      if (fragment) fragmentShape(fragment, { ...context, needTypename, room: room() });
    }
  return {
    name: node.name?.value ?? "",
    root: node.operation,
    variables: (node.variableDefinitions ?? []).map((each) => variableField(each, context.schema)),
    answer: { shape: answer, nullable: false },
    ...(whole ? { whole: { shape: whole, nullable: false } } : {}),
    text: printSent(
      node,
      fragments.flatMap((name) => context.fragments.get(name) ?? []),
      needTypename,
    ),
    fragments,
    ...leadingComment(node),
    place: placeOfNode(node),
  };
}

/**
 * Types one fragment on its own.
 *
 * @throws TooManyFields if it selects more fields than are typed
 */
export function typeFragment(node: FragmentDefinitionNode, context: TypingContext): QueryFragment {
  const shape = fragmentShape(node, { ...context, needTypename: new Set(), room: { left: mostFields } });
  return {
    name: node.name.value,
    on: node.typeCondition.name.value,
    shape: { shape, nullable: false },
    fragments: sortedBy(spreadFragments(node, context.fragments), (name) => name),
    place: placeOfNode(node),
  };
}

function fragmentShape(node: FragmentDefinitionNode, context: SelectionContext): Shape {
  const type = context.schema.getType(node.typeCondition.name.value);
  if (!type) throw new Error(`Unknown type ${node.typeCondition.name.value}. Validation should have reported it.`);
  return typeSelections([{ set: node.selectionSet, condition: "" }], type, context);
}

function variableField(node: VariableDefinitionNode, schema: GraphQLSchema): Field {
  const type = typeFromAST(schema, node.type);
  if (!type) throw new Error(`Unknown type of $${node.variable.name.value}. Validation should have reported it.`);
  const optional = !isNonNullType(type) || node.defaultValue !== undefined;
  return {
    name: node.variable.name.value,
    type: toReference(type),
    required: !optional,
    ...(node.defaultValue ? { default: valueFromASTUntyped(node.defaultValue) } : {}),
    place: placeOfNode(node.variable),
  };
}

/** The comment lines directly above an operation are its description. */
function leadingComment(node: OperationDefinitionNode): { description?: string } {
  const lines: string[] = [];
  const start = node.loc?.startToken;
  let nextLine = start?.line ?? 0;
  for (let token = start?.prev; token?.kind === TokenKind.COMMENT && token.line === nextLine - 1; token = token.prev) {
    lines.unshift(token.value.trim());
    nextLine = token.line;
  }
  return lines.length > 0 ? { description: lines.join("\n") } : {};
}
