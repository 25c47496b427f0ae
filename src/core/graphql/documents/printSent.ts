import {
  Kind,
  print,
  visit,
  type FragmentDefinitionNode,
  type OperationDefinitionNode,
  type SelectionNode,
  type SelectionSetNode,
} from "graphql";

/**
 * Returns the text that is sent: the operation, then its fragments.
 *
 * @param needTypename the selection sets that get `__typename` as their first field
 */
export function printSent(
  operation: OperationDefinitionNode,
  fragments: readonly FragmentDefinitionNode[],
  needTypename: ReadonlySet<SelectionSetNode>,
): string {
  const withTypename = <T extends OperationDefinitionNode | FragmentDefinitionNode>(node: T): T =>
    visit(node, {
      [Kind.SELECTION_SET]: {
        // After a node's children were visited, the node is a copy. The marks are on the original nodes, so they are
        // read before that.
        enter(set) {
          if (!needTypename.has(set) || set.selections.some(isTypename)) return undefined;
          const typename = { kind: Kind.FIELD, name: { kind: Kind.NAME, value: "__typename" } } as const;
          return { ...set, selections: [typename, ...set.selections] };
        },
      },
    });
  return [operation, ...fragments].map((node) => print(withTypename(node))).join("\n\n");
}

/** Whether a selection is always `__typename` under its own name, whatever the variables. */
function isTypename(selection: SelectionNode): boolean {
  return (
    selection.kind === Kind.FIELD &&
    selection.name.value === "__typename" &&
    !selection.alias &&
    (selection.directives ?? []).length === 0
  );
}
