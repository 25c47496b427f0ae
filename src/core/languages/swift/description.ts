import type { LanguageDescription } from "../language.js";
import { formatsSetting, graphqlCopies, qualifiedName } from "../ownSettings.js";

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
        examples: ["Harbour"],
      },
      package: {
        description: "Whether the SDK is a package with a `Package.swift` of its own; what it offers is public then.",
        type: "boolean",
      },
      ...graphqlCopies,
      formats: formatsSetting(
        {
          from: { description: "The module that has them; absent where it is the app's own.", ...qualifiedName },
          type: { description: "The type, which has to be Hashable and Sendable.", ...qualifiedName },
          decode: { description: "The function that makes one of a text; it may throw.", ...qualifiedName },
          encode: { description: "The function that makes a text of one.", ...qualifiedName },
        },
        ["from"],
      ),
    },
  },
  scalar: { enum: ["String", "Int64", "Int32", "Double", "Bool", "JSON"] },
};
