import {
  Kind,
  visit,
  type DirectiveNode,
  type FragmentDefinitionNode,
  type FragmentSpreadNode,
  type OperationDefinitionNode,
} from "graphql";

/** The parts of a definition that do not depend on a schema, in document order. */
export interface DefinitionParts {
  readonly spreads: readonly FragmentSpreadNode[];
  readonly directives: readonly DirectiveNode[];
}

const known = new WeakMap<OperationDefinitionNode | FragmentDefinitionNode, DefinitionParts>();

/**
 * Returns the fragment spreads and the directives of a definition. Each definition is read once, because a comparison
 * asks for both schemas.
 */
export function definitionParts(definition: OperationDefinitionNode | FragmentDefinitionNode): DefinitionParts {
  const found = known.get(definition);
  if (found) return found;
  const spreads: FragmentSpreadNode[] = [];
  const directives: DirectiveNode[] = [];
  visit(definition, {
    [Kind.FRAGMENT_SPREAD](node) {
      spreads.push(node);
    },
    [Kind.DIRECTIVE](node) {
      directives.push(node);
    },
  });
  const parts = { spreads, directives };
  known.set(definition, parts);
  return parts;
}
