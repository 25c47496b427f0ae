import type { FragmentDefinitionNode, OperationDefinitionNode } from "graphql";
import { definitionParts } from "./definitionParts.js";

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
  for (let next = open.pop(); next; next = open.pop())
    for (const { name } of definitionParts(next).spreads) {
      if (found.has(name.value)) continue;
      found.add(name.value);
      const fragment = fragments.get(name.value);
      if (fragment) open.push(fragment);
    }
  return found;
}
