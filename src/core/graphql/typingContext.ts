import type { FragmentDefinitionNode, GraphQLSchema } from "graphql";

/** What typing a selection needs to look up. */
export interface TypingContext {
  readonly schema: GraphQLSchema;
  readonly fragments: ReadonlyMap<string, FragmentDefinitionNode>;
}
