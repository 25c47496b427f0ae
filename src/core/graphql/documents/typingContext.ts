import type { FragmentDefinitionNode, GraphQLSchema } from "graphql";

/** The facts for typing a selection. */
export interface TypingContext {
  readonly schema: GraphQLSchema;
  readonly fragments: ReadonlyMap<string, FragmentDefinitionNode>;
  /** Whether the fields of a named fragment are visible only to code that names the fragment. */
  readonly isSealed: boolean;
  /** Whether fragments are types of their own: answers then list the fragments that they spread. */
  readonly isNamed: boolean;
  /** The fields of a fragment for an object type, as far as they were needed: signatures by both names. */
  readonly answered: Map<string, string>;
}
