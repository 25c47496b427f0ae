import { Kind, visit, type FragmentDefinitionNode, type OperationDefinitionNode } from "graphql";

/** Names of the fragments a definition spreads, and of those they spread in turn as far as they are known. */
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
