import type { LanguageDescription } from "../language.js";
import { formatsSetting, graphqlCopies } from "../ownSettings.js";

const identifier = { type: "string", pattern: "^[A-Za-z_$][A-Za-z0-9_$]*$", examples: ["harbourDay"] };

const framework = { enum: ["angular", "react", "solid", "svelte", "vue"] };

/** The description of TypeScript for reading configurations. */
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
        description: "The frameworks for which the SDK has bindings. This also turns on `cached`.",
        anyOf: [framework, { type: "array", uniqueItems: true, items: framework }],
      },
      parsed: {
        description:
          "Whether GraphQL operations also contain their parsed text. The app then needs the package graphql.",
        type: "boolean",
      },
      ...graphqlCopies,
      formats: formatsSetting({
        type: identifier,
        from: {
          description: "The module, as a path in the project.",
          type: "string",
          minLength: 1,
        },
        decode: identifier,
        encode: identifier,
      }),
      imports: {
        description: "The extensions of relative imports. Default: those of the app's tsconfig.",
        enum: ["js", "bare"],
      },
    },
  },
  scalar: { enum: ["string", "number", "boolean", "unknown"] },
};
