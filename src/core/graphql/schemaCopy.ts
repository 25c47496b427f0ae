import { GraphQLSchema, printSchema } from "graphql";
import { sortedBy } from "../text/sortedBy.js";

/**
 * Returns a schema as text, which is the same for all forms of a schema. Types follow the order of their references,
 * fields follow the order of the schema, and directives for servers are left out.
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
