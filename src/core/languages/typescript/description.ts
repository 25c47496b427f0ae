import type { LanguageDescription } from "../language.js";

const identifier = { type: "string", pattern: "^[A-Za-z_$][A-Za-z0-9_$]*$" };

/** What a configuration can say of a TypeScript SDK. */
export const description: LanguageDescription = {
  id: "typescript",
  title: "TypeScript",
  settings: {
    shared: {
      dates: { values: ["text", "decoded"], usual: "text" },
      int64: { values: ["number", "bigint", "text"], usual: "number" },
      choices: { values: ["closed", "open"], usual: "closed" },
      failures: { values: ["throw", "return"], usual: "throw" },
      verify: { values: ["none", "answers"], usual: "none" },
      unions: { values: ["closed", "open"], usual: "closed" },
      fragments: { values: ["inline", "sealed"], usual: "inline" },
      testing: { values: [false, true], usual: false },
    },
    own: {
      parsed: {
        description: "Whether GraphQL operations carry their text parsed too; the app then needs the package graphql.",
        type: "boolean",
      },
      manifest: {
        description:
          "Whether there is a list of all GraphQL operations with hash and text, for servers that know them by id.",
        type: "boolean",
      },
      schema: { description: "Whether there is a copy of the GraphQL schema as text.", type: "boolean" },
      formats: {
        description: "Types of the app's own, by format.",
        type: "object",
        additionalProperties: {
          type: "object",
          required: ["type", "from", "decode", "encode"],
          additionalProperties: false,
          properties: {
            type: identifier,
            from: {
              description: "The module, a path of the project as it is imported.",
              type: "string",
              minLength: 1,
            },
            decode: identifier,
            encode: identifier,
          },
        },
      },
      imports: {
        description: "Endings of relative imports; as the app's tsconfig wants them when absent.",
        enum: ["js", "bare"],
      },
    },
  },
  scalar: { enum: ["string", "number", "boolean", "unknown"] },
};
