import type { FragmentDefinitionNode, GraphQLSchema } from "graphql";

/** What typing a selection needs to look up. */
export interface TypingContext {
  readonly schema: GraphQLSchema;
  readonly fragments: ReadonlyMap<string, FragmentDefinitionNode>;
  /** Fields of a named fragment are seen only by who names the fragment. */
  readonly isSealed: boolean;
}
