import { existsSync, readdirSync } from "node:fs";
import type { Project } from "../../project/project.js";
import type { UseScanner } from "../languageTools.js";
import type { SourceText } from "../source/sdkSource.js";
import { appSources, sdkSources } from "../source/sourcesOnDisk.js";
import { swiftUses } from "./source/swiftUses.js";

const outputs = /(?:^|\/)(?:\.build|DerivedData|Pods|Carthage)\//;

/** What the app's Swift source uses of SDKs. */
export function useScanner(): UseScanner {
  return {
    hasSources: (project) => sourcesOf(project).length > 0,
    isWritten: ({ folder }) => existsSync(folder) && readdirSync(folder).some((name) => name.endsWith(".swift")),
    find: (project, parts, made) => {
      const app = sourcesOf(project);
      return Promise.resolve(sdkSources(parts, made, ".swift").flatMap((source) => swiftUses(app, source)));
    },
    // Source of a module names what it uses without importing it.
    importsFrom: () => [],
  };
}

/** Manifests of packages are no source of an app. */
function sourcesOf(project: Project): SourceText[] {
  return appSources(project, ["**/*.swift"], outputs).filter(
    ({ document }) => !/(?:^|\/)Package(?:@[^/]*)?\.swift$/.test(document),
  );
}
