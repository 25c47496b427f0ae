import type { FragmentDefinitionNode, GraphQLSchema } from "graphql";

/** What typing a selection needs to look up. */
export interface TypingContext {
  readonly schema: GraphQLSchema;
  readonly fragments: ReadonlyMap<string, FragmentDefinitionNode>;
  /** Fields of a named fragment are seen only by who names the fragment. */
  readonly isSealed: boolean;
  /** Fragments are types of their own: answers say which of them they spread. */
  readonly isNamed: boolean;
  /** What a fragment answers for an object type, as far as it was asked for: signatures by both names. */
  readonly answered: Map<string, string>;
}
