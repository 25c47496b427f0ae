import type { LanguageDescription } from "../language.js";
import { formatsSetting, graphqlCopies, qualifiedName } from "../ownSettings.js";

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
      ...graphqlCopies,
      formats: formatsSetting({
        type: { description: "The type's whole name, its package included.", ...qualifiedName },
        decode: { description: "The whole name of the function that makes one of a text.", ...qualifiedName },
        encode: { description: "The whole name of the function that makes a text of one.", ...qualifiedName },
      }),
    },
  },
  scalar: { enum: ["String", "Long", "Int", "Double", "Boolean", "JsonElement"] },
};
