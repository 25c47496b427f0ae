import type { LanguageDescription } from "../language.js";
import { formatsSetting, graphqlCopies, qualifiedName } from "../ownSettings.js";

/** The description of Kotlin for reading configurations. */
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
        description: "The package of the SDK. Each contract has a package below it. Default: from the SDK's name.",
        ...qualifiedName,
      },
      package: {
        description: "Whether the SDK is a module with build files of its own, for Gradle and Maven.",
        type: "boolean",
      },
      ...graphqlCopies,
      formats: formatsSetting({
        type: { description: "The full name of the type, with its package.", ...qualifiedName },
        decode: { description: "The full name of the function that creates one from a string.", ...qualifiedName },
        encode: { description: "The full name of the function that writes one as a string.", ...qualifiedName },
      }),
    },
  },
  scalar: { enum: ["String", "Long", "Int", "Double", "Boolean", "JsonElement"] },
};
