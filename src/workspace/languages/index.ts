import { languages, usualLanguage } from "../../core/languages/index.js";
import type { WorkspaceLanguage } from "./languageTools.js";

const tools: Readonly<Record<string, WorkspaceLanguage["loadTools"]>> = {
  typescript: async () => (await import("./typescript/tools.js")).typescriptTools(),
};

/** Every language that SDKs can be written in, with its tools. The only list of them in the workspace. */
export const workspaceLanguages: readonly WorkspaceLanguage[] = languages.flatMap((listed) => {
  const loadTools = tools[listed.id];
  return loadTools ? [{ ...listed, loadTools }] : [];
});

export { usualLanguage };

/** Files that tell of a project in a language that SDKs are not written in yet. */
export const foreignProjects: readonly (readonly [string, string])[] = [
  ["build.gradle.kts", "Kotlin"],
  ["build.gradle", "Kotlin"],
  ["Package.swift", "Swift"],
  ["pubspec.yaml", "Dart"],
];
