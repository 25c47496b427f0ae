import tseslint from "typescript-eslint";

/** Imports point one way: cli -> workspace, standin -> core. */
const forbid = (folders, why) => ({
  patterns: folders.map((folder) => ({ group: [`**/${folder}/**`, `**/../${folder}/**`], message: why })),
});

const corePlatform = [
  "node:*",
  "fs",
  "path",
  "http",
  "https",
  "os",
  "child_process",
  "commander",
  "picocolors",
  "hono",
  "hono/*",
  "@hono/*",
  "tinyglobby",
];

/** The folders of the core, each of which may know those before it. */
const coreFolders = [
  ...["text", "problem", "contract", "use", "rest", "graphql", "sdk", "change", "languages", "call"],
  ...["outline", "report"],
];

/** What every file below `src/core` may not know. */
const aboveCore = [
  { group: ["**/workspace/**", "**/standin/**", "**/cli/**"], message: "The core knows nothing above it." },
  { group: corePlatform, message: "The core has no I/O, no console and no colours." },
];

/** A rule for each folder of the core. */
const orderInCore = coreFolders.map((folder, at) => ({
  files: [`src/core/${folder}/**`],
  rules: {
    "no-restricted-imports": [
      "error",
      {
        patterns: [
          ...aboveCore,
          ...coreFolders.slice(at + 1).map((later) => ({
            regex: `^(\\.\\./)+${later}/`,
            message: `Inside the core, ${folder}/ comes before ${later}/ and knows nothing of it.`,
          })),
        ],
      },
    ],
  },
}));

/** What has to be a language's own: nothing outside of its folders may name one. */
const languageName = {
  meta: {
    type: "problem",
    schema: [],
    messages: { named: "Only a language's folders and the two registries name it." },
  },
  create: (context) => ({
    Program: (program) => {
      const { text } = context.sourceCode;
      for (const { index } of text.matchAll(/typescript|javascript|kotlin|\bswift|\bdart\b|\btsc\b/gi)) {
        const start = context.sourceCode.getLocFromIndex(index);
        context.report({ node: program, loc: start, messageId: "named" });
      }
    },
  }),
};

export default tseslint.config(
  { ignores: [".toolchains/**", "dist/**", "node_modules/**", "demo/app/sdk/**", "demo/app*/**", "test/fixtures/**"] },
  ...tseslint.configs.strictTypeChecked,
  ...tseslint.configs.stylisticTypeChecked,
  {
    languageOptions: {
      parserOptions: {
        projectService: { allowDefaultProject: ["eslint.config.js"] },
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      "@typescript-eslint/restrict-template-expressions": ["error", { allowNumber: false }],
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_" }],
      "@typescript-eslint/prefer-nullish-coalescing": ["error", { ignorePrimitives: { string: true } }],
      // Index signatures are read with brackets, as `noPropertyAccessFromIndexSignature` would ask.
      "@typescript-eslint/dot-notation": ["error", { allowIndexSignaturePropertyAccess: true }],
      // Exhausts the stack on the recursive generic classes of the GraphQL reference implementation.
      "@typescript-eslint/no-unsafe-class-instance-assignment": "off",
      "no-console": "error",
      eqeqeq: ["error", "always", { null: "ignore" }],
    },
  },
  {
    files: ["src/**"],
    ignores: ["src/{core,workspace}/languages/*/**", "src/{core,workspace}/languages/index.ts"],
    plugins: { rhema: { rules: { "language-name": languageName } } },
    rules: { "rhema/language-name": "error" },
  },
  {
    // Reading a form is marked as deprecated for servers that are sent much.
    files: ["src/standin/rest/sentBody.ts"],
    rules: { "@typescript-eslint/no-deprecated": "off" },
  },
  {
    files: ["src/core/**"],
    rules: {
      "no-restricted-imports": [
        "error",
        {
          patterns: aboveCore,
        },
      ],
      "no-restricted-globals": [
        "error",
        "process",
        "console",
        "fetch",
        "setTimeout",
        "setInterval",
        "performance",
        "Buffer",
      ],
      "no-restricted-properties": [
        "error",
        { object: "Date", property: "now" },
        { object: "Math", property: "random" },
      ],
    },
  },
  ...orderInCore,
  {
    files: ["src/workspace/**"],
    rules: { "no-restricted-imports": ["error", forbid(["cli", "standin"], "The workspace knows nothing above it.")] },
  },
  {
    files: ["src/standin/**"],
    rules: {
      "no-restricted-imports": ["error", forbid(["cli", "workspace"], "The stand-in works on the core's model alone.")],
    },
  },
  {
    files: ["src/workspace/**", "src/standin/**", "src/cli/commands/**"],
    rules: {
      "no-restricted-properties": [
        "error",
        ...["cwd", "env", "argv", "stdin", "stdout", "stderr", "exit", "on", "once"].map((property) => ({
          object: "process",
          property,
          message: "What a command knows of its process is passed in, so that several can run in one.",
        })),
      ],
    },
  },
  {
    files: ["runtimes/**"],
    rules: {
      // Apps may take types away without a compiler (`erasableSyntaxOnly`).
      "@typescript-eslint/parameter-properties": ["error", { prefer: "class-property" }],
      "no-restricted-syntax": ["error", "TSEnumDeclaration[declare!=true]", "TSModuleDeclaration[kind='namespace']"],
      "no-restricted-imports": [
        "error",
        { patterns: [{ regex: "^(?!\\./)", message: "A runtime has no dependencies." }] },
      ],
    },
  },
  {
    // Each has the framework that it is for, and knows what it shows by its type.
    files: ["runtimes/typescript/views/**"],
    rules: {
      "no-restricted-imports": [
        "error",
        {
          patterns: [
            {
              regex: "^(?!\\./|\\.\\./wire/described\\.js$|(react|vue|svelte/reactivity|solid-js|@angular/core|rxjs)$)",
              message: "A binding has no dependency but its framework.",
            },
          ],
        },
      ],
    },
  },
  {
    files: ["test/**", "truth/**", "bench/**"],
    rules: { "@typescript-eslint/no-non-null-assertion": "off" },
  },
  {
    files: ["**/*.mjs", "**/*.js"],
    ...tseslint.configs.disableTypeChecked,
    rules: { ...tseslint.configs.disableTypeChecked.rules, "no-console": "off" },
  },
);
