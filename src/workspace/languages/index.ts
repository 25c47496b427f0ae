import { languages, usualLanguage } from "../../core/languages/index.js";
import type { WorkspaceLanguage } from "./languageTools.js";

const tools: Readonly<Record<string, WorkspaceLanguage["loadTools"]>> = {
  javascript: async () => (await import("./javascript/tools.js")).javascriptTools(),
  kotlin: async () => (await import("./kotlin/tools.js")).kotlinTools(),
  swift: async () => (await import("./swift/tools.js")).swiftTools(),
  typescript: async () => (await import("./typescript/tools.js")).typescriptTools(),
};

/** All languages of SDKs, with their tools. This is the only list of them in the workspace. */
export const workspaceLanguages: readonly WorkspaceLanguage[] = languages.flatMap((listed) => {
  const loadTools = tools[listed.id];
  return loadTools ? [{ ...listed, loadTools }] : [];
});

export { usualLanguage };

/** The signs of a project in a language. */
export interface LanguageSigns {
  readonly id: string;
  /** Files at its root. */
  readonly files: readonly string[];
  /** Its dependencies. */
  readonly packages: readonly string[];
  /** The extensions of its sources. */
  readonly endings: readonly string[];
  /** Files of another language's projects. If they exist, only the sources count, not its files. */
  readonly beside?: readonly string[];
  /** The patterns of query documents, if there are none yet. */
  readonly queries?: readonly string[];
}

/** The first language with a sign in the project is the project's own. */
export const languageSigns: readonly LanguageSigns[] = [
  { id: "typescript", files: ["tsconfig.json"], packages: ["typescript"], endings: ["ts", "tsx", "mts", "cts"] },
  {
    id: "kotlin",
    files: ["settings.gradle.kts", "settings.gradle", "build.gradle.kts", "build.gradle", "pom.xml"],
    packages: [],
    endings: ["kt"],
    beside: ["package.json"],
    queries: ["**/src/main/graphql/**/*.{graphql,gql}"],
  },
  { id: "swift", files: ["Package.swift"], packages: [], endings: ["swift"], beside: ["package.json"] },
  { id: "javascript", files: ["jsconfig.json"], packages: [], endings: ["js", "jsx", "mjs", "html"] },
];

/** Files of projects in languages without SDKs yet. */
export const foreignProjects: readonly (readonly [string, string])[] = [["pubspec.yaml", "Dart"]];
