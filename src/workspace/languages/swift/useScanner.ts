import { existsSync, readdirSync } from "node:fs";
import type { Project } from "../../project/project.js";
import type { UseScanner } from "../languageTools.js";
import type { SourceText } from "../source/sdkSource.js";
import { appSources, sdkSources } from "../source/sourcesOnDisk.js";
import { swiftUses } from "./source/swiftUses.js";

const outputs = /(?:^|\/)(?:\.build|DerivedData|Pods|Carthage)\//;

/** Returns the scanner for uses of SDKs in the app's Swift source. */
export function useScanner(): UseScanner {
  return {
    hasSources: (project) => sourcesOf(project).length > 0,
    isWritten: ({ folder }) => existsSync(folder) && readdirSync(folder).some((name) => name.endsWith(".swift")),
    find: (project, parts, made) => {
      const app = sourcesOf(project);
      return Promise.resolve(sdkSources(parts, made, ".swift").flatMap((source) => swiftUses(app, source)));
    },
    // Source in the same module uses names without importing them.
    importsFrom: () => [],
  };
}

/** Package manifests are not source of an app. */
function sourcesOf(project: Project): SourceText[] {
  return appSources(project, ["**/*.swift"], outputs).filter(
    ({ document }) => !/(?:^|\/)Package(?:@[^/]*)?\.swift$/.test(document),
  );
}
