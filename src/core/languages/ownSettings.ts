/** Settings that are the same in several languages, as properties of a JSON Schema. */

/** Further files of a GraphQL contract. */
export const graphqlCopies = {
  manifest: {
    description:
      "Whether the SDK has a list of all GraphQL operations with hash and text, for servers that accept ids.",
    type: "boolean",
  },
  schema: { description: "Whether the SDK has a copy of the GraphQL schema as text.", type: "boolean" },
};

/** Returns the setting for the app's own types, by format. @param properties the properties of one type, required unless listed in `optional` */
export function formatsSetting(properties: Readonly<Record<string, object>>, optional: readonly string[] = []): object {
  return {
    description: "The app's own types, by format.",
    type: "object",
    additionalProperties: {
      type: "object",
      required: Object.keys(properties).filter((name) => !optional.includes(name)),
      additionalProperties: false,
      properties,
    },
  };
}

const identifier = "[A-Za-z_][A-Za-z0-9_]*";

/** A name with its package or its enclosing types. */
export const qualifiedName = {
  type: "string",
  pattern: `^${identifier}(\\.${identifier})*$`,
  examples: ["Harbour.days"],
};
