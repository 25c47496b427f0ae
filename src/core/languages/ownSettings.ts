/** Settings of an SDK that several languages have as their own, as properties of a JSON Schema. */

/** What a GraphQL contract brings beside its calls. */
export const graphqlCopies = {
  manifest: {
    description:
      "Whether there is a list of all GraphQL operations with hash and text, for servers that know them by id.",
    type: "boolean",
  },
  schema: { description: "Whether there is a copy of the GraphQL schema as text.", type: "boolean" },
};

/** Types of the app's own by format. @param properties what is said of one, each but the optional ones needed */
export function formatsSetting(properties: Readonly<Record<string, object>>, optional: readonly string[] = []): object {
  return {
    description: "Types of the app's own, by format.",
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

/** A name with the package or the types that it stands in. */
export const qualifiedName = {
  type: "string",
  pattern: `^${identifier}(\\.${identifier})*$`,
  examples: ["Harbour.days"],
};
