import { GraphQLSchema, printSchema } from "graphql";
import { sortedBy } from "../text/sortedBy.js";

/**
 * A schema as text, the same whatever the schema came as: types follow each other as they refer to each other, fields
 * stand in the schema's order, and directives that only servers understand are left out.
 */
export function schemaCopy(schema: GraphQLSchema): string {
  const config = schema.toConfig();
  const sorted = new GraphQLSchema({
    ...config,
    types: sortedBy(config.types, ({ name }) => name),
    directives: sortedBy(config.directives, ({ name }) => name),
    assumeValid: true,
  });
  return `${printSchema(sorted)}\n`;
}
