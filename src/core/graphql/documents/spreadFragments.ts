import { Kind, visit, type FragmentDefinitionNode, type OperationDefinitionNode } from "graphql";

/**
 * Returns the names of the fragments that a definition spreads, directly or through other fragments.
 *
 * @param fragments the known fragments by name
 */
export function spreadFragments(
  node: OperationDefinitionNode | FragmentDefinitionNode,
  fragments: ReadonlyMap<string, FragmentDefinitionNode>,
): Set<string> {
  const found = new Set<string>();
  const open: (OperationDefinitionNode | FragmentDefinitionNode)[] = [node];
  for (let next = open.pop(); next; next = open.pop()) {
    visit(next, {
      [Kind.FRAGMENT_SPREAD](spread) {
        const name = spread.name.value;
        if (found.has(name)) return;
        found.add(name);
        const fragment = fragments.get(name);
        if (fragment) open.push(fragment);
      },
    });
  }
  return found;
}
