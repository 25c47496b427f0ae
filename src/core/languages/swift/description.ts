import type { LanguageDescription } from "../language.js";

const identifier = "[A-Za-z_][A-Za-z0-9_]*";
const qualifiedName = { type: "string", pattern: `^${identifier}(\\.${identifier})*$` };

/** What a configuration can say of a Swift SDK. */
export const description: LanguageDescription = {
  id: "swift",
  title: "Swift",
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
      prefix: {
        description:
          "What the names of the SDK's namespaces begin with, where one target has several SDKs: `Harbour` makes `HarbourWire` of `Wire`.",
        type: "string",
        pattern: "^[A-Z][A-Za-z0-9]*$",
      },
      package: {
        description: "Whether the SDK is a package with a `Package.swift` of its own; what it offers is public then.",
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
            from: { description: "The module that has them; absent where it is the app's own.", ...qualifiedName },
            type: { description: "The type, which has to be Hashable and Sendable.", ...qualifiedName },
            decode: { description: "The function that makes one of a text; it may throw.", ...qualifiedName },
            encode: { description: "The function that makes a text of one.", ...qualifiedName },
          },
        },
      },
    },
  },
  scalar: { enum: ["String", "Int64", "Int32", "Double", "Bool", "JSON"] },
};
