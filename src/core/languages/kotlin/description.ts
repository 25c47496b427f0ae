import type { LanguageDescription } from "../language.js";

const qualifiedName = { type: "string", pattern: "^[A-Za-z_][A-Za-z0-9_]*(\\.[A-Za-z_][A-Za-z0-9_]*)*$" };

/** What a configuration can say of a Kotlin SDK. */
export const description: LanguageDescription = {
  id: "kotlin",
  title: "Kotlin",
  settings: {
    shared: {
      dates: { values: ["text", "decoded"], usual: "text" },
      choices: { values: ["open", "closed"], usual: "open" },
      failures: { values: ["throw", "return"], usual: "throw" },
      verify: { values: ["none", "answers"], usual: "none" },
      unions: { values: ["open", "closed"], usual: "open" },
      fragments: { values: ["named"], usual: "named" },
      testing: { values: [false, true], usual: false },
    },
    own: {
      namespace: {
        description: "The package of the SDK; each contract has one below it. Made of the SDK's name when absent.",
        ...qualifiedName,
      },
      package: {
        description: "Whether the SDK is a module with build files of its own, for Gradle and Maven.",
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
          required: ["type", "decode", "encode"],
          additionalProperties: false,
          properties: {
            type: { description: "The type's whole name, its package included.", ...qualifiedName },
            decode: { description: "The whole name of the function that makes one of a text.", ...qualifiedName },
            encode: { description: "The whole name of the function that makes a text of one.", ...qualifiedName },
          },
        },
      },
    },
  },
  scalar: { enum: ["String", "Long", "Int", "Double", "Boolean", "JsonElement"] },
};
