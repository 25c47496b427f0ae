import type { LanguageDescription } from "../language.js";
import { formatsSetting, graphqlCopies, qualifiedName } from "../ownSettings.js";

/** The description of Swift for reading configurations. */
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
          "The prefix of the SDK's namespaces, if a target has several SDKs: `Harbour` changes `Wire` to `HarbourWire`.",
        type: "string",
        pattern: "^[A-Z][A-Za-z0-9]*$",
        examples: ["Harbour"],
      },
      package: {
        description: "Whether the SDK is a package with a `Package.swift` of its own and a public interface.",
        type: "boolean",
      },
      ...graphqlCopies,
      formats: formatsSetting(
        {
          from: { description: "The module of the type and functions. Default: the app's own.", ...qualifiedName },
          type: { description: "The type, which must be Hashable and Sendable.", ...qualifiedName },
          decode: { description: "The function that creates one from a string. It may throw.", ...qualifiedName },
          encode: { description: "The function that writes one as a string.", ...qualifiedName },
        },
        ["from"],
      ),
    },
  },
  scalar: { enum: ["String", "Int64", "Int32", "Double", "Bool", "JSON"] },
};
