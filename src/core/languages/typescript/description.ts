import type { LanguageDescription } from "../language.js";
import { formatsSetting, graphqlCopies } from "../ownSettings.js";

const identifier = { type: "string", pattern: "^[A-Za-z_$][A-Za-z0-9_$]*$", examples: ["harbourDay"] };

const framework = { enum: ["angular", "react", "solid", "svelte", "vue"] };

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
      cached: { values: [false, true], usual: false, implied: { by: "views", value: true } },
    },
    own: {
      views: {
        description:
          "Frameworks for which there are bindings that show described calls; there are described calls then, too.",
        anyOf: [framework, { type: "array", uniqueItems: true, items: framework }],
      },
      parsed: {
        description: "Whether GraphQL operations carry their text parsed too; the app then needs the package graphql.",
        type: "boolean",
      },
      ...graphqlCopies,
      formats: formatsSetting({
        type: identifier,
        from: {
          description: "The module, a path of the project as it is imported.",
          type: "string",
          minLength: 1,
        },
        decode: identifier,
        encode: identifier,
      }),
      imports: {
        description: "Endings of relative imports; as the app's tsconfig wants them when absent.",
        enum: ["js", "bare"],
      },
    },
  },
  scalar: { enum: ["string", "number", "boolean", "unknown"] },
};
