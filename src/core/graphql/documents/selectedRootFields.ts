import { Kind, parse, type FragmentDefinitionNode, type SelectionSetNode } from "graphql";

/**
 * Returns the names of the root fields that an operation selects, also inside fragments, in order.
 *
 * @param text a document with one operation and its fragments
 * @throws GraphQLError if the text is not a valid document
 */
export function selectedRootFields(text: string): ReadonlySet<string> {
  const { definitions } = parse(text, { noLocation: true });
  const fragments = new Map<string, FragmentDefinitionNode>();
  for (const each of definitions) if (each.kind === Kind.FRAGMENT_DEFINITION) fragments.set(each.name.value, each);
  const found = new Set<string>();
  const spread = new Set<string>();
  const collect = ({ selections }: SelectionSetNode): void => {
    for (const each of selections) {
      if (each.kind === Kind.FIELD) found.add(each.name.value);
      else if (each.kind === Kind.INLINE_FRAGMENT) collect(each.selectionSet);
      else if (!spread.has(each.name.value)) {
        spread.add(each.name.value);
        const fragment = fragments.get(each.name.value);
        if (fragment) collect(fragment.selectionSet);
      }
    }
  };
  for (const each of definitions) if (each.kind === Kind.OPERATION_DEFINITION) collect(each.selectionSet);
  return found;
}
