import { Kind, parse, validate, type GraphQLSchema } from "graphql";
import type { SourceText } from "../problem/place.js";

/** A query in the source that is valid for a schema. */
export interface InlineQuery {
  /** "query Fleet"; without a name if it has none. */
  readonly label: string;
  readonly name: string | undefined;
  /** The offset of its first character in the source. */
  readonly offset: number;
  readonly length: number;
}

/**
 * Returns the texts in source that are valid queries of a schema, each as one text.
 *
 * @param texts each with everything else of its source blank, as `literalQueries` returns them
 */
export function inlineQueries(schema: GraphQLSchema, texts: readonly SourceText[]): InlineQuery[] {
  return texts.flatMap(({ text }): InlineQuery[] => {
    const offset = text.search(/\S/);
    try {
      const document = parse(text);
      const [operation] = document.definitions.filter(({ kind }) => kind === Kind.OPERATION_DEFINITION);
      if (operation?.kind !== Kind.OPERATION_DEFINITION || validate(schema, document).length > 0) return [];
      const name = operation.name?.value;
      const label = name === undefined ? operation.operation : `${operation.operation} ${name}`;
      return [{ label, name, offset, length: text.trimEnd().length - offset }];
    } catch {
      // It only begins like GraphQL.
      return [];
    }
  });
}
